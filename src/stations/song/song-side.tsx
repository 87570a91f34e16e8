'use client';
import { ChevronDown } from 'lucide-react';
import { barAndBeat, barStart, beatLabel, beatOfTime, meterAt, nextBar } from '@/core/time/grid';
import { recipeOf } from '@/core/recipes/built';
import type { MomentKind } from '@/core/recipes/films';
import { likelyFrom, sureFrom } from '@/core/song/certainty';
import { reportGrid } from '@/core/time/grid-report';
import { copyMoment } from '@/store/commands/moments';
import {
  beatAtNeedle,
  doubleTempo,
  findRestAgain,
  firstOfBarAt,
  halveTempo,
  lockPassage,
  putFoundBeats,
  setBeatsPerBar,
  setHitsAbove,
  setMeterAt,
  setTempo,
  setTempoAt,
  shiftBeats,
  shiftHalfBeat,
  snapMoments,
  unlockAll,
} from '@/store/commands/song';
import { setKind } from '@/store/commands/plan';
import { songMeasure } from '@/store/snapshot';
import { useData, useNeedle, useServices } from '@/ui/bench-context';
import { Findings, Reading } from '@/ui/findings';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';
import { Part } from '../station';
import { kindOptions } from '../plan/kinds';
import { SectionList } from './section-list';
import { SongFiles } from './song-files-part';
import { TakeEvents } from './take-events';
import { Taps } from './taps';

const certainty = (confidence: number | null) => {
  if (confidence === null) return 'set by hand';
  if (confidence >= sureFrom) return 'sure';
  return confidence >= likelyFrom ? 'likely' : 'not sure';
};

/** The song in a sentence, and everything that sets its beats right. */
export function SongSide({
  setting,
  onSetting,
}: {
  setting: 'moments' | 'beats';
  onSetting: (setting: 'moments' | 'beats') => void;
}) {
  const { store, player, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const findings = useData((data) => data.findings);
  const measure = songMeasure(snapshot);
  const { song, project } = snapshot;
  if (!song) return null;
  const { grid } = song;
  const report = grid && reportGrid(grid, project.rate);
  const tick = project.rate.den / project.rate.num;
  const bpm = report?.bpm ?? 100;
  const { id } = project;
  /** the other readings of the same strokes: what was found is most often one of these apart */
  const readings: Knob[] = [
    ['Half', () => halveTempo(store, id, player.time())],
    ['Double', () => doubleTempo(store, id)],
    ['Half a beat later', () => shiftHalfBeat(store, id)],
    ['First of bar at needle', () => firstOfBarAt(store, id, player.time())],
  ];
  const finer: Knob[] = [
    ['Nearest beat to needle', () => beatAtNeedle(store, id, player.time())],
    ['1 frame earlier', () => shiftBeats(store, id, -tick)],
    ['1 frame later', () => shiftBeats(store, id, tick)],
    ['1 ms earlier', () => shiftBeats(store, id, -0.001)],
    ['1 ms later', () => shiftBeats(store, id, 0.001)],
  ];
  if (measure && measure.beats.beats.length > 1) finer.push(['As found', () => putFoundBeats(store, id)]);
  if (snapshot.moments.length > 0) finer.push(['Snap moments to beats', () => snapMoments(store, id)]);
  return (
    <>
      <p className="font-serif text-[16px] leading-[1.75]">
        {song.media ? 'The song runs at ' : 'The ruler runs at '}
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
          onChange={(value) => attempt(() => setTempo(store, snapshot.project.id, value, player.time()))}
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
              onChange={(value) =>
                attempt(() => setBeatsPerBar(store, snapshot.project.id, Math.round(value)))
              }
            />{' '}
            to a bar
          </>
        )}
        .
      </p>
      <ChosenMoment />
      {findings.song.length > 0 && (
        <Part title="What the bench found">
          <Findings findings={findings.song} />
        </Part>
      )}
      <Part title="Beats">
        {grid && report ? (
          <>
            <Reading name="Found" value={`${grid.beats.length} beats, ${certainty(song.confidence)}`} />
            <Reading name="Bars breathe" value={`±${(report.breathing * 100).toFixed(1)} %`} />
            <Reading name="Frames a beat" value={report.framesPerBeat.toFixed(2)} />
            <Reading
              name="Worst rounding"
              value={`${(report.worst / tick).toFixed(2)} fr · ${Math.round(report.worst * 1000)} ms`}
            />
          </>
        ) : (
          <p className="text-ink2">
            {measure
              ? 'There are none yet. Put the needle on a beat and set the tempo above, or tap along.'
              : 'They are being looked for. The ribbon shows seconds until then.'}
          </p>
        )}
      </Part>
      {grid && (
        <Part title="Set it right">
          <p className="mb-1.5 text-ink2">
            Play it with the click. Where that is off, choose another reading (half is{' '}
            <span className="num">{(bpm / 2).toFixed(1)}</span>, double{' '}
            <span className="num">{(bpm * 2).toFixed(1)}</span> beats a minute), or tap along below.
          </p>
          <Knobs knobs={readings} />
          <details className="mt-2">
            <summary className="flex cursor-pointer list-none items-center gap-1 font-semibold pointer-coarse:min-h-11 [&::-webkit-details-marker]:hidden">
              Finer, and from a bar on
              <ChevronDown size={13} aria-hidden />
            </summary>
            <div className="flex flex-col items-start gap-1.5 pt-1.5">
              <Knobs knobs={finer} />
              <button
                type="button"
                className="knob"
                aria-pressed={setting === 'beats'}
                onClick={() => onSetting(setting === 'beats' ? 'moments' : 'beats')}
              >
                Drag single beats
              </button>
              <FromHere />
            </div>
          </details>
        </Part>
      )}
      {song.media ? <Taps /> : <TakeEvents />}
      {measure && (
        <Part title="Hits">
          <p>
            Knots show what is struck at{' '}
            <LiveNumber
              label="Hits from"
              value={Math.round((song.hitsAbove ?? 0.55) * 100)}
              step={5}
              min={20}
              max={100}
              show={(value) => `${value} %`}
              onChange={(value) => attempt(() => setHitsAbove(store, snapshot.project.id, value / 100))}
            />{' '}
            of full strength or more:{' '}
            <span className="num">
              {measure.beats.hits.filter((hit) => hit.strength >= (song.hitsAbove ?? 0.55)).length}
            </span>{' '}
            of <span className="num">{measure.beats.hits.length}</span>. Full knots are low, rings middle,
            small rings high.
          </p>
        </Part>
      )}
      {grid && <SectionList grid={grid} />}
      {grid && <SongFiles grid={grid} />}
    </>
  );
}

