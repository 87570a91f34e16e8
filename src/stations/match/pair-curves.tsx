'use client';
import { useMemo } from 'react';
import { allowed } from '@/core/finding/allowed';
import type { CameraPath } from '@/core/footage/camera-path';
import type { TakeMatch } from '@/core/footage/colour-match';
import { cornerMove, unpackPlacements } from '@/core/geometry/placement';
import type { Size } from '@/core/geometry/size';
import { formatClock } from '@/core/time/timecode';
import { Chart, type ChartProps } from '@/ui/chart';

/** How far the camera of some takes stood from its plate, in delivery pixels over their seconds. */
export function CameraCurve({
  takes,
  width,
}: {
  takes: readonly { name: string; path: CameraPath; size: Size; last: number; dye: string }[];
  /** of the delivery */
  width: number;
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
    }),
    [takes, width],
  );
  return <Chart {...chart} />;
}

/** How much brighter than the plate some takes were, in stops over their seconds. */
export function LightCurve({
  takes,
}: {
  takes: readonly { name: string; light: TakeMatch['light']; dye: string }[];
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
    }),
    [takes],
  );
  return <Chart {...chart} />;
}
