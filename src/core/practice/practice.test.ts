import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { disturb, faultKinds, faultWords, swing, undisturbed } from './faults';
import { PracticeSet } from './practice-set';
import { practiceRound } from './round';

describe('what goes wrong in front of the practice camera', () => {
  it('changes nothing while nothing is switched on, and something for every switch', () => {
    expect(disturb({})).toEqual(undisturbed);
    for (const fault of faultKinds) {
      expect(disturb({ [fault]: 5 })).not.toEqual(undisturbed);
      expect(faultWords[fault].what.length).toBeGreaterThan(20);
    }
  });

  it('swings after a knock and rests where it says; drifts of light come slowly', () => {
    expect(swing(0)).toBeCloseTo(2.2, 6);
    expect(swing(0.7)).toBe(1);
    expect(disturb({ knock: 3 })).toMatchObject({ dx: 2.6, dy: 1.5 });
    expect(disturb({ 'light drifts': 0 }).stops).toBeCloseTo(0, 9);
    expect(disturb({ 'light drifts': 3 }).stops).toBeCloseTo(-0.34, 9);
  });

  it('adds up: two faults at once are both there', () => {
    const both = disturb({ bump: 1, 'auto exposure': 9 });
    expect(both.dx).toBeCloseTo(0.8, 9);
    expect(both.stops).toBeCloseTo(0.28, 9);
  });
});

describe('the practice set', () => {
  const set = new PracticeSet({ width: 160, height: 90 });
  const differ = (a: ArrayLike<number>, b: ArrayLike<number>, over: number) =>
    Array.from(a).filter((value, at) => Math.abs(value - b[at]) > over).length;

  it('shows the same picture again, but for the sensor’s noise', () => {
    const [one, two] = [3, 4].map((index) => set.frame('nobody', 0, 0, index, undisturbed).data);
    expect(differ(one, two, 0)).toBeGreaterThan(1000);
    expect(differ(one, two, 24)).toBe(0);
    expect(set.frame('nobody', 0, 0, 3, undisturbed).data).toEqual(one);
  });

  it('is opaque, and has somebody in it when somebody is there', () => {
    const empty = set.frame('nobody', 0, 0, 3, undisturbed).data;
    const there = set.frame('stands', 0, 2, 3, undisturbed).data;
    expect(there.every((value, at) => at % 4 !== 3 || value === 255)).toBe(true);
    expect(differ(empty, there, 24)).toBeGreaterThan(400);
  });
});

describe('a round of takes', () => {
  it('has good takes among bad ones, and no fault twice', () => {
    fc.assert(
      fc.property(fc.nat(1e6), (seed) => {
        const round = practiceRound(seed);
        const faults = round.flatMap(({ fault }) => (fault ? [fault] : []));
        expect(round).toHaveLength(5);
        expect(faults).toHaveLength(3);
        expect(new Set(faults).size).toBe(3);
        expect(round.every(({ at }) => at > 1 && at < 3)).toBe(true);
        expect(practiceRound(seed)).toEqual(round);
      }),
      { numRuns: 50 },
    );
  });

  it('comes in every order', () => {
    const first = new Set(Array.from({ length: 40 }, (_, seed) => practiceRound(seed)[0].fault ?? 'none'));
    expect(first.size).toBeGreaterThan(5);
  });
});