type Knob = [text: string, work: () => Promise<unknown>];

function Knobs({ knobs }: { knobs: readonly Knob[] }) {
  const { attempt } = useServices();
  return (
    <div className="flex flex-wrap gap-1.5">
      {knobs.map(([text, work]) => (
        <button key={text} type="button" className="knob" onClick={() => attempt(work)}>
          {text}
        </button>
      ))}
    </div>
  );
}

/** The moment that is chosen on the ribbon, and what can be done with it there. */
function ChosenMoment() {
  const { store, attempt, go, askRemove } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const moment = useData((data) => data.moment);
  const grid = snapshot.song?.grid;
  if (!moment || !grid) return null;
  return (
    <Part title={moment.name}>
      <p className="mb-1">
        It is a{' '}
        <LiveChoice
          label={`Kind of ${moment.name}`}
          value={moment.recipe}
          options={kindOptions}
          onChange={(kind) =>
            attempt(() => setKind(store, snapshot.project.id, moment.id, kind as MomentKind))
          }
        />
        .
      </p>
      <Reading
        name="On the ribbon"
        value={`${beatLabel(grid, moment.start)} to ${beatLabel(grid, moment.end)}`}
      />
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        <button
          type="button"
          className="knob"
          onClick={() => go({ station: 'plan', moment: moment.id, part: 'needs' })}
        >
          Plan it
        </button>
        {recipeOf(moment) && (
          <button type="button" className="knob" onClick={() => go({ station: 'build', moment: moment.id })}>
            Build it
          </button>
        )}
        <button
          type="button"
          className="knob"
          onClick={() =>
            attempt(async () => go({ moment: await copyMoment(store, snapshot.project.id, moment.id) }))
          }
        >
          Copy
        </button>
        <button type="button" className="knob" onClick={() => askRemove(moment.id)}>
          Remove
        </button>
      </div>
    </Part>
  );
}

/** What changes from the bar at the needle on, and which passage is kept. */
function FromHere() {
  const { store, player, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const moment = useData((data) => data.moment);
  const time = useNeedle(player);
  const { song } = snapshot;
  const grid = song?.grid;
  if (!song || !grid) return null;
  const at = barStart(grid, beatOfTime(grid, time) + 0.01);
  const local =
    60 /
    Math.max(
      0.05,
      gridTime(grid.beats, at + grid.firstDownbeat + 1) - gridTime(grid.beats, at + grid.firstDownbeat),
    );
  const passage = moment
    ? { from: barStart(grid, moment.start), to: nextBar(grid, moment.end - 0.01) }
    : { from: at, to: nextBar(grid, nextBar(grid, at)) };
  const bar = (position: number) => barAndBeat(grid, position).bar;
  const locked = song.locked ?? [];
  return (
    <div className="mt-2 leading-[1.9]">
      <p>
        From bar <span className="num">{bar(at)}</span> on:{' '}
        <LiveNumber
          label="Tempo from here"
          value={Number(local.toFixed(1))}
          step={0.5}
          min={20}
          max={400}
          show={(value) => `${value.toFixed(1)} beats/min`}
          onChange={(value) => attempt(() => setTempoAt(store, snapshot.project.id, at, value))}
        />
        ,{' '}
        <LiveNumber
          label="Beats in a bar from here"
          value={meterAt(grid, at).beatsPerBar}
          step={1}
          min={2}
          max={7}
          show={(value) => `${value} to a bar`}
          onChange={(value) => attempt(() => setMeterAt(store, snapshot.project.id, at, Math.round(value)))}
        />
        .
      </p>
      <div className="flex flex-wrap items-center gap-1.5">
        <button
          type="button"
          className="knob"
          onClick={() => attempt(() => lockPassage(store, snapshot.project.id, passage.from, passage.to))}
        >
          Lock bars {bar(passage.from)} to {bar(passage.to) - 1}
        </button>
        {locked.length > 0 && (
          <>
            <button
              type="button"
              className="knob"
              onClick={() => attempt(() => findRestAgain(store, snapshot.project.id))}
            >
              Find the rest again
            </button>
            <button
              type="button"
              className="knob"
              onClick={() => attempt(() => unlockAll(store, snapshot.project.id))}
            >
              Unlock all
            </button>
          </>
        )}
      </div>
      {locked.length > 0 && (
        <p className="text-[12px] text-ink2">
          Locked: {locked.map(({ from, to }) => `bars ${bar(from)} to ${bar(to - 0.01)}`).join(', ')}.
        </p>
      )}
    </div>
  );
}

/** Seconds of a beat by its number; before and after the song the last length goes on. */
function gridTime(beats: readonly number[], index: number): number {
  const within = Math.min(beats.length - 1, Math.max(0, index));
  return beats[within] + (index - within) * (beats[1] - beats[0]);
}
