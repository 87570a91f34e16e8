'use client';
import { barAndBeat, type BeatGrid } from '@/core/time/grid';
import { offsetNotice, type BeatFrame } from '@/core/time/grid-report';
import type { Rate } from '@/core/time/rate';
import { formatTimecode } from '@/core/time/timecode';
import { useServices } from '@/ui/bench-context';
import { LongTable } from '@/ui/long-table';

const signed = (seconds: number) => `${seconds < 0 ? '−' : '+'}${Math.abs(seconds * 1000).toFixed(1)} ms`;

const notices = {
  unnoticed: 'not noticed',
  'beyond R37': 'beyond EBU R37',
  noticed: 'noticed',
  unacceptable: 'not acceptable',
};

/** Every beat on its frame. */
export function BeatTable({ rows, grid, rate }: { rows: readonly BeatFrame[]; grid: BeatGrid; rate: Rate }) {
  const { player } = useServices();
  return (
    <LongTable
      label="Beats"
      heads={['Beat', 'Seconds', 'Frame', 'Timecode', 'Since', 'Frame is off by']}
      count={rows.length}
      row={(index) => {
        const { position, time, frame, since, off } = rows[index];
        const { bar, beat } = barAndBeat(grid, position);
        return {
          key: String(position),
          begins: beat === 1,
          cells: [
            <button
              key="beat"
              type="button"
              className="num min-w-11 text-left hover:underline pointer-fine:min-h-6"
              onClick={() => player.seek(time)}
            >
              {bar} · {beat}
            </button>,
            time.toFixed(3),
            frame,
            formatTimecode(frame, rate),
            since ?? '',
            <span key="off">
              {signed(off)} <span className="text-ink2">{notices[offsetNotice(off)]}</span>
            </span>,
          ],
        };
      }}
    />
  );
}
