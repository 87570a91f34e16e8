'use client';
import { useMemo } from 'react';
import { allowed } from '@/core/finding/allowed';
import { actionIn } from '@/core/footage/action';
import type { CameraPath } from '@/core/footage/camera-path';
import type { TakeMatch } from '@/core/footage/colour-match';
import { quantile } from '@/core/statistics';
import { cornerMove, unpackPlacements } from '@/core/geometry/placement';
import type { Size } from '@/core/geometry/size';
import { beatLabel, nearestBeat, type BeatGrid } from '@/core/time/grid';
import { formatClock } from '@/core/time/timecode';
import { Chart, type ChartProps } from '@/ui/chart';

/** How far the camera of some takes stood from its plate, in delivery pixels over their seconds. */
export function CameraCurve({
  takes,
  width,
  onPick,
}: {
  takes: readonly { name: string; path: CameraPath; size: Size; last: number; dye: string }[];
  /** of the delivery */
  width: number;
  onPick: (seconds: number) => void;
}) {
  const chart = useMemo(
    (): ChartProps => ({
      label: `How far the camera stood from the plate over ${takes.map(({ name }) => name).join(' and ')}`,
      curves: takes.map(({ name, path, size, last, dye }) => {
        const moved = unpackPlacements(path.placements).map(
          (place) => (cornerMove(place, size) * width) / size.width,
        );
        const points = moved.map((pixels, index) => [path.times[index], pixels] as const);
        // One stretch that stands has one place: it holds from the first picture to the last.
        return {
          name,
          dye,
          points: points.length > 1 ? points : [[0, moved[0]] as const, [last, moved[0]] as const],
        };
      }),
      across: formatClock,
      down: (pixels) => `${pixels.toFixed(1)} px`,
      limit: { value: allowed.move, text: 'allowed' },
      height: 120,
      onPick,
    }),
    [takes, width, onPick],
  );
  return <Chart {...chart} />;
}

/** How much brighter than the plate some takes were, in stops over their seconds. */
export function LightCurve({
  takes,
  onPick,
}: {
  takes: readonly { name: string; light: TakeMatch['light']; dye: string }[];
  onPick: (seconds: number) => void;
}) {
  const chart = useMemo(
    (): ChartProps => ({
      label: `How bright ${takes.map(({ name }) => name).join(' and ')} stayed, held against the plate`,
      curves: takes.map(({ name, light, dye }) => ({
        name,
        dye,
        points: light.map(({ time, stops }) => [time, stops] as const),
      })),
      across: formatClock,
      down: (stops) => `${stops > 0 ? '+' : ''}${stops.toFixed(1)} stop`,
      span: [-0.3, 0.3],
      height: 120,
      onPick,
    }),
    [takes, onPick],
  );
  return <Chart {...chart} />;
}

/** A take's movement: what moves in each picture, at its second, and the beats of the moment that it is chosen for. */
export type MovedTake = {
  name: string;
  dye: string;
  moved: Float32Array | Float64Array;
  times: Float32Array | Float64Array;
  /** the song, and its second at the take's first one, where it is chosen for the moment */
  song: { grid: BeatGrid; shown: number } | null;
};

/** points of a curve at the most: more cannot be seen */
const mostPoints = 400;
const clock = (seconds: number) => `${seconds.toFixed(1)} s`;
const list = new Intl.ListFormat('en');
/** instants that are said of a take, at the most */
const mostSaid = 4;

/** Where an instant of a take lies on the song, in words. */
function sayOnSong(song: MovedTake['song'], seconds: number): string {
  if (!song) return '';
  const { beat, late } = nearestBeat(song.grid, song.shown + seconds);
  const label = beatLabel(song.grid, beat);
  if (Math.abs(late) <= allowed.onBeat) return ` (on ${label})`;
  return ` (${Math.round(1000 * Math.abs(late))} ms ${late > 0 ? 'after' : 'before'} ${label})`;
}

/** When a take is still, when movements begin and stop, and how far from a beat. */
function sayAction({ moved, times, song }: MovedTake): string {
  const { still, starts, stops } = actionIn(moved, times);
  if (still.length === 0) return 'never stands still.';
  const instants = (what: string, seconds: readonly number[]) => {
    const said = seconds.slice(0, mostSaid).map((one) => `at ${clock(one)}${sayOnSong(song, one)}`);
    const more = seconds.length > mostSaid ? [`${seconds.length - mostSaid} times more`] : [];
    return seconds.length > 0 ? [` It ${what} ${list.format([...said, ...more])}.`] : [];
  };
  return [
    `stands still ${list.format(still.map(({ from, until }) => `from ${clock(from)} to ${clock(until)}`))}.`,
    ...instants('starts to move', starts),
    ...instants('comes to rest', stops),
  ].join('');
}

/** How much moves in some takes, as a share of the liveliest of it, over their seconds, with where they stand still in words. */
export function MovementCurve({
  takes,
  beats,
  onPick,
}: {
  takes: readonly MovedTake[];
  /** bars of the song over the takes' seconds */
  beats: readonly { at: number; text: string }[];
  onPick: (seconds: number) => void;
}) {
  const most = Math.max(1e-6, ...takes.flatMap(({ moved }) => quantile(moved, 0.995)));
  const chart = useMemo(
    (): ChartProps => ({
      label: `How much moves in ${takes.map(({ name }) => name).join(' and ')}. A press goes to the picture.`,
      curves: takes.map(({ name, dye, moved, times }) => {
        const step = Math.max(1, Math.ceil(times.length / mostPoints));
        const points = Array.from({ length: Math.ceil(times.length / step) }, (_, index) => {
          const near = Array.from(moved.subarray(index * step, (index + 1) * step));
          return [times[index * step], Math.min(1, Math.max(...near) / most)] as const;
        });
        return { name, dye, points };
      }),
      across: formatClock,
      down: (share) => `${Math.round(100 * share)} %`,
      span: [0, 1],
      marks: beats,
      height: 120,
      onPick,
    }),
    [takes, beats, most, onPick],
  );
  const said = useMemo(() => takes.map((take) => ({ name: take.name, text: sayAction(take) })), [takes]);
  return (
    <>
      <Chart {...chart} />
      {said.map(({ name, text }) => (
        <p key={name} className="mt-1 text-[12.5px]" data-still={name}>
          <b>{name}</b> {text}
        </p>
      ))}
    </>
  );
}
