'use client';
import { beatOfTime, type BeatGrid } from '@/core/time/grid';
import { useNeedle } from '../bench-context';
import type { Player } from '../player';
import { lineOf, xOf, type RibbonLayout } from './layout';

/** The needle is the playhead; its thread trails behind. */
export function Needle({ player, layout, grid }: { player: Player; layout: RibbonLayout; grid: BeatGrid }) {
  const time = useNeedle(player);
  const position = beatOfTime(grid, time);
  const line = lineOf(layout, position);
  if (position > line.to + 0.01 || position < line.from - 0.01) return null;
  const x = xOf(layout, line, position);
  const top = line.top - 16;
  const tip = line.top + layout.height + 12;
  return (
    <g pointerEvents="none" data-needle={time.toFixed(3)}>
      <path
        d={`M${x} ${top}c2.8 0 3.6 3 3.2 9L${x + 0.9} ${tip}h-1.8L${x - 3.2} ${top + 9}c-.4-6 .4-9 3.2-9z`}
        fill="var(--ink)"
        stroke="var(--ground)"
        strokeWidth="0.8"
      />
      <ellipse cx={x} cy={top + 5.5} rx="1" ry="3" fill="var(--fabric)" />
      <path d={`M${x} ${top + 5}c14 -10 40 -2 60 -8`} stroke="var(--madder)" strokeWidth="1.4" fill="none" />
    </g>
  );
}
