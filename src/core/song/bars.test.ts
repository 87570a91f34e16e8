import { describe, expect, it } from 'vitest';
import { findBars } from './bars';

const free = (count: number) => new Array<boolean>(count).fill(false);
const firstsOf = (length: number, from: number, count: number) =>
  Array.from({ length: count }, (_, at) => ((at - from) % length === 0 ? 0.8 : 0.1));
const lengths = [4, 3, 2, 5, 7];

describe('beats in bars', () => {
  it.each(lengths)('has bars of %i where they begin', (length) => {
    for (let from = 0; from < length; from++) {
      const { beatsPerBar, firsts } = findBars(firstsOf(length, from, 84), free(84), lengths);
      expect(beatsPerBar).toBe(length);
      expect(firsts).toEqual(Array.from({ length: firsts.length }, (_, bar) => from + bar * length));
    }
  });

  it('takes a bar that is cut short, and goes on after it', () => {
    const first = [...firstsOf(4, 0, 34), ...firstsOf(4, 0, 40)];
    const { firsts } = findBars(first, free(74), [4]);
    expect(firsts).toContain(32);
    expect(firsts).toContain(34);
    expect(firsts.filter((at) => at > 34)).toEqual([38, 42, 46, 50, 54, 58, 62, 66, 70]);
  });

  it('begins bars where they must begin', () => {
    const given = free(40).map((_, at) => at === 6);
    expect(findBars(firstsOf(4, 0, 40), given, [4]).firsts).toContain(6);
  });

  it('says of what tells nothing that it is in fours', () => {
    expect(findBars(new Array(40).fill(0.25), free(40), lengths).beatsPerBar).toBe(4);
  });
});
