import { median } from './statistics';

/** The standard deviation that errors about zero suggest, whatever a few of them do. @see Huber, median absolute deviation */
export const robustSpread = (sizes: ArrayLike<number>): number => 1.4826 * median(sizes);

/** Errors from so many standard deviations on do not count. @see Tukey's biweight at 95 % efficiency */
export const tukeyLimit = 4.685;

/** How much an error counts: 1 none, 0 at the limit and beyond. @param share of the limit */
export const tukeyWeight = (share: number): number =>
  share > -1 && share < 1 ? (1 - share * share) ** 2 : 0;
