import type { Point } from '../geometry/size';
import type { FilePlace } from '../picture/layer-at';
import type { Head } from './head';

/** The edge of a head towards the middle of the picture: the other one may lie beyond it. */
const innerEdge = ({ at: [x, y], reach }: Head): Point => [x < 0.5 ? x + reach : x - reach, y];

/**
 * Whom a tap on the picture means, in the file that shows there: the head that was found under it, else the point itself.
 * @param head in shares of the picture; null where none was found
 * @param placeAt of a point of the picture
 * @returns with how far the head reaches, as a share of the file's width; null of a mere point
 */
export function tappedHead(
  tapped: FilePlace,
  head: Head | null,
  placeAt: (point: Point) => FilePlace | null,
): { place: FilePlace; reach: number | null } {
  const [middle, edge] = head ? [placeAt(head.at), placeAt(innerEdge(head))] : [null, null];
  if (middle?.media !== tapped.media || edge?.media !== tapped.media) return { place: tapped, reach: null };
  return { place: middle, reach: Math.abs(edge.at[0] - middle.at[0]) };
}
