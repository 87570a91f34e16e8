/** Gigabytes (10⁹ bytes) that some minutes take at a data rate in megabits a second. */
export const gigabytes = (minutes: number, megabits: number): number => (minutes * 60 * megabits) / 8000;

/** Whether card and battery last. `battery` and `minutes` in minutes of running. */
export function supplies(
  minutes: number,
  megabits: number,
  have: { card: number; battery: number },
): { needed: number; card: number; battery: number } {
  const needed = gigabytes(minutes, megabits);
  return { needed, card: needed / have.card, battery: minutes / have.battery };
}

/**
 * Seconds of a take that fit into some bytes. A recording lies there twice for a moment, until its file is made.
 * @param bitsPerSecond of the recording
 */
export const secondsThatFit = (bytes: number, bitsPerSecond: number): number =>
  (bytes * 8) / (2 * bitsPerSecond);
