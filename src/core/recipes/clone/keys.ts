import type { Point } from '../../geometry/size';
import type { SeamMeasure } from '../../model/measures';

/** An outline that holds from a frame of the film on; points in shares of the frame. */
export type SeamKey = { frame: number; rings: Point[][] };

/**
 * The outlines of a join over its frames: the one it has at first, and where it moves, another for a while.
 * @param rings the outline in force, drawn or solved
 * @param seam what was solved; nothing where the outline was drawn, which stays
 */
export function keysOfSeam(
  rings: Point[][],
  seam: SeamMeasure | null,
  { from, until }: { from: number; until: number },
): SeamKey[] {
  const moves = (seam?.moves ?? []).filter((move) => move.frame < until);
  const before = moves.findLast((move) => move.frame <= from);
  return [{ frame: from, rings: before?.rings ?? rings }, ...moves.filter((move) => move.frame > from)];
}

/** The outline that holds on a frame. */
export const ringsAt = (keys: readonly SeamKey[], frame: number): Point[][] =>
  (keys.findLast((key) => key.frame <= frame) ?? keys[0]).rings;
