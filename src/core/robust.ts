import { quantile } from './statistics';

/** A share of errors, and what it stays below in a normal distribution, in standard deviations. */
type Quiet = { share: number; below: number };
const half: Quiet = { share: 0.5, below: 1 / 1.4826 };

/**
 * The standard deviation that errors about zero suggest, whatever a few of them do.
 * @param quiet which of them tell it; fewer than half where half of them may be others'
 * @see Huber, median absolute deviation
 */
export const robustSpread = (sizes: ArrayLike<number>, { share, below } = half): number =>
  quantile(sizes, share) / below;

/** Errors from so many standard deviations on do not count. @see Tukey's biweight at 95 % efficiency */
export const tukeyLimit = 4.685;

/** How much an error counts: 1 none, 0 at the limit and beyond. @param share of the limit */
export const tukeyWeight = (share: number): number =>
  share > -1 && share < 1 ? (1 - share * share) ** 2 : 0;
