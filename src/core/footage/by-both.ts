import type { Size } from '../geometry/size';
import { meansOf } from '../picture/means';
import { piecesOf } from '../picture/pieces';

/** of a piece that differs from the empty set, so much has to lie on the person for it to be theirs. By trial */
const ofPiece = 0.25;
/** where less of the person differs, within so many shares of the picture's width, they look like the set there; a gap of which so much round it is theirs is closed. By trial */
const [alike, near, closed] = [0.3, 1 / 40, 0.6];

/**
 * Who is in a picture, by what differs from the empty set and by who was found as a person. What differs has the edge, and
 * what somebody holds; but also leaves that move, a light that flickers, a chair that was shifted, or the whole picture
 * once the camera was: pieces of which little lies on the person are left out. A person is found in clothes of the wall's
 * colour too, though coarsely: where little of them differs, they count as they were found.
 * @param differs 1 a pixel that differs from the empty set
 * @param person 1 a pixel that shows a person
 * @returns 1 a pixel that is theirs
 */
export function byBoth(size: Size, differs: Uint8Array, person: Uint8Array): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(person.length);
  const { runs, sizes } = piecesOf(size, differs, 1);
  const shared = sizes.map(() => 0);
  for (const { from, until, piece } of runs)
    for (let pixel = from; pixel < until; pixel++) shared[piece] += person[pixel];
  for (const { from, until, piece } of runs)
    if (shared[piece] >= ofPiece * sizes[piece]) out.fill(1, from, until);
  const reach = Math.max(1, Math.round(near * size.width));
  const whole = meansOf(size, Float32Array.from(person), reach);
  const told = meansOf(
    size,
    Float32Array.from(person, (one, pixel) => one & out[pixel]),
    reach,
  );
  for (let pixel = 0; pixel < out.length; pixel++)
    if (person[pixel] && told[pixel] < alike * whole[pixel]) out[pixel] = 1;
  // Where what differs goes over into what looks like the set, neither of them reaches as far as the other.
  const round = meansOf(size, Float32Array.from(out), reach);
  for (let pixel = 0; pixel < out.length; pixel++) if (person[pixel] && round[pixel] > closed) out[pixel] = 1;
  return out;
}
