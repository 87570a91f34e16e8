import { describe, expect, it } from 'vitest';
import { faultKinds } from '../practice/faults';
import { practiceRound } from '../practice/round';
import { Rehearsal, tells } from '../__tests__/rehearse';

// All rounds are in bench/watch.ts; here each fault is tried on both sides, by a watch that looks seldom and often.
describe('the watch over a training round', () => {
  const rehearsal = new Rehearsal(7);

  it.each(faultKinds)('tells “%s” on either side, however seldom it looks', (fault) => {
    for (const role of ['works', 'stands'] as const)
      for (const [take, apart] of [
        [0, 0.25],
        [3, 0.9],
      ]) {
        const { codes, after } = rehearsal.take({ fault, at: 1.2, role, take }, 0.9, apart);
        expect(
          codes.filter((code) => tells[fault].includes(code)),
          `${role} ${apart}`,
        ).not.toEqual([]);
        expect(after).toBeLessThan(5);
      }
  });

  it('says nothing of takes in which nothing goes wrong', () => {
    for (const { role, take } of practiceRound(5).slice(0, 2))
      expect(rehearsal.take({ fault: null, at: 0, role, take }, 0, 0.5).codes).toEqual([]);
  });
});
