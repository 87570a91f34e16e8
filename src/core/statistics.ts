/**
 * The value below which a share of some values lies: one of them, never between two.
 * @param share 0..1
 * @returns 0 where there are none
 */
export function quantile(values: ArrayLike<number>, share: number): number {
  const sorted = Float64Array.from(values).sort();
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;
}

/** The value in the middle; the upper one of two. 0 where there are none. */
export const median = (values: ArrayLike<number>): number => quantile(values, 0.5);
