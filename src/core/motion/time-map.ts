import { refuse } from '../error';
import { lastNotAfter } from '../footage/picture-times';
import { timeOfFrame, type Rate } from '../time/rate';
import { linear, type Bezier } from './easing';
import type { Track } from './keyframes';

/**
 * Which second of a take shows at which second of the song. Knots rise in `song`; each lies exactly on its source
 * instant. `ease` (0..1) is how much the stretch that begins at a knot takes on the speeds of its neighbours: 0 runs
 * evenly, 1 changes its speed from that of the stretch before to that of the stretch after. Before the first knot and
 * after the last the picture stands.
 */
export type TimeMap = { knots: { song: number; source: number; ease: number }[] };

/** A stretch between two knots with the speeds at its ends, in source seconds a second of the song. */
type Stretch = { song: number; source: number; length: number; mean: number; from: number; to: number };

/** @throws CoreError `time-map` where there are no knots, a number is none, or the song does not rise */
export function checkTimeMap({ knots }: TimeMap): void {
  const wrong =
    knots.length === 0 ||
    knots.some(
      ({ song, source, ease }, index) =>
        ![song, source, ease].every(Number.isFinite) || (index > 0 && !(song > knots[index - 1].song)),
    );
  if (wrong)
    refuse('time-map', 'Each instant of the take needs a later place in the song than the one before it.');
}

const meanOf = ({ knots }: TimeMap, index: number): number => {
  const [one, next] = [knots[index], knots[index + 1]];
  return (next.source - one.source) / (next.song - one.song);
};

/**
 * A speed at one end of a stretch, so that the take never turns round inside it: of the same sign as the mean, and at
 * most three times it. @see Fritsch & Carlson 1980, monotone piecewise cubic interpolation
 */
const sameWay = (mean: number, speed: number): number =>
  Math.sign(mean) * Math.min(3 * Math.abs(mean), Math.max(0, speed * Math.sign(mean)));

function stretchOf(map: TimeMap, index: number): Stretch {
  const { knots } = map;
  const { song, source, ease } = knots[index];
  const mean = meanOf(map, index);
  const share = Math.min(1, Math.max(0, ease));
  const towards = (neighbour: number) =>
    neighbour < 0 || neighbour > knots.length - 2
      ? mean
      : sameWay(mean, mean + share * (meanOf(map, neighbour) - mean));
  return {
    song,
    source,
    length: knots[index + 1].song - song,
    mean,
    from: towards(index - 1),
    to: towards(index + 1),
  };
}

/** Where in the stretches a second of the song lies; null before the first knot and from the last one on. */
function placeOf(map: TimeMap, song: number): { stretch: Stretch; share: number } | null {
  const { knots } = map;
  if (song < knots[0].song || song >= knots[knots.length - 1].song) return null;
  const index = lastNotAfter(
    Float64Array.from(knots, (knot) => knot.song),
    song,
  );
  const stretch = stretchOf(map, index);
  return { stretch, share: (song - stretch.song) / stretch.length };
}

/** The second of the take that shows at a second of the song. @throws CoreError `time-map` */
export function sourceAt(map: TimeMap, song: number): number {
  checkTimeMap(map);
  const { knots } = map;
  const place = placeOf(map, song);
  if (!place) return knots[song < knots[0].song ? 0 : knots.length - 1].source;
  const { stretch, share } = place;
  const { source, length, mean, from, to } = stretch;
  // Hermite's cubic: both ends exact, with the speeds given there.
  const bend = share * (1 - share) * ((from - mean) * (1 - share) - (to - mean) * share);
  return source + length * (mean * share + bend);
}

/** How fast the take runs at a second of the song: 1 as filmed, below 0 backwards. @throws CoreError `time-map` */
export function speedAt(map: TimeMap, song: number): number {
  checkTimeMap(map);
  const place = placeOf(map, song);
  if (!place) return 0;
  const { share, stretch } = place;
  const { mean, from, to } = stretch;
  return mean + (from - mean) * (1 - share) * (1 - 3 * share) - (to - mean) * share * (2 - 3 * share);
}

/**
 * A time map as keyframes over frames of the film: the same source instants at every frame, since Hermite's cubic is
 * Bézier's with its handles at the thirds.
 */
export function timeTrack(map: TimeMap, rate: Rate): Track {
  checkTimeMap(map);
  const perFrame = timeOfFrame(rate, 1);
  const { knots } = map;
  return knots.map(({ song, source }, index) => ({
    frame: song / perFrame,
    value: source,
    ease: index < knots.length - 1 ? curveOf(stretchOf(map, index)) : 'hold',
  }));
}

function curveOf({ mean, from, to }: Stretch): Bezier | 'hold' {
  if (mean === 0) return 'hold';
  if (from === mean && to === mean) return linear;
  return [1 / 3, from / mean / 3, 2 / 3, 1 - to / mean / 3];
}
