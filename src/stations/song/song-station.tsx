'use client';
import { useState } from 'react';
import { barAndBeat, beatOfTime, regularGrid, reportGrid } from '@/core/time/grid';
import { frameShownAt, rateLabel } from '@/core/time/rate';
import { formatClock } from '@/core/time/timecode';
import {
  doubleTempo,
  firstOfBarAt,
  halveTempo,
  setBeatsPerBar,
  setTempo,
  shiftBeats,
  shiftHalfBeat,
  putFoundBeats,
} from '@/store/commands/song';
import { createClone } from '@/store/commands/moments';
import { songMeasure } from '@/store/snapshot';
import { useBench, useNeedle, usePlaying } from '@/ui/bench-context';
import { Findings, Reading } from '@/ui/findings';
import { LiveNumber } from '@/ui/live-number';
import { barsFor, foldSong } from '@/ui/ribbon/layout';
import { Ribbon } from '@/ui/ribbon/ribbon';
import { useSize } from '@/ui/use-size';
import { Empty, Part, Station } from '../station';

const question = 'What should happen when?';

/** The whole song, folded down the page, and what sets its beats right. */
export function SongStation() {
  const { snapshot, findings, openFiles, moment } = useBench();
  const [ref, { width }] = useSize<HTMLDivElement>();
  const [bars, setBars] = useState<number | null>(null);
  const [tall, setTall] = useState(1.2);
  const { song } = snapshot;
  const measure = songMeasure(snapshot);
  if (!song) {
    return (
      <Station question={question} side={findings.song.length > 0 && <Findings findings={findings.song} />}>
        <Empty title="Lay a song on the bench">
          <p>
            Drop a song anywhere on this page, or choose one. Its beats are found here, on this device; then
            every moment is pinned to them.
          </p>
          <button type="button" className="knob main" onClick={openFiles}>
            Choose files
          </button>
        </Empty>
      </Station>
    );
  }
  const seconds = measure?.song.duration ?? snapshot.media.get(song.media)?.probe?.duration ?? 10;
  const grid = song.grid ?? regularGrid(60, 0, seconds);
  const perLine = bars ?? barsFor(width);
  const layout = foldSong(grid, seconds, Math.max(240, width), perLine, width < 520 ? 56 : 62, 38);
  const height = layout.lines[layout.lines.length - 1].top + layout.pitch + 6;
  const name = snapshot.media.get(song.media)?.name ?? 'Song';
  return (
    <Station
      question={question}
      sub={`${name} · ${grid.beatsPerBar} beats to a bar`}
      tools={
        <>
          <label className="flex items-center gap-2 text-ink2 max-sm:hidden">
            Bars a line
            <LiveNumber
              label="Bars a line"
              value={perLine}
              step={1}
              min={1}
              max={16}
              show={String}
              onChange={setBars}
            />
          </label>
          <label className="flex items-center gap-2 text-ink2 max-sm:hidden">
            Waveform
            <LiveNumber
              label="Height of the waveform"
              value={Math.round(tall * 100)}
              step={10}
              min={20}
              max={400}
              show={(value) => `${value} %`}
              onChange={(value) => setTall(value / 100)}
            />
          </label>
        </>
      }
      side={<SongSide />}
    >
      <div
        ref={ref}
        className="min-h-0 flex-1 overflow-x-hidden py-2 pl-3 pr-1 max-sm:overflow-visible max-sm:pl-1 sm:overflow-y-auto"
      >
        {width > 0 && (
          <Ribbon
            layout={layout}
            grid={grid}
            beats={Boolean(song.grid)}
            tall={tall}
            width={width}
            height={height}
            label="The song. Arrow keys move the needle by a beat or a line; drag over bars to make a moment."
          />
        )}
      </div>
      <Transport loop={moment ? { from: moment.start, to: moment.end, name: moment.name } : null} />
    </Station>
  );
}

/** Play, loop, and where the needle stands. */
function Transport({ loop }: { loop: { from: number; to: number; name: string } | null }) {
  const { player, snapshot, attempt, store, go } = useBench();
  const playing = usePlaying(player);
  const time = useNeedle(player);
  const grid = snapshot.song?.grid;
  const at = grid && barAndBeat(grid, beatOfTime(grid, time));
  return (
    <div className="flex flex-wrap items-center gap-2.5 border-t border-line bg-ground px-5 py-2 max-sm:sticky max-sm:bottom-0 max-sm:px-3">
      <button type="button" className="knob main" onClick={() => void player.toggle()}>
        {playing ? 'Pause' : 'Play'}
      </button>
      {grid && (
        <button
          type="button"
          className="knob"
          onClick={() =>
            attempt(async () => {
              const bar =
                Math.floor(beatOfTime(grid, player.time()) / grid.beatsPerBar + 0.01) * grid.beatsPerBar;
              go({ moment: await createClone(store, snapshot, bar, bar + 3 * grid.beatsPerBar) });
            })
          }
        >
          Moment here
        </button>
      )}
      {loop && <span className="text-ink2 max-sm:hidden">Selected: {loop.name}</span>}
      <span className="flex-1" />
      <span className="num" data-testid="needle">
        {at ? `bar ${at.bar} · beat ${at.beat.toFixed(1)} · ` : ''}
        {formatClock(time)}
        <span className="max-sm:hidden"> · frame {frameShownAt(snapshot.project.rate, time)}</span>
      </span>
    </div>
  );
}

