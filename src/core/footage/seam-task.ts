import type { Point, Size } from '../geometry/size';
import type { MediaNode, Node } from '../picture/node';

/**
 * One side of a seam: its take as the person set it, and corrected for light and movement whatever was set; or all
 * that was put together before a further copy.
 */
export type SeamSide = {
  node: Node;
  corrected: Node;
  /** everybody in it is kept, and it shows along both edges of the frame, round who is on the other side */
  all?: true;
  /** the performers to keep, each at a frame of the film and a point in shares of the frame; none to find one */
  taps: { frame: number; at: Point }[];
};

/** What becomes of the shadows that the two throw on the set: they go with whoever throws them, or the other side hides them. */
export type Shadows = 'kept' | 'hidden';

/** What a still seam between two takes of one camera is solved from. */
export type SeamTask = {
  is: 'seam';
  /** who shows outside the outline, and who inside; the frame's left edge belongs to the first, its right to the second */
  sides: readonly [SeamSide, SeamSide];
  plate: MediaNode | null;
  /** frames of the film in which both show, end excluded */
  from: number;
  until: number;
  delivery: Size;
  /** drawn by hand, in shares of the frame: judged, not solved */
  outline: Point[] | null;
  shadows: Shadows;
};
