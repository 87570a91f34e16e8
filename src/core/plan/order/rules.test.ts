import { describe, expect, it } from 'vitest';
import { choice, moment, plan, setup } from '../../__tests__/plan';
import { films, momentKinds, type MomentKind } from '../../recipes/films';
import type { Reason } from './reason';
import { examineSchedule } from './examine-order';
import { conflictOf } from './conflict';
import { rulesOf } from './rules';
import { scheduleOf, type Slot } from './schedule';
import { planShots } from '../shots';

const kinds = momentKinds;
const approaches = ['separate', 'unbroken'] as const;

const planOf = (some: readonly MomentKind[], approach: (typeof approaches)[number], backwards = false) =>
  plan({
    setups: [setup('a', { approach })],
    moments: some.map((kind, index) => {
      const start = (backwards ? some.length - index : index) * 8;
      return moment(kind, start, start + 8, { id: `m${index}` });
    }),
  });
const ruled = (input: ReturnType<typeof planOf>) => rulesOf(planShots(input), []);

/** Whether what is said of a place is true of the row that it is said in. From memory of the trade, no source. */
const isTrue: Record<Reason['why'], (slot: Slot, index: number, row: readonly Slot[]) => boolean> = {
  'plate first': (slot, index, row) =>
    row
      .slice(0, index)
      .every((one) => one.shot.setup !== slot.shot.setup || one.shot.share === 'first plate'),
  'plate last': (slot, index, row) => row.slice(index + 1).every((one) => one.shot.setup !== slot.shot.setup),
  needs: ({ reason }, index, row) => row.slice(0, index).some((one) => one.shot.id === reason.other),
  'shared object': ({ shot, reason }, index, row) => row[index - 1].shot.id === reason.other && !shot.oneTake,
  'one take': ({ shot, reason }, index, row) =>
    row[index - 1].shot.id === reason.other && shot.oneTake === true,
  'back to front': ({ shot, reason }, _, row) =>
    (row.find((one) => one.shot.id === reason.other)?.shot.depth ?? 99) < (shot.depth ?? 0),
  'performer first': (_, index, row) =>
    row.slice(0, index).some(({ shot }) => shot.what === 'action' && !shot.dressing),
  'cannot be undone': ({ shot }, index, row) =>
    shot.undoable === false &&
    row
      .slice(index + 1)
      .every((one) => one.shot.share !== undefined || one.shot.undoable === false || isGlued(one)),
  locked: () => false,
  'opens the setup': ({ shot }, index, row) => row[index - 1]?.shot.setup !== shot.setup,
  'same clothes': ({ shot }, index, row) => row[index - 1].shot.clothes === shot.clothes,
  'same moment': ({ reason }, index, row) => row[index - 1].shot.moments.includes(reason.other ?? ''),
  'song order': ({ shot }, index, row) =>
    row
      .slice(0, index)
      .filter((one) => !one.shot.share && one.shot.what !== 'sound')
      .every((one) => startOf(one) <= startOf({ shot })),
  'same setup': ({ shot }, index, row) => row[index - 1].shot.setup === shot.setup,
  window: () => false,
  listed: () => false,
};
const isGlued = ({ shot }: Slot) => shot.straightAfter !== undefined;
let starts = new Map<string, number>();
const startOf = ({ shot }: Pick<Slot, 'shot'>) => starts.get(shot.moments[0]) ?? 0;

describe('the rules of a setup', () => {
  it('can be kept by any two moments of all kinds, with a true reason at every place', () => {
    for (const approach of approaches)
      for (const one of kinds)
        for (const other of kinds)
          for (const backwards of [false, true]) {
            const input = planOf([one, other], approach, backwards);
            starts = new Map(input.moments.map((found) => [found.id, found.start]));
            const { conflict, slots } = scheduleOf(input);
            expect(conflict, `${one}, ${other}`).toEqual([]);
            slots.forEach((slot, index) => {
              const said = `${one}, ${other}, ${approach}: ${slot.shot.title} ${slot.reason.why}`;
              expect(isTrue[slot.reason.why](slot, index, slots), said).toBe(true);
            });
          }
  });

  it('can be kept by any three moments of all kinds', () => {
    for (const approach of approaches)
      for (let one = 0; one < kinds.length; one++)
        for (let two = one; two < kinds.length; two++)
          for (let three = two; three < kinds.length; three++) {
            const some = [kinds[one], kinds[two], kinds[three]];
            expect(conflictOf(ruled(planOf(some, approach))), `${some.join()} ${approach}`).toBeNull();
          }
  });

  it('can be kept whatever a kind is set to, twice', () => {
    for (const kind of kinds)
      for (const [name, field] of Object.entries(films[kind].fields)) {
        if (field.kind !== 'choice') continue;
        for (const { value } of field.options) {
          const input = planOf([kind, kind], 'separate');
          const moments = input.moments.map(({ id, start, end }) =>
            moment(kind, start, end, { id, settings: { [name]: value } as never }),
          );
          expect(conflictOf(ruled({ ...input, moments })), `${kind} ${name} ${value}`).toBeNull();
        }
      }
  });

  it('keeps the two shots of a cover swap together, twice in one setup', () => {
    const row = scheduleOf(planOf(['cover-swap', 'cover-swap'], 'separate')).slots;
    const keys = row.map(({ shot }) => `${shot.moments.join('+')} ${shot.key}`);
    for (const id of ['m0', 'm1']) expect(keys.indexOf(`${id} swap`)).toBe(keys.indexOf(`${id} patch`) + 1);
  });

  it('names the moments of both shots where they contradict, and gives no false advice', () => {
    const input = planOf(['clone', 'clone'], 'separate');
    const names = { m0: 'Two at the bench', m1: 'Two in the yard', a: 'Workshop' };
    const titles = Object.fromEntries(planShots(input).map((shot) => [shot.id, shot.title]));
    const [left] = planShots(input).filter(({ key }) => key === 'left');
    const { id } = planShots(input).filter(({ key }) => key === 'right')[0];
    const choices = [choice(left.id, { after: id })];
    const locked = { ...input, choices };
    const found = (some: typeof input) =>
      examineSchedule(some, scheduleOf(some), { ...names, ...titles }).find(
        (f) => f.code === 'order.conflict',
      );
    expect(found(input)).toBeUndefined();
    const facts = found(locked)?.facts ?? {};
    expect(facts.rules).toContain('“Left: first role” of Two at the bench');
    expect(facts.rules).toContain('“Right: the copy” of Two at the bench');
    expect(facts.locked).toBe(1);
    expect(scheduleOf(locked).slots.every(({ reason }) => reason.why === 'listed')).toBe(true);
  });
});
