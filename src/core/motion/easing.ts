import bezierEasing from 'bezier-easing';

/** The four numbers of a CSS `cubic-bezier()`. */
export type Bezier = readonly [number, number, number, number];

/** Slow at both ends: three quarters of influence on each side. */
export const gentle: Bezier = [0.75, 0, 0.25, 1];
export const linear: Bezier = [0, 0, 1, 1];

/**
 * Progress at a share of the time, both 0..1.
 * @see W3C CSS Easing Functions Level 1, cubic Bézier easing functions
 */
export const ease = (curve: Bezier, share: number): number =>
  bezierEasing(...curve)(Math.min(1, Math.max(0, share)));
