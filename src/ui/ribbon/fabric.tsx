'use client';
import { memo } from 'react';
import type { Hit } from '@/core/song/track';
import { barAndBeat, beatOfTime, type BeatGrid } from '@/core/time/grid';
import { threadsOf, xOf, type RibbonLayout } from './layout';

type Props = {
  layout: RibbonLayout;
  grid: BeatGrid;
  /** false while the stitches are only seconds */
  beats: boolean;
  peaks: Float32Array;
  perSecond: number;
  hits: readonly Hit[];
  /** weaker hits are not knotted in */
  hitsAbove: number;
  tall: number;
  barNumbers?: boolean;
};

/** Low hits are full knots, middle ones rings, high ones small rings. */
const knotSize = { low: 3.6, mid: 3.2, high: 2 };

/** The song itself: fabric, waveform, stitches for beats, knots for strong hits, a fold at each line's end. */
export const Fabric = memo(function Fabric({
  layout,
  grid,
  beats,
  peaks,
  perSecond,
  hits,
  hitsAbove,
  tall,
  barNumbers,
}: Props) {
  const { lines, height } = layout;
  const knots = hits
    .filter((hit) => hit.strength >= hitsAbove)
    .map((hit) => ({ position: beatOfTime(grid, hit.time), ...hit }));
  return (
    <g>
      {lines.map((line, index) => {
        const start = xOf(layout, line, line.from);
        const end = xOf(layout, line, line.to);
        const bottom = line.top + height;
        const stitches = { bar: '', beat: '' };
        for (let position = Math.ceil(line.from); position <= line.to; position++) {
          const first = barAndBeat(grid, position).beat === 1;
          const x = xOf(layout, line, position).toFixed(1);
          stitches[first ? 'bar' : 'beat'] += `M${x} ${bottom - (first ? 15 : 8)}V${bottom - 2}`;
        }
        const follows = index + 1 < lines.length;
        return (
          <g key={line.from}>
            <rect x={start} y={line.top} width={end - start} height={height} fill="var(--fabric)" />
            <path
              d={threadsOf(layout, line, grid, peaks, perSecond, tall)}
              stroke="var(--ink)"
              strokeWidth="1.6"
              opacity="0.42"
            />
            <path
              d={`M${start} ${line.top + 1.5}H${end}M${start} ${bottom - 1.5}H${end}`}
              stroke="var(--ink2)"
              opacity="0.55"
            />
            <path
              d={`M${start} ${line.top + 4}H${end}`}
              stroke="var(--ink2)"
              strokeWidth="0.6"
              strokeDasharray="2 2"
              opacity="0.4"
            />
            <path
              d={stitches.beat}
              stroke="var(--ink)"
              strokeWidth="1.2"
              strokeLinecap="round"
              opacity={beats ? 0.55 : 0.2}
            />
            <path
              d={stitches.bar}
              stroke="var(--ink)"
              strokeWidth="2"
              strokeLinecap="round"
              opacity={beats ? 0.9 : 0.3}
            />
            {knots
              .filter(({ position }) => position >= line.from && position < line.to)
              .map(({ position, band, strength }) => (
                <circle
                  key={position}
                  cx={xOf(layout, line, position)}
                  cy={line.top + 1.5}
                  r={knotSize[band] * (0.6 + 0.4 * strength)}
                  fill={band === 'low' ? 'var(--ink)' : 'var(--ground)'}
                  stroke="var(--ink)"
                  strokeWidth={band === 'high' ? 0.9 : 1.4}
                />
              ))}
            {!barNumbers && (
              <>
                <path
                  d={`M${end} ${line.top}l${follows ? 15 : 0} 9v${height - 18}l${follows ? -15 : 0} 9z`}
                  fill="var(--ink2)"
                  opacity="0.55"
                />
                <text
                  x={end + 20}
                  y={line.top + height / 2 + 4}
                  className="num"
                  fontSize="11"
                  fill="var(--ink2)"
                >
                  {barAndBeat(grid, line.to).bar - 1}
                </text>
              </>
            )}
            {barNumbers &&
              Array.from(
                { length: Math.floor(line.to - line.from) + 1 },
                (_, step) => Math.ceil(line.from) + step,
              )
                .filter((position) => barAndBeat(grid, position).beat === 1 && position < line.to)
                .map((position) => (
                  <text
                    key={position}
                    x={xOf(layout, line, position) + 6}
                    y={line.top + 18}
                    className="num"
                    fontSize="11"
                    fill="var(--ink2)"
                  >
                    {barAndBeat(grid, position).bar}
                  </text>
                ))}
          </g>
        );
      })}
    </g>
  );
});