function SongSide() {
  const { snapshot, findings, store, player, attempt } = useBench();
  const measure = songMeasure(snapshot);
  const { song, project } = snapshot;
  if (!song) return null;
  const grid = song.grid;
  const report = grid && reportGrid(grid, project.rate);
  const found =
    song.confidence === null
      ? 'set by hand'
      : song.confidence > 0.6
        ? 'sure'
        : song.confidence > 0.35
          ? 'likely'
          : 'not sure';
  const run = (work: () => Promise<unknown>) => () => attempt(work);
  const bpm = report?.bpm ?? 100;
  return (
    <>
      <p className="font-serif text-[16px] leading-[1.75]">
        The song runs at{' '}
        <LiveNumber
          label="Tempo"
          value={Number(bpm.toFixed(2))}
          step={0.1}
          min={20}
          max={400}
          show={(value) => `${value.toFixed(1)} beats/min`}
          also={(value) =>
            `${(60 / value).toFixed(3)} s a beat. Sets an even tempo from the beat nearest to the needle.`
          }
          dye="var(--madder)"
          onChange={(value) => attempt(() => setTempo(store, snapshot, value, player.time()))}
        />
        {grid && (
          <>
            ,{' '}
            <LiveNumber
              label="Beats in a bar"
              value={grid.beatsPerBar}
              step={1}
              min={2}
              max={7}
              show={(value) => `${value} beats`}
              dye="var(--madder)"
              onChange={(value) => attempt(() => setBeatsPerBar(store, snapshot, Math.round(value)))}
            />{' '}
            to a bar
          </>
        )}
        .
      </p>
      <Part title="Beats">
        {grid && report ? (
          <>
            <Reading name="Found" value={`${grid.beats.length} beats, ${found}`} />
            <Reading name="Bars breathe" value={`±${(report.breathing * 100).toFixed(1)} %`} />
            <Reading
              name="Frames a beat"
              value={`${report.framesPerBeat.toFixed(2)} · ${report.pattern.join(' ')}`}
            />
            <Reading
              name="Worst rounding"
              value={`${report.worst.frames.toFixed(2)} fr · ${Math.round(report.worst.seconds * 1000)} ms`}
            />
            <Reading name="Delivery" value={`${rateLabel(project.rate)} frames/s`} />
            <p className="mt-2 text-[12px] text-ink2">
              {Math.round(report.worst.seconds * 1000)} ms is{' '}
              {report.worst.seconds < 0.045 ? 'under' : 'above'} what people notice (45 ms early, 125 ms late;
              ITU-R BT.1359-1).
            </p>
          </>
        ) : (
          <p className="text-ink2">
            {measure
              ? 'There are none yet. Put the needle on a beat and set the tempo above.'
              : 'They are being looked for. The ribbon shows seconds until then.'}
          </p>
        )}
      </Part>
      {grid && (
        <Part title="Set it right">
          <div className="flex flex-wrap gap-1.5">
            <button type="button" className="knob" onClick={run(() => halveTempo(store, snapshot))}>
              Half
            </button>
            <button type="button" className="knob" onClick={run(() => doubleTempo(store, snapshot))}>
              Double
            </button>
            <button type="button" className="knob" onClick={run(() => shiftHalfBeat(store, snapshot))}>
              Half a beat on
            </button>
            <button
              type="button"
              className="knob"
              onClick={run(() => firstOfBarAt(store, snapshot, player.time()))}
            >
              First of bar at needle
            </button>
            <button
              type="button"
              className="knob"
              onClick={run(() => shiftBeats(store, snapshot, -project.rate.den / project.rate.num))}
            >
              1 frame earlier
            </button>
            <button
              type="button"
              className="knob"
              onClick={run(() => shiftBeats(store, snapshot, project.rate.den / project.rate.num))}
            >
              1 frame later
            </button>
            {measure && measure.beats.beats.length > 1 && (
              <button type="button" className="knob" onClick={run(() => putFoundBeats(store, snapshot))}>
                As found
              </button>
            )}
          </div>
        </Part>
      )}
      {findings.song.length > 0 && (
        <Part title="What the bench found">
          <Findings findings={findings.song} />
        </Part>
      )}
    </>
  );
}
