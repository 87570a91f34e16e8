import type { Finding } from '../finding/finding';
import { refuse } from '../error';
import { checkTimeMap, type TimeMap } from './time-map';

/** A source instant that has to show at a second of the song, and how fast the take should run there at most. */
export type RampPoint = { source: number; song: number; speed?: number };

export type RampOptions = {
  /** share of each stretch over which the speed changes, 0..1 */
  ease?: number;
  /** share of each stretch that keeps the speed of the points at its ends, 0..1 */
  dwell?: number;
  /** speeds that are allowed, 1 as filmed, below 0 backwards */
  minSpeed?: number;
  maxSpeed?: number;
};

/** What is said of a ramp: points that no allowed speed reaches, points whose own speed had to give way. */
export type RampCode = 'ramp.out-of-reach' | 'ramp.point-speed';

/** Source instants from one side on, each as near to its own as the speeds allow. */
function within(points: readonly RampPoint[], least: number, most: number): number[] {
  const out = [points[0].source];
  for (let index = 1; index < points.length; index++) {
    const length = points[index].song - points[index - 1].song;
    const [low, high] = [out[index - 1] + least * length, out[index - 1] + most * length];
    out.push(Math.min(high, Math.max(low, points[index].source)));
  }
  return out;
}

/** The instants that speeds allow; what cannot be reached is off by equal amounts on both sides. */
function reachable(points: readonly RampPoint[], least: number, most: number): number[] {
  const forwards = within(points, least, most);
  const turned = points.map(({ song, source }) => ({ song: -song, source: -source })).reverse();
  const backwards = within(turned, least, most).reverse();
  return forwards.map((source, index) => (source - backwards[index]) / 2);
}

/** The speed at each point: what is wanted there, but never faster than what lies beside it; 0 where the take turns. */
function pointSpeeds(points: readonly RampPoint[], means: readonly number[]): number[] {
  return points.map(({ speed = Infinity }, index) => {
    const beside = [means[index - 1], means[index]].filter((mean) => mean !== undefined);
    const [sign, ...others] = beside.map(Math.sign);
    if (others.some((other) => other !== sign)) return 0;
    return sign * Math.min(speed, ...beside.map(Math.abs));
  });
}

/** Shares of a stretch that keep a point's speed and that change it; together never all of it. */
function sharesOf({ ease = 0.5, dwell = 0.2 }: RampOptions): { soft: number; rest: number } {
  const [soft, rest] = [ease, dwell].map((share) => Math.min(1, Math.max(0, share)));
  const fit = Math.min(1, 0.98 / (soft + rest || 1));
  return { soft: soft * fit, rest: rest * fit };
}

/**
 * A time map that shows each source instant exactly at its place in the song: as slow on the points as is wanted, as
 * fast between them as it has to be, the speed changing evenly over the eased part. Where the limits of speed cannot
 * be kept it is the nearest map that keeps them, and findings say what is off.
 * @param points rising in `song`; seconds
 * @returns the map, and what gave way; places are seconds of the song
 * @throws CoreError `ramp.points` with fewer than two points; `time-map` where they do not rise or are no numbers
 */
export function solveRamp(
  points: readonly RampPoint[],
  options: RampOptions = {},
): { map: TimeMap; findings: Finding<RampCode>[] } {
  const { minSpeed = -10, maxSpeed = 10 } = options;
  if (points.length < 2) refuse('ramp.points', 'Mark two instants of the take at least, each on its beat.');
  checkTimeMap({ knots: points.map(({ song, source }) => ({ song, source, ease: 0 })) });
  const { soft, rest } = sharesOf(options);
  // What a point's speed and the speed between weigh in the mean of a stretch.
  const atEnds = rest / 2 + soft / 4;
  const between = 1 - rest - soft / 2;
  const sources = reachable(points, minSpeed, maxSpeed);
  const lengths = points.slice(1).map(({ song }, index) => song - points[index].song);
  const means = lengths.map((length, index) => (sources[index + 1] - sources[index]) / length);
  const speeds = pointSpeeds(points, means);
  // Where the part between would be too fast, the points at its ends run faster than they should.
  const raised = [...speeds];
  means.forEach((mean, index) => {
    const limit = mean < 0 ? minSpeed : maxSpeed;
    const least = atEnds > 0 ? (mean - limit * between) / (2 * atEnds) : 0;
    for (const end of [index, index + 1])
      if (Math.abs(least) > Math.abs(raised[end]) && Math.sign(least) === Math.sign(mean))
        raised[end] = least;
  });
  const findings: Finding<RampCode>[] = points.flatMap(({ song, source, speed }, index) => [
    ...(Math.abs(source - sources[index]) > 1e-9
      ? [
          {
            code: 'ramp.out-of-reach' as const,
            severity: 'stop' as const,
            measured: { value: Math.abs(source - sources[index]), unit: 'seconds' as const },
            where: { from: song },
            facts: { point: index + 1 },
          },
        ]
      : []),
    ...(speed !== undefined && Math.abs(Math.abs(raised[index]) - speed) > 1e-9
      ? [
          {
            code: 'ramp.point-speed' as const,
            severity: 'watch' as const,
            measured: { value: Math.abs(raised[index]), unit: 'speed' as const },
            allowed: { value: speed, unit: 'speed' as const },
            where: { from: song },
            facts: { point: index + 1 },
          },
        ]
      : []),
  ]);
  const knots = lengths.flatMap((length, index) =>
    stretch(
      { song: points[index].song, source: sources[index], length, mean: means[index] },
      [raised[index], raised[index + 1]],
      { soft, rest },
    ),
  );
  const last = points.length - 1;
  return {
    map: { knots: [...knots, { song: points[last].song, source: sources[last], ease: 0 }] },
    findings,
  };
}

/** The knots of one stretch but its last: the speed of its first point, a change, what lies between, a change, the last. */
function stretch(
  { song, source, length, mean }: { song: number; source: number; length: number; mean: number },
  [first, last]: [number, number],
  { soft, rest }: { soft: number; rest: number },
): TimeMap['knots'] {
  const fast = (mean - (rest / 2 + soft / 4) * (first + last)) / (1 - rest - soft / 2);
  const parts = [
    { share: rest / 2, speed: first, ease: 0 },
    { share: soft / 2, speed: (first + fast) / 2, ease: 1 },
    { share: 1 - rest - soft, speed: fast, ease: 0 },
    { share: soft / 2, speed: (fast + last) / 2, ease: 1 },
    { share: rest / 2, speed: last, ease: 0 },
  ].filter(({ share }) => share > 1e-6);
  let [at, shown] = [0, source];
  return parts.map(({ share, speed, ease }) => {
    const knot = { song: song + at * length, source: shown, ease };
    at += share;
    shown += speed * share * length;
    return knot;
  });
}
