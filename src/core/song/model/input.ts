import { bandCount, riseAt, type Bands } from '../bands';
import { changeAt, type Tonal } from '../tonal';

/** What the model hears of a song, about fifty times a second. */
export type Heard = {
  /** frames a second */
  rate: number;
  /** seconds of frame 0 */
  start: number;
  frames: number;
  /** [frame * channelCount + channel] */
  rows: Float64Array;
};

/** hops of {@link Bands} that are one frame */
const pooled = 2;
/** seconds before and after an instant whose notes are compared */
export const changeSpans = [0.6, 2] as const;
export const channelCount = 2 * bandCount + changeSpans.length;

/** How much the notes change, at the tonal frames. */
export function changesOf(tonal: Tonal): Float32Array[] {
  return changeSpans.map((span) =>
    Float32Array.from({ length: tonal.frames }, (_, frame) =>
      changeAt(tonal, tonal.start + frame / tonal.rate, span),
    ),
  );
}

/**
 * Levels and their rises in each band, and how much the notes change, a frame at a time. bench/learn/train.py makes
 * the same of what it learns from.
 */
export function hear(bands: Bands, tonal: Tonal): Heard {
  const frames = Math.floor(bands.hops / pooled);
  const rows = new Float64Array(channelCount * frames);
  for (let frame = 0; frame < frames; frame++) {
    const hop = pooled * frame;
    const row = frame * channelCount;
    for (let band = 0; band < bandCount; band++) {
      const at = hop * bandCount + band;
      rows[row + band] = (bands.levels[at] + bands.levels[at + bandCount]) / 2;
      rows[row + bandCount + band] = riseAt(bands, hop, band) + riseAt(bands, hop + 1, band);
    }
  }
  const rate = bands.rate / pooled;
  const start = bands.start + (pooled - 1) / 2 / bands.rate;
  changesOf(tonal).forEach((changes, index) => {
    for (let frame = 0; frame < frames; frame++) {
      const place = (start + frame / rate - tonal.start) * tonal.rate;
      const before = Math.max(0, Math.min(changes.length - 1, Math.floor(place)));
      const next = Math.min(changes.length - 1, before + 1);
      const share = Math.max(0, Math.min(1, place - before));
      rows[frame * channelCount + 2 * bandCount + index] =
        changes.length > 0 ? changes[before] + (changes[next] - changes[before]) * share : 0;
    }
  });
  return { rate, start, frames, rows };
}
