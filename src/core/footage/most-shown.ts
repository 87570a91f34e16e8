/** codes of light within which two pictures show the same: noise, and light that flickers a little */
const same = 10;

/** Where the fullest stretch of some rising codes begins that mean the same light, and how many lie in it. */
export function mostShown(rising: Uint8Array): { from: number; count: number } {
  let best = { from: 0, count: 0 };
  for (let from = 0, until = 0; from < rising.length; from++) {
    while (until < rising.length && rising[until] - rising[from] <= same) until++;
    if (until - from > best.count) best = { from, count: until - from };
  }
  return best;
}
