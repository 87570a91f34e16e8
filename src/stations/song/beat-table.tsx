'use client';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import { barAndBeat, type BeatGrid } from '@/core/time/grid';
import { offsetNotice, type BeatFrame } from '@/core/time/grid-report';
import type { Rate } from '@/core/time/rate';
import { formatTimecode } from '@/core/time/timecode';
import { useBench } from '@/ui/bench-context';

const signed = (seconds: number) => `${seconds < 0 ? '−' : '+'}${Math.abs(seconds * 1000).toFixed(1)} ms`;

const notices = {
  unnoticed: 'not noticed',
  'beyond R37': 'beyond EBU R37',
  noticed: 'noticed',
  unacceptable: 'not acceptable',
};

/** CSS pixels of a row: what a finger meets on a phone is as tall as a finger needs it. */
const rowHeight = () => (window.matchMedia('(pointer: coarse)').matches ? 44 : 26);

/** Every beat on its frame. A song has hundreds: only the rows in sight are drawn. */
export function BeatTable({ rows, grid, rate }: { rows: readonly BeatFrame[]; grid: BeatGrid; rate: Rate }) {
  const { player } = useBench();
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: rowHeight,
    overscan: 12,
  });
  const seen = virtual.getVirtualItems();
  const above = seen[0]?.start ?? 0;
  const below = virtual.getTotalSize() - (seen.at(-1)?.end ?? 0);
  return (
    <div ref={box} className="relative h-[420px] overflow-auto" tabIndex={0} role="region" aria-label="Beats">
      <table className="thread-table w-full" aria-rowcount={rows.length + 1}>
        <thead className="sticky top-0 bg-ground">
          <tr>
            <th>Beat</th>
            <th>Seconds</th>
            <th>Frame</th>
            <th>Timecode</th>
            <th>Since</th>
            <th>Frame is off by</th>
          </tr>
        </thead>
        <tbody>
          {above > 0 && <tr aria-hidden style={{ height: above }} />}
          {seen.map(({ index, size }) => {
            const row = rows[index];
            const { bar, beat } = barAndBeat(grid, row.position);
            return (
              <tr
                key={index}
                aria-rowindex={index + 2}
                className={beat === 1 ? 'bar-row' : undefined}
                style={{ height: size }}
              >
                <td>
                  <button
                    type="button"
                    className="num min-w-11 text-left hover:underline pointer-coarse:min-h-11 pointer-fine:min-h-6"
                    onClick={() => player.seek(row.time)}
                  >
                    {bar} · {beat}
                  </button>
                </td>
                <td>{row.time.toFixed(3)}</td>
                <td>{row.frame}</td>
                <td>{formatTimecode(row.frame, rate)}</td>
                <td>{row.since ?? ''}</td>
                <td>
                  {signed(row.off)} <span className="text-ink2">{notices[offsetNotice(row.off)]}</span>
                </td>
              </tr>
            );
          })}
          {below > 0 && <tr aria-hidden style={{ height: below }} />}
        </tbody>
      </table>
    </div>
  );
}
