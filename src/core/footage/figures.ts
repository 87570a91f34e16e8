import type { Cutout, CutoutBy } from './cutout';

/** Somebody to be cut out of every picture of a stretch of a take. */
export type FiguresTask = {
  is: 'figures';
  media: string;
  /** seconds of the take */
  from: number;
  until: number;
  by: CutoutBy;
  plate: { media: string; seconds: number } | null;
};

/** Who stands in one picture. Seconds of the take. */
export type Figure = Cutout & { seconds: number };

/**
 * The figure that is nearest to an instant.
 * @param figures in order of time
 * @param seconds of the take
 * @returns undefined where there are none
 */
export function figureAt(figures: readonly Figure[], seconds: number): Figure | undefined {
  let [low, high] = [0, figures.length - 1];
  while (low < high) {
    const between = (low + high) >> 1;
    if (figures[between].seconds < seconds) low = between + 1;
    else high = between;
  }
  const [before, after] = [figures[low - 1], figures[low]];
  return before && seconds - before.seconds <= after.seconds - seconds ? before : after;
}
