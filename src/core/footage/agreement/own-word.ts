import type { Size } from '../../geometry/size';
import { flood } from '../../picture/flood';
import { meansOf } from '../../picture/means';

/** codes by which what a picture says counts as another word than its neighbours' */
const another = 100;
/** a difference is a mistake of the picture where it fills a square of so many sixty-fourths of the width, as far as this share. By trial */
const [widths, filled] = [2.2, 0.9];
/** how much the picture's own word counts where it is no mistake. By trial */
const own = 0.6;

/**
 * Who is in a picture, by what it says itself and what it and its neighbours agree on. Finders are wrong about whole
 * people and large parts of them; about what is thin and moves, as an arm does, its neighbours are.
 * @param says how likely each pixel shows somebody, 0..255, by the picture alone
 * @param agreed the same by all pictures together
 * @returns of differences that are thick somewhere, and all that hangs together with them, what was agreed on; of all
 *   else the mean of both, the picture's own word a little more
 */
export function settled(
  size: Size,
  says: ArrayLike<number>,
  agreed: ArrayLike<number>,
): Uint8Array<ArrayBuffer> {
  const differs = new Float32Array(says.length);
  for (let pixel = 0; pixel < differs.length; pixel++)
    differs[pixel] = Math.abs(says[pixel] - agreed[pixel]) > another ? 1 : 0;
  const reach = Math.max(1, Math.round((widths * size.width) / 64 / 2));
  const means = meansOf(size, differs, reach);
  const mistaken = new Uint8Array(says.length);
  for (let pixel = 0; pixel < means.length; pixel++)
    if (means[pixel] > filled) flood(size, differs, mistaken, pixel);
  const out = new Uint8Array(says.length);
  for (let pixel = 0; pixel < out.length; pixel++)
    out[pixel] = mistaken[pixel] ? agreed[pixel] : Math.round(own * says[pixel] + (1 - own) * agreed[pixel]);
  return out;
}
