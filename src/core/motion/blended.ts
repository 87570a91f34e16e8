import { valueAt, type Track } from './keyframes';

/** Pictures of a take at even distances: seconds of the first one and from one to the next. */
type EvenPictures = { first: number; step: number };

/** Frames from (included) until (excluded). */
type Span = { from: number; until: number };

/** A frame that two pictures make up, and the second of the take that lies between them. */
type Pair = { frame: number; seconds: number };

const perFrame = (values: readonly number[], from: number): Track => {
  const kept = values
    .map((value, index) => ({ frame: from + index, value, ease: 'hold' as const }))
    .filter(({ value }, index) => index === 0 || value !== values[index - 1]);
  return kept;
};

/**
 * Time that runs slower than pictures were filmed, as two layers: the picture that shows, and over it the next one, as
 * much as time has gone on towards it. Where a frame has a picture of its own the upper one shows nothing.
 * @param time seconds of the take at frames of the film
 * @returns which second each layer shows, and which one would show all in one where something is made between, and how much of the upper one, 0..1; `mixed` counts the frames of two pictures
 * @see common practice, no published source
 */
export function blended(
  time: Track,
  { first, step }: EvenPictures,
  { from, until }: Span,
): { under: Track; over: Track; opacity: Track; exact: Track; mixed: number; pairs: Pair[] } {
  const places = Array.from(
    { length: until - from + 1 },
    (_, index) => (valueAt(time, from + index) - first) / step,
  );
  const frames = places.slice(0, -1).map((place, index) => {
    const isSlow = Math.abs(places[index + 1] - place) < 0.999;
    const picture = Math.floor(place + 1e-6);
    const share = place - picture;
    return isSlow && share > 0.02 && share < 0.98
      ? { picture, share }
      : { picture: Math.round(place), share: 0 };
  });
  // A quarter into its picture, so that nothing rounds to the one beside it.
  const second = (picture: number) => first + (picture + 0.25) * step;
  return {
    under: perFrame(
      frames.map(({ picture }) => second(picture)),
      from,
    ),
    over: perFrame(
      frames.map(({ picture }) => second(picture + 1)),
      from,
    ),
    exact: perFrame(
      frames.map(({ picture, share }) => first + (picture + share) * step),
      from,
    ),
    opacity: perFrame(
      frames.map(({ share }) => share),
      from,
    ),
    mixed: frames.filter(({ share }) => share > 0).length,
    pairs: frames.flatMap(({ picture, share }, index) =>
      share > 0 ? [{ frame: from + index, seconds: first + (picture + share) * step }] : [],
    ),
  };
}
