import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mapPoint } from '../geometry/affine';
import { coveredCells as cells } from '../footage/presence';
import { windowIn } from '../geometry/size';
import type { Moment } from '../model/records';
import { fillFrame } from '../picture/node';
import { regularGrid } from '../time/grid';
import { chosenTake, projectOf } from './__tests__/chosen';
import { cropOf, examineFraming } from './framing';
import type { Material } from './material';

const filmed = { width: 1280, height: 720 };
const upright = { width: 720, height: 1280 };
const rate = { num: 25, den: 1 };
const moment = { id: 'm' } as Moment;
const ruler = (across = 0, size = upright) => ({
  grid: regularGrid(120, 0, 60),
  project: { ...projectOf(size, rate), push: { across, down: 0 } },
});

/** Somebody over some columns of a take, in shares of its width. */
function takes(...extents: [number, number][]): Material {
  const made = extents.map(([from, to], index) => {
    const covered = new Uint8Array(cells.width * cells.height);
    for (let row = 8; row < 24; row++)
      for (let column = Math.round(from * cells.width); column < Math.round(to * cells.width); column++)
        covered[row * cells.width + column] = 1;
    const take = chosenTake(`take-${index}`, filmed, rate, 50);
    return [`take-${index}`, { ...take, comparison: { covered } }];
  });
  return { takes: Object.fromEntries(made), solved: {} } as unknown as Material;
}
const look = (given: Material, across = 0, size = upright) =>
  examineFraming(moment, ruler(across, size), given, Object.keys(given.takes));

describe('a frame of another shape', () => {
  it('shows the part that its numbers say', () => {
    fc.assert(
      fc.property(fc.integer({ min: -100, max: 100 }), (across) => {
        const frame = { ...upright, push: { across, down: 0 } };
        const { shown, from } = windowIn(filmed, frame);
        const { matrix } = fillFrame(filmed, frame);
        expect(mapPoint(matrix, [from * filmed.width, 0])[0]).toBeCloseTo(0, 6);
        expect(mapPoint(matrix, [(from + shown) * filmed.width, 0])[0]).toBeCloseTo(upright.width, 6);
      }),
    );
    const ends = [-100, 0, 100].map(
      (across) => windowIn(filmed, { ...upright, push: { across, down: 0 } }).from,
    );
    // 9:16 out of 16:9 is 81/256 of its width.
    expect(ends[0]).toBeCloseTo(0, 9);
    expect(ends[1]).toBeCloseTo((1 - 81 / 256) / 2, 9);
    expect(ends[2]).toBeCloseTo(1 - 81 / 256, 9);
  });

  it('says who is cut off, and pushing it as offered shows them whole', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 38 }), fc.integer({ min: 3, max: 10 }), (first, wide) => {
        const given = takes([first / 48, (first + wide) / 48]);
        const [found] = look(given);
        if (!found) return;
        expect(found.code).toBe('frame.cuts');
        const { set } = found.fix?.args as { set: { across: number } };
        expect(look(given, set.across)).toEqual([]);
      }),
    );
    expect(look(takes([0.7, 0.85])).map(({ severity }) => severity)).toEqual(['fix']);
  });

  it('says so where they stand too far apart, and offers what shows most of them', () => {
    const given = takes([0.1, 0.2], [0.6, 0.7]);
    const [found] = look(given);
    expect([found.code, found.measured?.value.toFixed(1)]).toEqual(['frame.too-wide', '0.6']);
    const { set } = found.fix?.args as { set: { across: number } };
    const [after] = look(given, set.across);
    expect([after.code, after.fix]).toEqual(['frame.too-wide', undefined]);
  });

  it('says nothing of a film of the same shape, of dust over everything, of nobody, and of takes without a plate', () => {
    expect(look(takes([0.7, 0.9]), 0, filmed)).toEqual([]);
    expect(look(takes([0, 1]))).toEqual([]);
    expect(look(takes([0.5, 0.5]))).toEqual([]);
    expect(look({ takes: { one: chosenTake('one', filmed, rate, 50) }, solved: {} })).toEqual([]);
    expect(cropOf(takes([0.5, 0.6]), ['take-0'], filmed)).toBeNull();
    expect(cropOf(takes([0.5, 0.6]), ['take-0'], upright)?.shown).toBeCloseTo(81 / 256, 9);
  });
});
