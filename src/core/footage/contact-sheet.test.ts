import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sheetFilters, sheetOf, sheetOrders, type SheetOrder, type SheetRow } from './contact-sheet';

const row = (id: string, order: number, more: Partial<SheetRow> = {}): SheetRow => ({
  id,
  name: id,
  slot: null,
  order,
  seconds: null,
  move: null,
  stops: null,
  moves: null,
  sound: false,
  worst: null,
  ...more,
});
const rows = [
  row('Clip 10', 1, { slot: 'left', seconds: 8, move: 0.1, stops: 0.02, worst: 'fine' }),
  row('Clip 2', 2, { slot: 'right', seconds: 12, move: 5, stops: -0.4, worst: 'stop', sound: true }),
  row('Yard wide', 3, { seconds: 3, worst: 'fix' }),
  row('Clip 1', 4, { slot: 'left', moves: 0.3, stops: 0.2 }),
];
const ids = (by: SheetOrder, filter = 'all', text = '') =>
  sheetOf(rows, { by, filter, text }).map(({ id }) => id);

describe('a contact sheet of takes', () => {
  it('is put in order by what was measured, numbers in names as numbers, the unknown last', () => {
    expect(ids('order')).toEqual(['Clip 10', 'Clip 2', 'Yard wide', 'Clip 1']);
    expect(ids('name')).toEqual(['Clip 1', 'Clip 2', 'Clip 10', 'Yard wide']);
    expect(ids('seconds')).toEqual(['Clip 2', 'Clip 10', 'Yard wide', 'Clip 1']);
    expect(ids('move')[0]).toBe('Clip 2');
    expect(ids('stops').slice(0, 3)).toEqual(['Clip 2', 'Clip 1', 'Clip 10']);
    expect(ids('moves')[0]).toBe('Clip 1');
  });

  it('shows those of a slot, those with sound, those with faults, those nobody sorted, and those of a name', () => {
    expect(ids('order', 'left')).toEqual(['Clip 10', 'Clip 1']);
    expect(ids('order', 'sound')).toEqual(['Clip 2']);
    expect(ids('order', 'faulty')).toEqual(['Clip 2', 'Yard wide']);
    expect(ids('order', 'open')).toEqual(['Yard wide']);
    expect(ids('order', 'all', ' wide YARD ')).toEqual(['Yard wide']);
    expect(ids('order', 'left', 'yard')).toEqual([]);
  });

  it('neither loses nor doubles a take, and leaves the list as it was', () => {
    const orders = Object.keys(sheetOrders) as SheetOrder[];
    const number = fc.option(fc.double({ min: -2, max: 9, noNaN: true }));
    const some = fc.array(fc.record({ seconds: number, move: number, stops: number, moves: number }), {
      maxLength: 40,
    });
    fc.assert(
      fc.property(some, fc.constantFrom(...orders), (made, by) => {
        const all = made.map((more, index) => row(`t${index}`, index, more));
        const sorted = sheetOf(all, { by, filter: 'all', text: '' });
        expect(sorted.map(({ order }) => order).sort((a, b) => a - b)).toEqual(all.map(({ order }) => order));
        expect(all.map(({ order }) => order)).toEqual(all.map((_, index) => index));
      }),
    );
    expect(Object.keys(sheetFilters)).toContain('all');
  });
});
