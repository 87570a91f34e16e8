'use client';
import { useEffect, useMemo, useState, type MouseEvent } from 'react';
import { outlineInForce, cloneFrames } from '@/core/recipes/clone/build';
import { otherSide, sides } from '@/core/recipes/clone/material';
import { films } from '@/core/recipes/films';
import type { Ruler } from '@/core/recipes/recipe';
import { isClone, type CloneMoment } from '@/core/model/records';
import { fillOf } from '@/core/model/slots';
import type { Point } from '@/core/picture/image';
import { sourceTime } from '@/core/picture/layers';
import { barAndBeat, barStart, nextBar, timeOfBeat } from '@/core/time/grid';
import { frameShownAt, timeOfFrame } from '@/core/time/rate';
import { formatTimecode } from '@/core/time/timecode';
import { createClone, setMoment } from '@/store/commands/moments';
import { layersOf } from '@/store/needs';
import { materialOf, rulerOf } from '@/store/snapshot';
import { useBench, useNeedle, usePlaying } from '@/ui/bench-context';
import { Findings } from '@/ui/findings';
import { LiveChoice } from '@/ui/live-choice';
import { passage, xOf } from '@/ui/ribbon/layout';
import { Ribbon } from '@/ui/ribbon/ribbon';
import { SeamLine } from '@/ui/stage/seam-line';
import { placeFrame, Stage } from '@/ui/stage/stage';
import { useSize } from '@/ui/use-size';
import { Empty, Part, Station } from '../station';
import { MomentSentence } from './sentence';
import { Thread } from './thread';
import { showingOf, views, type View } from './views';

const question = 'Does it land?';

/** One moment: its passage of the song, its picture, its sentence. */
export function BuildStation() {
  const { snapshot, store, moment, clone, attempt, go } = useBench();
  const ruler = rulerOf(snapshot);
  if (!ruler) {
    return (
      <Station question={question}>
        <Empty title="First the song">
          <p>
            A moment is pinned to beats. Bring in a song, or set a tempo, then drag over the bars that the
            moment takes.
          </p>
          <button type="button" className="knob main" onClick={() => go({ station: 'song' })}>
            To the song
          </button>
        </Empty>
      </Station>
    );
  }
  if (!moment) {
    const perBar = ruler.grid.beatsPerBar;
    return (
      <Station question={question}>
        <Empty title="Make a moment">
          <p>
            Drag over some bars on the song. Or begin with a clone over bars 9 to 11: she is there, and her
            copy appears a bar later, on the beat.
          </p>
          <div className="flex gap-2">
            <button
              type="button"
              className="knob main"
              onClick={() =>
                attempt(async () =>
                  go({ moment: await createClone(store, snapshot.project.id, 8 * perBar, 11 * perBar) }),
                )
              }
            >
              Clone on bars 9 to 11
            </button>
            <button type="button" className="knob" onClick={() => go({ station: 'song' })}>
              To the song
            </button>
          </div>
        </Empty>
      </Station>
    );
  }
  if (!isClone(moment)) {
    return (
      <Station question={question}>
        <Empty title={`${moment.name} is planned, not built here yet`}>
          <p>
            The bench builds clones so far. For a {films[moment.recipe].title.toLowerCase()} it says what to
            film, how long and in what order; put it together in your editor.
          </p>
          <div className="flex gap-2">
            <button type="button" className="knob main" onClick={() => go({ station: 'plan' })}>
              To the plan
            </button>
            {clone && (
              <button type="button" className="knob" onClick={() => go({ moment: clone.id })}>
                To {clone.name}
              </button>
            )}
          </div>
        </Empty>
      </Station>
    );
  }
  return <BuildMoment key={moment.id} moment={moment} ruler={ruler} />;
}

