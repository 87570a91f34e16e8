/** One thing that eats picture: how far it enlarges, 1 = not at all. */
export type Draw = { name: string; scale: number };

/** Enlarging that hides a movement of some pixels each way: the edge left over must be at least that wide. */
export const scaleForShift = (pixels: number, across: number): number => across / (across - 2 * pixels);

/** Share of the frame left over on each side at a scale: 105 % leaves 2.38 %. */
export const edgeLeft = (scale: number): number => (1 - 1 / scale) / 2;

/** Pixels that a picture scaled over a frame may move each way before an edge shows. */
export const roomToMove = (scale: number, across: number): number => ((scale - 1) * across) / 2;

/** Share of the width that an upright 9:16 cut keeps of a picture. @see arithmetic: 31.64 % of 16:9 */
export const uprightShare = ({ width, height }: { width: number; height: number }): number =>
  Math.min(1, (height * 9) / 16 / width);

/**
 * Everything that eats picture, multiplied, against what the capture has more than the delivery.
 * @returns `needed` and `there` as scales, and `sharpness`: pixels filmed for each pixel delivered, after all
 */
export function pictureReserve(
  draws: readonly Draw[],
  capture: { width: number; height: number },
  delivery: { width: number; height: number },
): { needed: number; there: number; sharpness: number } {
  const needed = draws.reduce((product, { scale }) => product * scale, 1);
  const there = Math.min(capture.width / delivery.width, capture.height / delivery.height);
  return { needed, there, sharpness: there / needed };
}
