import type { Size } from '../../geometry/size';
import { median } from '../../statistics';
import type { Analyser } from './analyser';

/** How much of the frame changes during a take (0..1), and the mean place of that change across (0 left, 1 right). */
export type Motion = { share: number; across: number };

const tiles: Size = { width: 64, height: 36 };
/** codes that a tile has to change by */
const least = 14;
/** pixels and rows of a tile that are looked at along each side, at the most */
const along = 5;
/** codes by which a tile changes from one picture to the next through noise alone */
const noise = 2.5;

/** Mean light of each tile, from a few of its pixels. */
function lightIn(luma: Uint8Array, { width, height }: Size, out: Float32Array): void {
  for (let row = 0, tile = 0; row < tiles.height; row++) {
    const [top, bottom] = [(row * height) / tiles.height, ((row + 1) * height) / tiles.height];
    for (let column = 0; column < tiles.width; column++, tile++) {
      const [left, right] = [(column * width) / tiles.width, ((column + 1) * width) / tiles.width];
      let sum = 0;
      for (let y = 0; y < along; y++) {
        const line = Math.floor(top + ((y + 0.5) * (bottom - top)) / along) * width;
        for (let x = 0; x < along; x++)
          sum += luma[line + Math.floor(left + ((x + 0.5) * (right - left)) / along)];
      }
      out[tile] = sum / along ** 2;
    }
  }
}

/**
 * Where the picture changes during a take: lightest and darkest of each tile. Its curve says of each picture how much
 * moves since the one before it: the mean of what each tile changes by, in codes, beyond noise and beyond what all of
 * the light does.
 */
export const motion: Analyser<Motion> = {
  begin({ analysis }) {
    const low = new Float32Array(tiles.width * tiles.height).fill(255);
    const high = new Float32Array(tiles.width * tiles.height);
    const changes = new Float32Array(low.length);
    let [before, now] = [new Float32Array(low.length), new Float32Array(low.length)];
    const moved: number[] = [];
    return {
      push(luma) {
        lightIn(luma, analysis, now);
        for (let tile = 0; tile < now.length; tile++) {
          if (now[tile] < low[tile]) low[tile] = now[tile];
          if (now[tile] > high[tile]) high[tile] = now[tile];
          changes[tile] = now[tile] - before[tile];
        }
        const all = moved.length > 0 ? median(changes) : 0;
        let sum = 0;
        if (moved.length > 0)
          for (const change of changes) sum += Math.max(0, Math.abs(change - all) - noise);
        moved.push(sum / now.length);
        [before, now] = [now, before];
      },
      finish() {
        let [changed, across] = [0, 0];
        high.forEach((value, at) => {
          if (value - low[at] < least) return;
          changed++;
          across += ((at % tiles.width) + 0.5) / tiles.width;
        });
        const small = { share: changed / high.length, across: changed ? across / changed : 0.5 };
        return { small, curve: Float32Array.from(moved) };
      },
    };
  },
};
