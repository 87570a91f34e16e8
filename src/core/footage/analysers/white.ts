import { flood } from '../../picture/flood';
import type { Size } from '../../geometry/size';
import type { Analyser } from './analyser';

/** The one white picture that a slate shows. */
export type WhitePicture = {
  /** the second at which it was seen; null where none was, or too many were to tell which is meant */
  time: number | null;
};

/** the grid in which light is looked at, and every how manieth pixel and row */
const cells: Size = { width: 32, height: 18 };
const stride = 4;
/** codes by which a cell is lighter for a moment at least, and cells that are so side by side: a hundredth of the picture */
const [rise, leastCells] = [40, 6];
/** seconds before and after it from when on, and up to when, all has to be as dark as usual */
const [near, far] = [0.06, 0.35];
/** seconds that it lasts at the most; a screen shows it for one of its pictures, and a camera may see that in two */
const longest = 0.1;
/** share of the strongest one's light from which on another counts as one too, and as many of them as may be slates begun again */
const [asStrong, most] = [0.5, 3];

type Looked = { time: number; light: Uint8Array };
type Seen = { time: number; strength: number };

/** The mean codes of each cell. */
function lightOf(luma: Uint8Array, { width, height }: Size): Uint8Array {
  const all = cells.width * cells.height;
  const sums = new Float32Array(all);
  const counts = new Uint16Array(all);
  for (let y = 0; y < height; y += stride) {
    const row = Math.floor((y * cells.height) / height) * cells.width;
    for (let x = 0; x < width; x += stride) {
      const cell = row + Math.floor((x * cells.width) / width);
      sums[cell] += luma[y * width + x];
      counts[cell]++;
    }
  }
  return Uint8Array.from(sums, (sum, cell) => (counts[cell] > 0 ? sum / counts[cell] : 0));
}

/** How much light a picture has in one place that those some way before and after it have not; 0 where it has none. */
function litIn({ time, light }: Looked, others: readonly Looked[]): number {
  const sides = [
    others.filter((one) => one.time < time - near),
    others.filter((one) => one.time > time + near),
  ];
  if (sides.some((side) => side.length === 0)) return 0;
  const base = new Uint8Array(light.length);
  for (const other of sides.flat())
    for (let cell = 0; cell < base.length; cell++)
      if (other.light[cell] > base[cell]) base[cell] = other.light[cell];
  const lit = light.map((codes, cell) => (codes - base[cell] >= rise ? 1 : 0));
  const seen = new Uint8Array(lit.length);
  let strongest = 0;
  for (let start = 0; start < lit.length; start++) {
    const piece = flood(cells, lit, seen, start);
    if (piece.length < leastCells) continue;
    const strength = piece.reduce((sum, cell) => sum + light[cell] - base[cell], 0);
    strongest = Math.max(strongest, strength);
  }
  return strongest;
}

/** Pictures that are lit one after the other are one; what lasts too long is none. */
function together(pictures: readonly Seen[]): Seen[] {
  const runs: Seen[][] = [];
  for (const one of pictures) {
    const last = runs.at(-1)?.at(-1);
    if (last && one.time - last.time <= near) runs.at(-1)?.push(one);
    else runs.push([one]);
  }
  return runs.flatMap((run) => {
    if (run[run.length - 1].time - run[0].time > longest) return [];
    const strength = run.reduce((sum, one) => sum + one.strength, 0);
    return [{ time: run.reduce((sum, one) => sum + one.time * one.strength, 0) / strength, strength }];
  });
}

/**
 * The second at which a slate showed its white picture: something in one place that is much lighter than it was and will
 * be, for a moment. A screen shows it for a sixtieth of a second, which one picture of the camera sees, or a few of a
 * fast one. Of several the last one, since a slate that is begun again counts from there; where there are more than three
 * it is a lamp. The limits are set by trial, no published source.
 */
export const white: Analyser<WhitePicture> = {
  begin({ analysis }) {
    let kept: Looked[] = [];
    let next = 0;
    const pictures: Seen[] = [];
    /** Looks at those of which enough is known that comes after them. */
    const look = (until: number) => {
      while (next < kept.length && kept[next].time <= until) {
        const one = kept[next++];
        const strength = litIn(
          one,
          kept.filter((other) => Math.abs(other.time - one.time) <= far),
        );
        if (strength > 0) pictures.push({ time: one.time, strength });
      }
      const gone = kept.findIndex(({ time }) => time >= (kept[next]?.time ?? Infinity) - far);
      if (gone > 0) {
        kept = kept.slice(gone);
        next -= gone;
      }
    };
    return {
      push(luma, time) {
        kept.push({ time, light: lightOf(luma, analysis) });
        look(time - far);
      },
      finish() {
        look(Infinity);
        const seen = together(pictures);
        const strongest = Math.max(0, ...seen.map(({ strength }) => strength));
        const strong = seen.filter(({ strength }) => strength >= asStrong * strongest);
        const last = strong.length <= most ? strong.at(-1) : null;
        return { small: { time: last?.time ?? null }, curve: null };
      },
    };
  },
};
