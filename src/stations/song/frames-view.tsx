'use client';
import { useMemo } from 'react';
import { barAndBeat, type BeatGrid } from '@/core/time/grid';
import { beatFrames, compareRates, offsetNotice } from '@/core/time/grid-report';
import { rateLabel, sameRate, type Rate } from '@/core/time/rate';
import { formatTimecode } from '@/core/time/timecode';
import { setProject } from '@/store/commands/projects';
import { useBench } from '@/ui/bench-context';

const milli = (seconds: number) => `${(seconds * 1000).toFixed(1)} ms`;
const signed = (seconds: number) => `${seconds < 0 ? '−' : '+'}${Math.abs(seconds * 1000).toFixed(1)} ms`;

const notices = {
  unnoticed: 'not noticed',
  'beyond R37': 'beyond EBU R37',
  noticed: 'noticed',
  unacceptable: 'not acceptable',
};

/** Where each beat falls at the project's rate, and what other rates would make of this song. */
export function FramesView({ grid, rate }: { grid: BeatGrid; rate: Rate }) {
  const { snapshot, store, player, attempt } = useBench();
  const rows = useMemo(() => beatFrames(grid, rate), [grid, rate]);
  const rates = useMemo(() => compareRates(grid), [grid]);
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-6 overflow-y-auto px-5 py-4" data-testid="frames">
      <section>
        <h2 className="mb-1 text-[16px]">This song at other rates</h2>
        <p className="mb-2 max-w-[90ch] text-ink2">
          A beat is moved to the nearest frame, from its own time, so nothing adds up. Sound that comes 45 ms
          early or 125 ms late is noticed (ITU-R BT.1359-1); programmes are held to 40 and 60 ms (EBU R37).
        </p>
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Rates">
          <table className="thread-table w-full">
            <thead>
              <tr>
                <th>Frames/s</th>
                <th>A beat</th>
                <th>Frames a beat, round and round</th>
                <th>Off, mean</th>
                <th>worst</th>
                <th>
                  <span className="sr-only">Choose</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {rates.map((report) => {
                const mine = sameRate(report.rate, rate);
                return (
                  <tr key={rateLabel(report.rate)} aria-current={mine || undefined}>
                    <td>{rateLabel(report.rate)}</td>
                    <td>{report.framesPerBeat.toFixed(3)}</td>
                    <td className="max-w-[42ch] truncate" title={report.pattern.join(' ')}>
                      {report.pattern.join(' ')}
                    </td>
                    <td>{milli(report.mean)}</td>
                    <td>{milli(report.worst)}</td>
                    <td>
                      {mine ? (
                        'in use'
                      ) : (
                        <button
                          type="button"
                          className="font-sans font-semibold underline"
                          onClick={() =>
                            attempt(() => setProject(store, snapshot.project.id, { rate: report.rate }))
                          }
                        >
                          Use
                        </button>
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      </section>
      <section>
        <h2 className="mb-1 text-[16px]">Every beat at {rateLabel(rate)} frames/s</h2>
        <p className="mb-2 text-ink2">Press a beat to put the needle on it.</p>
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Beats">
          <table className="thread-table w-full">
            <thead>
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
              {rows.map((row) => {
                const { bar, beat } = barAndBeat(grid, row.position);
                return (
                  <tr key={row.position} className={beat === 1 ? 'bar-row' : undefined}>
                    <td>
                      <button
                        type="button"
                        className="num min-h-6 hover:underline"
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
            </tbody>
          </table>
        </div>
      </section>
    </div>
  );
}
