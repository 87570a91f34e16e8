import { describe, expect, it } from 'vitest';
import { filmOf } from './__tests__/film';
import { cutFinder, type FilmEvent } from './cut-finder';

const rate = 24;
/** frames by which what was found may be off: a cut not at all, a dissolve by a third of its length */
const mayBeOff = { cut: 0, flash: 1, dissolve: 6 };

function found(seed: number): { events: FilmEvent[]; truth: FilmEvent[] } {
  const { frames, events } = filmOf(seed);
  const pass = cutFinder(rate);
  frames.forEach((frame, index) => pass.push(frame, index / rate));
  return { events: pass.finish(), truth: events };
}

/** How many of some films' events are found, and how many of those found are there, by kind. */
function score(seeds: readonly number[], say = false) {
  const counts = { hits: 0, missed: 0, wrong: 0 };
  for (const seed of seeds) {
    const { events, truth } = found(seed);
    const left = [...events];
    for (const one of truth) {
      const at = left.findIndex(
        ({ frame, kind }) => kind === one.kind && Math.abs(frame - one.frame) <= mayBeOff[kind],
      );
      if (at >= 0) {
        counts.hits++;
        left.splice(at, 1);
      } else {
        counts.missed++;
        if (say) console.info(`missed ${seed}: ${one.kind} ${one.frame}`);
      }
    }
    counts.wrong += left.length;
    if (say)
      for (const one of left)
        console.info(`wrong ${seed}: ${one.kind} ${one.frame} ${one.strength.toFixed(2)}`);
  }
  return {
    recall: counts.hits / (counts.hits + counts.missed),
    precision: counts.hits / (counts.hits + counts.wrong),
  };
}

describe('cuts, dissolves and flashes', () => {
  it('are found in films with whips, flicker, fast cuts and performers, kept aside while this was tuned', () => {
    const { precision, recall } = score([101, 102, 103, 104, 105, 106], true);
    console.info(`Precision ${precision.toFixed(3)}, recall ${recall.toFixed(3)}.`);
    expect(precision).toBeGreaterThanOrEqual(0.95);
    expect(recall).toBeGreaterThanOrEqual(0.95);
  });

  it('are none in one shot, in black, in a single picture and in nothing', () => {
    const { frames } = filmOf(3, 1);
    const all = (pictures: typeof frames) => {
      const pass = cutFinder(rate);
      pictures.forEach((picture, index) => pass.push(picture, index / rate));
      return pass.finish();
    };
    expect(all([])).toEqual([]);
    expect(all(frames.slice(0, 1))).toEqual([]);
    const black = { ...frames[0], data: new Uint8ClampedArray(frames[0].data.length) };
    expect(all(Array.from({ length: 60 }, () => black))).toEqual([]);
    expect(all(Array.from({ length: 60 }, () => frames[0]))).toEqual([]);
  });

  it('tell black from a picture, and refuse what is no film', () => {
    const { frames } = filmOf(3, 1);
    const black = { ...frames[0], data: new Uint8ClampedArray(frames[0].data.length) };
    const pass = cutFinder(rate);
    for (let frame = 0; frame < 40; frame++) pass.push(frame < 20 ? black : frames[0], frame / rate);
    expect(pass.finish().map(({ frame, kind }) => [frame, kind])).toEqual([[20, 'cut']]);
    expect(() => cutFinder(0)).toThrow(expect.objectContaining({ code: 'rate' }));
    const other = { width: 2, height: 2, data: new Uint8ClampedArray(16) };
    expect(() => {
      const mixed = cutFinder(rate);
      mixed.push(frames[0], 0);
      mixed.push(other, 1);
    }).toThrow(expect.objectContaining({ code: 'sizes-differ' }));
  });
});
