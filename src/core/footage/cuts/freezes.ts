import type { Pass } from '../../pass';
import type { GrayImage } from '../../picture/image';

/** A stretch of a film in which one picture stands: its first frame, and the first that moves again. */
export type Freeze = { from: number; until: number };

/** pictures differ nowhere by more than so many codes while one stands: what a codec leaves of it. By trial */
const stands = 2.5;
/** codes by which something differs just before: what did not move before has not frozen */
const moves = 8;
/** pictures before it in which that is looked for */
const before = 4;
/** seconds that it stands at least */
const shortest = 0.2;

/** The most by which any cell of two pictures differs. */
function mostApart(one: ArrayLike<number>, two: ArrayLike<number>): number {
  let most = 0;
  for (let cell = 0; cell < one.length; cell++) most = Math.max(most, Math.abs(one[cell] - two[cell]));
  return most;
}

/**
 * Finds where a film freezes: something moved, and then nothing does.
 * @param rate pictures a second
 */
export function freezeFinder(rate: number): Pass<GrayImage, Freeze[]> {
  const steps: number[] = [];
  let last: Float32Array | null = null;
  return {
    push({ data }) {
      steps.push(last ? mostApart(last, data) : 0);
      last = Float32Array.from(data);
    },
    finish() {
      const found: Freeze[] = [];
      for (let frame = 1; frame < steps.length; frame++) {
        if (steps[frame] > stands) continue;
        let until = frame;
        while (until < steps.length && steps[until] <= stands) until++;
        const moved = steps.slice(Math.max(1, frame - before), frame).some((step) => step > moves);
        // The picture that stands is the one before nothing changes any more.
        if (moved && until - frame + 1 >= shortest * rate) found.push({ from: frame - 1, until });
        frame = until;
      }
      return found;
    },
  };
}