function BuildMoment({ moment, ruler }: { moment: CloneMoment; ruler: Ruler }) {
  const { snapshot, findings, store, player, attempt, go, askRemove } = useBench();
  const { project, grid } = ruler;
  const { rate } = project;
  const [view, setView] = useState<View>('joined');
  const [ribbonRef, ribbon] = useSize<HTMLDivElement>();
  const [stageRef, space] = useSize<HTMLDivElement>();
  const time = useNeedle(player);
  const playing = usePlaying(player);
  const frames = cloneFrames(moment, ruler);
  const frame = Math.min(frames.end - 1, Math.max(frames.start, frameShownAt(rate, time)));
  const layers = useMemo(() => layersOf(snapshot, moment)?.layers ?? [], [snapshot, moment]);
  const { material, fresh } = materialOf(snapshot, moment);
  const outline = outlineInForce(moment, material);
  const { start, end, lands } = frames;
  const showing = useMemo(() => showingOf(view, layers, frame, lands), [view, layers, frame, lands]);

  useEffect(() => {
    const now = frameShownAt(rate, player.time());
    if (now < start || now >= end) player.seek(timeOfFrame(rate, start) + 0.001);
  }, [player, rate, start, end]);
  useEffect(() => {
    player.setLoop({ from: timeOfFrame(rate, start), to: timeOfFrame(rate, end) });
    return () => player.setLoop(null);
  }, [player, rate, start, end]);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (
        event.defaultPrevented ||
        event.ctrlKey ||
        event.metaKey ||
        event.target instanceof HTMLInputElement
      )
        return;
      const chosen = views.find((one) => one.keys === event.key.toUpperCase());
      if (chosen) setView(chosen.id);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);

  const step = (by: number) => {
    player.pause();
    const next = Math.min(end - 1, Math.max(start, frame + by));
    player.seek(timeOfFrame(rate, next) + 0.001);
  };
  const from = barStart(grid, moment.start - 1);
  const to = nextBar(grid, moment.end);
  const layout = passage(from, to, Math.max(200, ribbon.width), 92);
  const picture = placeFrame(space, project);
  const { settings } = moment;

  /** A tap keeps the performer of the take that is looked at, or of the side that is tapped. */
  const tap = (event: MouseEvent) => {
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    const at: Point = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
    const role = view === 'left' || view === 'right' ? view : at[0] < 0.5 ? 'left' : 'right';
    const layer = layers.find((one) => one.id === role);
    if (!layer) return;
    const seconds = sourceTime(layer, Math.max(layer.from, frame));
    const set = { [`slots.${role}.tap`]: { time: seconds, at }, 'settings.seam': null };
    attempt(() => setMoment(store, project.id, moment.id, 'Keep this performer', set));
  };
  const copy = otherSide(settings.first);
  const copyTap = fillOf(moment, copy).tap?.at ?? [material[copy]?.measure?.motion.middle ?? 0.5, 0.5];
  const bar = (position: number) => barAndBeat(grid, position).bar;
  return (
    <Station
      question={question}
      sub={
        <>
          <LiveChoice
            label="Moment"
            value={moment.id}
            options={snapshot.moments.map((one) => ({ value: one.id, text: one.name }))}
            onChange={(id) => go({ moment: id })}
          />{' '}
          · bars {bar(moment.start)} to {bar(moment.end - 0.01)}
        </>
      }
      tools={
        <div role="group" aria-label="What the stage shows" className="flex flex-wrap gap-1">
          {views.map((one) => (
            <button
              key={one.id}
              type="button"
              className="knob"
              aria-pressed={view === one.id}
              title={`${one.text} (${one.keys})`}
              onClick={() => setView(one.id)}
            >
              {one.text}
            </button>
          ))}
        </div>
      }
      side={
        <>
          <Part title="What the bench found">
            {!fresh && <p className="mb-2 text-ink2">The join is being looked for …</p>}
            <Findings findings={findings.build.filter((finding) => finding.where.moment === moment.id)} />
          </Part>
          <TakeNotes moment={moment} />
          <Part title="Keep whom">
            <p className="text-[12px] text-ink2">
              Tap a performer on the picture to say that this one is kept.{' '}
              {fillOf(moment, 'left').tap ? 'Left is tapped.' : 'Left: found by itself.'}{' '}
              {fillOf(moment, 'right').tap ? 'Right is tapped.' : 'Right: found by itself.'}
            </p>
            <div className="mt-2 flex flex-wrap gap-1.5">
              {settings.seam && (
                <button
                  type="button"
                  className="knob"
                  onClick={() =>
                    attempt(() =>
                      setMoment(store, project.id, moment.id, 'Solve the join again', {
                        'settings.seam': null,
                      }),
                    )
                  }
                >
                  Solve the join again
                </button>
              )}
              <button type="button" className="knob" onClick={() => askRemove(moment.id)}>
                Remove the moment
              </button>
            </div>
          </Part>
        </>
      }
    >
      <div
        ref={ribbonRef}
        className="h-[150px] flex-none overflow-x-clip border-b border-line px-0 pt-1 max-sm:overflow-hidden"
      >
        {ribbon.width > 0 && (
          <Ribbon
            layout={layout}
            grid={grid}
            beats
            tall={1.2}
            width={ribbon.width}
            height={146}
            barNumbers
            label="The bars of this moment. Arrow keys move the needle by a beat."
          />
        )}
      </div>
      <div
        ref={stageRef}
        className="relative min-h-[240px] flex-1 overflow-hidden bg-stage max-sm:h-[240px] max-sm:flex-none"
      >
        {space.width > 0 && layers.length > 0 && (
          <Stage frame={picture} showing={showing} label={`${moment.name}, ${view}, frame ${frame}`}>
            <button
              type="button"
              tabIndex={-1}
              aria-label="Tap the performer to keep"
              data-testid="tap"
              className="absolute cursor-crosshair"
              style={picture}
              onClick={tap}
            />
            {view === 'join' && (
              <SeamLine
                frame={picture}
                outline={outline}
                onChange={(seam) =>
                  attempt(() =>
                    setMoment(store, project.id, moment.id, 'Drag the join', { 'settings.seam': seam }),
                  )
                }
              />
            )}
            {(view === 'joined' || view === 'join') && (
              <Thread
                from={xOf(layout, layout.lines[0], moment.lands)}
                frame={picture}
                to={copyTap}
                text={frame < lands ? `copy, ${lands - frame} fr to go` : `copy, since frame ${lands}`}
              />
            )}
          </Stage>
        )}
        {layers.length === 0 && (
          <p className="absolute inset-0 m-auto h-fit w-fit bg-raised px-4 py-3">
            Choose a take for the left and one for the right in the sentence below.
          </p>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-2 border-t border-line bg-ground px-5 py-2 max-sm:px-3">
        <button type="button" className="knob main" onClick={() => void player.toggle()}>
          {playing ? 'Pause' : 'Play'}
        </button>
        <button type="button" className="knob" title="One frame back (,)" onClick={() => step(-1)}>
          − 1 frame
        </button>
        <button type="button" className="knob" title="One frame on (.)" onClick={() => step(1)}>
          + 1 frame
        </button>
        <button
          type="button"
          className="knob"
          onClick={() => {
            player.pause();
            player.seek(timeOfFrame(rate, lands) + 0.001);
          }}
        >
          To the landing
        </button>
        <span className="flex-1" />
        <span className="num" data-testid="frame">
          frame {frame} · {formatTimecode(frame, rate)} · {frame - start + 1} of {end - start}
        </span>
      </div>
      <div className="border-t border-line bg-raised px-5 py-3 max-sm:px-4">
        <MomentSentence moment={moment} ruler={ruler} />
        <span className="sr-only">{`Lands at ${timeOfBeat(grid, moment.lands).toFixed(3)} seconds`}</span>
      </div>
    </Station>
  );
}

/** Findings of the takes that this moment uses. */
function TakeNotes({ moment }: { moment: CloneMoment }) {
  const { findings } = useBench();
  const used = sides.map((side) => fillOf(moment, side).take);
  const notes = findings.match.filter(
    (finding) =>
      finding.where.take &&
      used.includes(finding.where.take) &&
      finding.code !== 'take.still' &&
      finding.code !== 'take.same-light',
  );
  if (notes.length === 0) return null;
  return (
    <Part title="Its takes">
      <Findings findings={notes} />
    </Part>
  );
}
