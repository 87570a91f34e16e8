import { describe, expect, it } from 'vitest';
import { sureFrom } from './certainty';
import type { Likely } from './model/network';
import { confidenceOf, readingsOf } from './readings';

const rate = 50;
const seconds = 60;

/** What a model says that hears a beat every half second; `more` says how likely other frames are. */
function heard(more: (frame: number) => number): Likely {
  const frames = rate * seconds;
  const on = (frame: number) => (frame % 25 === 5 ? 0.95 : frame % 25 === 4 || frame % 25 === 6 ? 0.4 : 0.01);
  return {
    rate,
    start: 0,
    beat: Float32Array.from({ length: frames }, (_, frame) => Math.max(on(frame), more(frame))),
    first: Float32Array.from({ length: frames }, (_, frame) => (frame % 100 === 5 ? 0.9 : 0.01)),
    // 120 beats a minute are likeliest: they lie at 47 of 80 steps of 2.4 octaves from 45 a minute on.
    tempos: Float64Array.from({ length: 80 }, (_, step) => -0.05 * (step - 47) ** 2),
  };
}
const read = (likely: Likely) => readingsOf(likely, [50, 215], [4, 3, 2, 5, 7], [], []);

describe('readings of a song', () => {
  it('have the clear one first and are sure of it; other levels follow', () => {
    const likely = heard(() => 0);
    const [best, ...others] = read(likely);
    expect(best.row.frames.every((frame) => frame % 25 === 5)).toBe(true);
    expect(best.bars.beatsPerBar).toBe(4);
    expect(confidenceOf(best, likely)).toBeGreaterThan(sureFrom);
    expect(others.length).toBeGreaterThan(1);
    for (const other of others) expect(other.value).toBeLessThan(best.value);
  });

  it('are not sure where much of what the model takes for beats lies beside the row', () => {
    // In a third of the song as likely on the off-beat, without a beat between.
    const torn = heard((frame) => (frame > 2000 && frame % 25 === 17 ? 0.9 : 0));
    const [best] = read(torn);
    expect(confidenceOf(best, torn)).toBeLessThan(sureFrom);
    // A few stray ones are no doubt.
    const few = heard((frame) => (frame > 2800 && frame % 100 === 17 ? 0.6 : 0));
    expect(confidenceOf(read(few)[0], few)).toBeGreaterThan(sureFrom);
  });
});
