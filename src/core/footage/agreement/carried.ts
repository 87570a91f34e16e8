import type { Size } from '../../geometry/size';
import { everyPixel, type Flow } from '../../picture/between';
import { meansOf } from '../../picture/means';
import type { YuvImage } from '../../picture/planes';

/** what a picture says counts so much less in the next one, and the codes by which what moved may differ. By trial */
const [kept, unlike] = [0.95, 20];
/** pixels to each side over which it is looked whether the same thing moved here */
const round = 2;

/** where so little is left of what a pixel's neighbour in time says, it shows something else. By trial */
const leastCarried = 0.5;

/** What pictures beyond one say of its pixels: likelihoods, each as much as it counts, and how much they all count. */
export type Said = { sum: Float32Array; weight: Float32Array };

/** A picture as it is kept until those after it are known. */
export type Looked = {
  picture: YuvImage;
  /** how likely each pixel shows somebody, 0..255, and how much that counts */
  likely: Uint8Array;
  counts: number;
  /** what the pictures before it say, and the movement from the one before; null of the first */
  before: Said;
  flow: Flow | null;
};

/** Nothing is said of a picture. */
export const nothing = ({ width, height }: Size): Said => ({
  sum: new Float32Array(width * height),
  weight: new Float32Array(width * height),
});

/** How much of what is said of a pixel is kept, by how many sixteenths of a code what moved there differs. */
const keptOf = Float32Array.from(
  { length: 16 * 255 + 1 },
  (_, off) => kept * Math.exp(-((off / 16 / unlike) ** 2)),
);

/**
 * What a picture and those beyond it say, carried to its neighbour along what moves; less where that shows something else.
 * @param flow from the earlier of the two to the later
 * @param way 1 where `to` is the later, -1 where it is the earlier
 * @returns with how many pixels show something else
 */
export function carried(
  from: Looked,
  beyond: Said,
  to: Looked,
  flow: Flow,
  way: 1 | -1,
): { said: Said; others: number } {
  const { width, height, y: luma } = to.picture;
  const { dx, dy } = everyPixel(flow);
  const light = from.picture.y;
  const { counts, likely } = from;
  const counted = beyond.weight;
  // What it says itself joins what those beyond it say first, so that it is looked up once.
  const all = new Float32Array(beyond.sum);
  if (counts > 0) for (let pixel = 0; pixel < all.length; pixel++) all[pixel] += counts * likely[pixel];
  const said = nothing(to.picture);
  const { sum, weight } = said;
  const differs = new Float32Array(width * height);
  for (let y = 0, pixel = 0; y < height; y++)
    for (let x = 0; x < width; x++, pixel++) {
      const fromX = x - way * dx[pixel];
      const fromY = y - way * dy[pixel];
      if (fromX < 0 || fromY < 0 || fromX > width - 1 || fromY > height - 1) {
        differs[pixel] = 255;
        continue;
      }
      const column = Math.min(width - 2, fromX | 0);
      const row = Math.min(height - 2, fromY | 0);
      const right = fromX - column;
      const down = fromY - row;
      const at = row * width + column;
      const below = at + width;
      // Shares of the four pixels round the place.
      const both = right * down;
      const under = down - both;
      const next = right - both;
      const here = 1 - right - under;
      const seen = here * light[at] + next * light[at + 1] + under * light[below] + both * light[below + 1];
      differs[pixel] = Math.abs(seen - luma[pixel]);
      sum[pixel] = here * all[at] + next * all[at + 1] + under * all[below] + both * all[below + 1];
      weight[pixel] =
        here * counted[at] +
        next * counted[at + 1] +
        under * counted[below] +
        both * counted[below + 1] +
        counts;
    }
  const means = meansOf(to.picture, differs, round);
  let others = 0;
  for (let pixel = 0; pixel < means.length; pixel++) {
    const share = keptOf[(16 * means[pixel] + 0.5) | 0];
    if (share < leastCarried) others++;
    sum[pixel] *= share;
    weight[pixel] *= share;
  }
  return { said, others };
}
