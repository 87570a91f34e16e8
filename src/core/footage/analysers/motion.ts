import type { Size } from '../../geometry/size';
import { resizePlane } from '../../picture/planes';
import type { Analyser } from './analyser';

/** How much of the frame changes during a take (0..1), and the mean place of that change across (0 left, 1 right). */
export type Motion = { share: number; across: number };

const tiles: Size = { width: 64, height: 36 };
/** codes that a tile has to change by */
const least = 14;
/** every how manieth picture is looked at */
const stride = 4;

/** Where the picture changes during a take: lightest and darkest of each tile. */
export const motion: Analyser<Motion> = {
  begin({ analysis }) {
    const low = new Uint8Array(tiles.width * tiles.height).fill(255);
    const high = new Uint8Array(tiles.width * tiles.height);
    let count = 0;
    return {
      push(luma) {
        if (count++ % stride !== 0) return;
        resizePlane(luma, analysis, tiles).forEach((value, at) => {
          if (value < low[at]) low[at] = value;
          if (value > high[at]) high[at] = value;
        });
      },
      finish() {
        let [changed, across] = [0, 0];
        high.forEach((value, at) => {
          if (value - low[at] < least) return;
          changed++;
          across += ((at % tiles.width) + 0.5) / tiles.width;
        });
        const small = { share: changed / high.length, across: changed ? across / changed : 0.5 };
        return { small, curve: null };
      },
    };
  },
};
