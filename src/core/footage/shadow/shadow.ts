import { flood } from '../../picture/flood';
import type { Size } from '../../geometry/size';
import { checkSameSize, lumaOf, type RgbaImage } from '../../picture/image';
import { cellsOf, depthOf, isClear, noiseOf, relight, shareLeft } from './cells';
import { edgeOf, hardEdge, slopesIn } from './edge';
import { cellsRound, patternUnder, spansParts } from './pattern';

/** cells that a shadow covers at least; fewer are a crease or the dark under a shoe */
export const leastShadow = 12;
/** cells without the set's pattern beside what may be a shadow, at the most, to such as lie in the light */
const mostCloth = 0.3;
/** cells, and share of a shadow, in which the set's pattern has to be seen */
const seenPattern = { cells: 8, share: 0.1 };
/** share of the light by which what is left of it changes a pixel at an edge that parts a shadow from somebody */
const parting = 0.012;

/** Where shadows fall on an empty set. */
export type Shadow = Size & {
  /** codes by which each cell is darker; 0 where no shadow falls */
  depth: Float32Array;
  /** over how much of the picture's width a shadow fades out at its edge; null where none falls */
  edge: number | null;
};

/**
 * Where shadows fall on an empty set, and how sharp their edge is. A shadow darkens all colours alike and leaves the set's
 * own pattern to be seen; where the set has none, what ends in a hard edge is taken for somebody, since plain cloth before
 * a plain wall looks the same. The limits are set by trial; that shadows keep chromaticity is from Horprasert et al. 1999.
 * @param plate the empty set
 * @param picture of it with somebody before it; light that changed over most of it is allowed for
 * @param size of the grid, in cells
 * @throws where both are not of one size
 */
export function shadowOf(plate: RgbaImage, picture: RgbaImage, size: Size): Shadow {
  checkSameSize(plate, picture);
  const all = size.width * size.height;
  const lights = [lumaOf(plate).data, lumaOf(picture).data];
  const cells = cellsOf(plate, picture, lights, size);
  relight(cells);
  const shares = Float32Array.from({ length: all }, (_, cell) => shareLeft(cells, cell) ?? 0);
  const depth = new Float32Array(all);
  if (shares.every((share) => share === 0)) return { ...size, depth, edge: null };
  const noise = noiseOf(cells);
  const pattern = Array.from({ length: all }, (_, cell) =>
    shares[cell] > 0 ? patternUnder(cells, size, shares, noise, cell) : 0,
  );
  const slopeOf = slopesIn(plate, lights, size);
  // Where the set has no pattern, a hard edge parts what lies to both sides of it: a shadow, and cloth before it.
  const isEdge = (cell: number) => shares[cell] > 0 && pattern[cell] === 0 && slopeOf(cell) > parting;
  const shaded = Uint8Array.from(shares, (share, cell) =>
    share > 0 && pattern[cell] >= 0 && !isEdge(cell) ? 1 : 0,
  );
  const inLight = (cell: number) => isClear(cells, cell);
  const seen = new Uint8Array(all);
  const believed = new Set<number>();
  const doubted = new Set<number>();
  let [edge, largest] = [null as number | null, 0];
  for (let start = 0; start < all; start++) {
    const inner = flood(size, shaded, seen, start);
    if (inner.length === 0) continue;
    const edges = inner.flatMap((cell) => cellsRound(size, cell, 1).filter(isEdge));
    const piece = [...new Set([...inner, ...edges])];
    const fades = edgeOf(piece, shares, inLight, slopeOf, size, plate);
    const shows = inner.filter((cell) => pattern[cell] > 0).length;
    const known = shows >= seenPattern.cells && shows >= seenPattern.share * inner.length;
    const beside = piece.flatMap((cell) => cellsRound(size, cell, 1));
    const isSoft =
      fades !== null &&
      fades >= hardEdge &&
      beside.filter((cell) => pattern[cell] < 0).length < mostCloth * beside.filter(inLight).length;
    const falls = inner.length >= leastShadow && (known || spansParts(cells, inner) || isSoft);
    for (const cell of piece) (falls ? believed : doubted).add(cell);
    if (falls && inner.length > largest) [edge, largest] = [fades, inner.length];
  }
  for (const cell of believed) if (!doubted.has(cell)) depth[cell] = depthOf(cells, cell);
  return { ...size, depth, edge };
}
