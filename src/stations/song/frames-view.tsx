'use client';
import { useMemo } from 'react';
import { positionOf, timeOfBeat, type BeatGrid } from '@/core/time/grid';
import { beatFrames, compareRates, tempoByBar } from '@/core/time/grid-report';
import { rateLabel, sameRate, type Rate } from '@/core/time/rate';
import { formatClock } from '@/core/time/timecode';
import { setProject } from '@/store/commands/projects';
import { songMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { Chart, type ChartProps } from '@/ui/chart';
import { BeatTable } from './beat-table';

const milli = (seconds: number) => `${(seconds * 1000).toFixed(1)} ms`;
/** Where each beat falls at the project's rate, and what other rates would make of this song. */
export function FramesView({ grid, rate }: { grid: BeatGrid; rate: Rate }) {
  const { store, player, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const rows = useMemo(() => beatFrames(grid, rate), [grid, rate]);
  const rates = useMemo(() => compareRates(grid), [grid]);
  const tempo = useMemo((): ChartProps => {
    const bars = tempoByBar(grid);
    const tempos = bars.map(({ bpm }) => bpm);
    return {
      label: `Tempo by bar, from ${Math.min(...tempos).toFixed(1)} to ${Math.max(...tempos).toFixed(1)} beats a minute. A press puts the needle on the bar.`,
      curves: [
        {
          name: 'Tempo',
          points: bars.map(({ bar, bpm }) => [bar, bpm] as const),
          dye: '--madder',
          steps: true,
        },
      ],
      across: (bar) => `bar ${Math.round(bar)}`,
      down: (bpm) => bpm.toFixed(1),
      onPick: (bar) => player.seek(timeOfBeat(grid, positionOf(grid, Math.max(1, Math.floor(bar))))),
    };
  }, [grid, player]);
  const form = songMeasure(snapshot)?.song;
  const energy = useMemo((): ChartProps | null => {
    if (!form) return null;
    return {
      label: `Loudness over the song, with the beginnings of ${snapshot.sections.length} sections. A press puts the needle there.`,
      curves: [
        {
          name: 'Level',
          points: Array.from(
            form.levels,
            (level, index) => [index / 10, 20 * Math.log10(Math.max(level, 1e-3))] as const,
          ),
          dye: '--woad',
        },
      ],
      across: formatClock,
      down: (level) => `${level.toFixed(0)} dB`,
      marks: snapshot.sections.map(({ at, name }) => ({ at: timeOfBeat(grid, at), text: name })),
      onPick: (seconds) => player.seek(seconds),
    };
  }, [form, grid, player, snapshot.sections]);
  return (
    <div
      className="flex min-h-0 min-w-0 flex-1 flex-col gap-6 overflow-y-auto px-5 py-4 phone:flex-none phone:overflow-visible phone:px-3"
      data-testid="frames"
    >
      <section>
        <h2 className="mb-1 text-[16px]">This song at other rates</h2>
        <p className="mb-2 max-w-[90ch] text-ink2">
          A beat is moved to the nearest frame, from its own time, so nothing adds up. Sound that comes 45 ms
          early or 125 ms late is noticed (ITU-R BT.1359-1); programmes are held to 40 and 60 ms (EBU R37).
        </p>
        <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Rates">
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
        <h2 className="mb-1 text-[16px]">Tempo by bar</h2>
        <Chart {...tempo} />
      </section>
      {energy && (
        <section>
          <h2 className="mb-1 text-[16px]">How loud it is, section by section</h2>
          <Chart {...energy} />
        </section>
      )}
      <section>
        <h2 className="mb-1 text-[16px]">Every beat at {rateLabel(rate)} frames/s</h2>
        <p className="mb-2 text-ink2">Press a beat to put the needle on it.</p>
        <BeatTable rows={rows} grid={grid} rate={rate} />
      </section>
    </div>
  );
}
