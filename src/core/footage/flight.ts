/** A stretch of a take in which somebody jumps or lands. */
export type FlightTask = {
  is: 'flight';
  media: string;
  /** seconds of the take */
  from: number;
  until: number;
  /** the empty set that it is held against; without one the person is found, and how low their feet are */
  plate: { media: string; seconds: number } | null;
};

/** When somebody is in the air, in seconds of the take; null where the take does not show it. */
export type Flight = { leaves: number | null; highest: number; meets: number | null };

/** share of the frame's height by which feet that are in the air are clear of the floor, by how they were found */
const clearBy = { plate: 0.012, person: 0.02 };
/** pictures in a row that a flight lasts at least */
const least = 2;

/**
 * When a performer is in the air, from how low they reach in each picture: on the floor most of the time, or at least
 * at one end.
 * @param feet how far down somebody reaches, in shares of the frame; NaN where nobody is seen
 * @param times seconds of the take, rising, one for each
 * @param by what told how low they reach: feet that a person was found by are less exact
 * @returns null where nobody is ever clear of the floor
 */
export function flightOf(
  feet: readonly number[],
  times: readonly number[],
  by: keyof typeof clearBy = 'plate',
): Flight | null {
  const clear = clearBy[by];
  const seen = feet.map((_, index) => index).filter((index) => Number.isFinite(feet[index]));
  if (seen.length < 2 * least) return null;
  const sorted = seen.map((index) => feet[index]).sort((a, b) => b - a);
  // The lowest they reach, without the lowest few, which a shadow may have made.
  const floor = sorted[Math.floor(sorted.length * 0.1)];
  const airborne = (place: number) => feet[seen[place]] < floor - clear;
  const top = seen.reduce((best, index, place) => (feet[index] < feet[seen[best]] ? place : best), 0);
  if (!airborne(top)) return null;
  let [first, last] = [top, top];
  while (first > 0 && airborne(first - 1)) first--;
  while (last + 1 < seen.length && airborne(last + 1)) last++;
  if (last - first + 1 < least) return null;
  return {
    leaves: first > 0 ? times[seen[first - 1]] : null,
    highest: times[seen[top]],
    meets: last + 1 < seen.length ? times[seen[last + 1]] : null,
  };
}
