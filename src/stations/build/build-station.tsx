'use client';
import { useEffect, useMemo, useState } from 'react';
import type { Moment } from '@/core/model/records';
import { fillOf, plateSlot, tapsOf } from '@/core/model/slots';
import { builtTitles, laysOverPlate, slotsInUse, usualKind } from '@/core/recipes/built';
import { calledOf, filmOf } from '@/core/recipes/films';
import type { Point } from '@/core/geometry/size';
import { lastShown, mediaIn, secondsAt, type MediaNode } from '@/core/picture/node';
import type { Recipe } from '@/core/recipes/recipe';
import { againstPlate, beginsAfter } from '@/core/footage/take-words';
import { barAndBeat, barStart, nextBar, timeOfBeat } from '@/core/time/grid';
import { frameShownAt, timeOfFrame } from '@/core/time/rate';
import { formatTimecode } from '@/core/time/timecode';
import { createMoment, keepPerformer, keepWhoeverIsFound, setMoment } from '@/store/commands/moments';
import { buildable, framesOf, materialOf, pictureOf, type Buildable } from '@/store/material';
import { rulerOf } from '@/store/snapshot';
import { useOffer } from '@/ui/actions/offers';
import { useData, useNeedle, usePlaying, useServices } from '@/ui/bench-context';
import { Choices } from '@/ui/choices';
import { Findings } from '@/ui/findings';
import { LiveChoice } from '@/ui/live-choice';
import { passage, xOf } from '@/ui/ribbon/layout';
import { PlaySpeed } from '@/ui/play-speed';
import { Ribbon } from '@/ui/ribbon/ribbon';
import { SeamLine } from '@/ui/stage/seam-line';
import { placeFrame, Stage } from '@/ui/stage/stage';
import { filling, useFill } from '@/ui/use-fill';
import { useSize } from '@/ui/use-size';
import { Empty, Part, Station } from '../station';
import { MomentSentence } from './sentence';
import { AnchorKnots } from './anchor-knots';
import { InstantMarks } from './instant-marks';
import { Framing } from './framing';
import { JoinCurve } from './join-curve';
import { MomentSounds } from './moment-sounds';
import { Thread } from './thread';
import { TapPad } from './tap-pad';
import { showingOf, viewKeys, viewsIn } from './views';

const question = 'Does it land?';

/** One moment: its passage of the song, its picture, its sentence. */
export function BuildStation() {
  const { store, attempt, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const moment = useData((data) => data.moment);
  const builtMoment = useData((data) => data.builtMoment);
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
            Drag over some bars on the song. Or begin over bars 9 to 11; what lands, lands a bar later, on the
            beat.
          </p>
          <div className="flex gap-2">
            <button
              type="button"
              className="knob main"
              onClick={() =>
                attempt(async () =>
                  go({ moment: await createMoment(store, snapshot.project.id, 8 * perBar, 11 * perBar) }),
                )
              }
            >
              {calledOf(usualKind)} on bars 9 to 11
            </button>
            <button type="button" className="knob" onClick={() => go({ station: 'song' })}>
              To the song
            </button>
          </div>
        </Empty>
      </Station>
    );
  }
  const able = buildable(snapshot, moment);
  if (!able) {
    return (
      <Station question={question}>
        <Empty title={`${moment.name} is planned, not built here yet`}>
          <p>
            So far the bench builds: {builtTitles().join(', ').toLowerCase()}. For a{' '}
            {filmOf(moment.recipe).title.toLowerCase()} it says what to film, how long and in what order; put
            it together in your editor.
          </p>
          <div className="flex gap-2">
            <button type="button" className="knob main" onClick={() => go({ station: 'plan' })}>
              To the plan
            </button>
            {builtMoment && (
              <button type="button" className="knob" onClick={() => go({ moment: builtMoment.id })}>
                To {builtMoment.name}
              </button>
            )}
          </div>
        </Empty>
      </Station>
    );
  }
  return <BuildMoment key={moment.id} moment={moment} {...able} />;
}

function BuildMoment({ moment, recipe, ruler }: Buildable & { moment: Moment }) {
  const { store, player, attempt, go, askRemove } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const findings = useData((data) => data.findings);
  const { project, grid } = ruler;
  const { rate } = project;
  const views = useMemo(() => viewsIn(moment, recipe), [moment, recipe]);
  const [viewed, setViewed] = useState(views[0].id);
  const view = views.find(({ id }) => id === viewed) ?? views[0];
  const [ribbonRef, ribbon] = useSize<HTMLDivElement>();
  const [stageRef, space] = useSize<HTMLDivElement>();
  const time = useNeedle(player);
  const playing = usePlaying(player);
  const { start, lands, end } = framesOf(snapshot, moment) ?? { start: 0, lands: 0, end: 1 };
  const frame = Math.min(end - 1, Math.max(start, frameShownAt(rate, time)));
  const tree = useMemo(() => pictureOf(snapshot, moment)?.tree ?? null, [snapshot, moment]);
  const takes = useMemo(() => (tree ? mediaIn(tree) : []), [tree]);
  const { material, waiting, missing } = materialOf(snapshot, moment);
  const outline = recipe.outline(moment, material);
  const landing = recipe.landing(moment, ruler, material);
  const showing = useMemo(() => tree && showingOf(view, tree, frame, rate), [view, tree, frame, rate]);

  useEffect(() => {
    const now = frameShownAt(rate, player.time());
    if (now < start || now >= end) player.seek(timeOfFrame(rate, start) + 0.001);
  }, [player, rate, start, end]);
  useEffect(() => {
    player.setLoop({ from: timeOfFrame(rate, start), to: timeOfFrame(rate, end) });
    return () => player.setLoop(null);
  }, [player, rate, start, end]);
  useOffer(
    useMemo(
      () =>
        views.map(({ id, title }, index) => ({
          id: `view ${id}`,
          text: `Show: ${title}`,
          scope: 'picture' as const,
          keys: [viewKeys[index].toLowerCase()],
          run: () => setViewed(id),
        })),
      [views],
    ),
  );

  const step = (by: number) => {
    player.pause();
    const next = Math.min(end - 1, Math.max(start, frame + by));
    player.seek(timeOfFrame(rate, next) + 0.001);
  };
  const from = barStart(grid, moment.start - 1);
  const to = nextBar(grid, moment.end);
  const layout = passage(from, to, Math.max(200, ribbon.width), 92);
  const picture = placeFrame(space, project);
  const { filled, fill } = useFill(false);

  const filmed = slotsInUse(moment, recipe).filter(({ key }) => key !== plateSlot);
  const lacking = filmed.filter(({ key }) => !material.takes[key]);
  const kept = slotsInUse(moment, recipe).filter(({ keeps }) => keeps);
  /** A tap keeps the performer of the take that is looked at, or of the part that is tapped. */
  const tap = (at: Point) => {
    const slot = kept.find(({ key }) => key === view.alone)?.key ?? recipe.slotAt(at);
    const node = takes.find((one) => one.id === slot);
    if (!node || !slot) return;
    const seconds = secondsAt(node, Math.max(node.from, frame));
    void attempt(() => keepPerformer(store, project.id, moment.id, slot, { time: seconds, at }));
  };
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
        views.length > 1 && (
          <Choices
            label="What the stage shows"
            options={views.map(({ id, title }, index) => ({
              id,
              text: title,
              title: `${title} (${viewKeys[index]})`,
            }))}
            pressed={(id) => view.id === id}
            onPress={setViewed}
          />
        )
      }
      side={
        <>
          <Part title="What the bench found">
            {waiting && <p className="mb-2 text-ink2">Being worked out: {missing.join(', ')} …</p>}
            <Findings findings={findings.build.filter((finding) => finding.where.moment === moment.id)} />
          </Part>
          <JoinCurve answers={material.solved} start={start} rate={rate} />
          <TakeNotes moment={moment} recipe={recipe} slots={filmed.map(({ key }) => key)} shown={takes} />
          {kept.length > 0 && (
            <Part title="Whom to keep">
              <p className="text-[12px] text-ink2">
                Tap a performer on the picture to say that this one is kept, and others after them; tap again
                to let them go.
                {kept.map(({ key, title }) => ` ${sayKept(title, tapsOf(fillOf(moment, key)).length)}`)}
              </p>
              <div className="mt-1.5 flex flex-wrap gap-1.5">
                {kept
                  .filter(({ key }) => tapsOf(fillOf(moment, key)).length > 0)
                  .map(({ key, title }) => (
                    <button
                      key={key}
                      type="button"
                      className="knob"
                      onClick={() => attempt(() => keepWhoeverIsFound(store, project.id, moment.id, key))}
                    >
                      {title}: let the bench find them
                    </button>
                  ))}
              </div>
            </Part>
          )}
          <InstantMarks moment={moment} recipe={recipe} ruler={ruler} material={material} showing={showing} />
          <Framing moment={moment} recipe={recipe} ruler={ruler} material={material} />
          <MomentSounds moment={moment} recipe={recipe} ruler={ruler} />
          <div className="flex flex-wrap gap-1.5">
            {outline?.state === 'drawn' && (
              <button
                type="button"
                className="knob"
                onClick={() =>
                  attempt(() =>
                    setMoment(store, project.id, moment.id, `Solve ${outline.title} again`, {
                      [`settings.${outline.setting}`]: null,
                    }),
                  )
                }
              >
                Solve {outline.title} again
              </button>
            )}
            <button type="button" className="knob" onClick={() => askRemove(moment.id)}>
              Remove the moment
            </button>
          </div>
        </>
      }
    >
      <div
        ref={ribbonRef}
        className="relative h-[150px] flex-none overflow-x-clip border-b border-line px-0 pt-1 phone:overflow-hidden"
      >
        {ribbon.width > 0 && (
          <>
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
            <AnchorKnots
              moment={moment}
              anchors={recipe.anchors(moment, ruler)}
              ruler={ruler}
              layout={layout}
            />
          </>
        )}
      </div>
      <div className={filled ? `${filling} flex flex-col` : 'flex flex-1 flex-col phone:flex-none'}>
        <div
          ref={stageRef}
          className={`relative flex-1 overflow-hidden bg-stage ${filled ? 'min-h-0' : 'min-h-[240px] phone:h-[240px] phone:flex-none low:h-[calc(100dvh-130px)]'}`}
        >
          {space.width > 0 && takes.length > 0 && showing && (
            <Stage frame={picture} showing={showing} label={`${moment.name}, ${view.id}, frame ${frame}`}>
              {/* Where the join's points are dragged, a tap beside one is no tap on a performer. */}
              {kept.length > 0 && !view.outline && <TapPad frame={picture} onTap={tap} />}
              {view.outline && outline && (
                <SeamLine
                  frame={picture}
                  rings={outline.rings}
                  title={outline.title}
                  onChange={(points) =>
                    attempt(() =>
                      setMoment(store, project.id, moment.id, `Drag ${outline.title}`, {
                        [`settings.${outline.setting}`]: points,
                      }),
                    )
                  }
                />
              )}
              {!view.alone && landing && (
                <Thread
                  from={xOf(layout, layout.lines[0], moment.lands)}
                  frame={picture}
                  to={landing.at}
                  text={`${landing.who}, ${frame < lands ? `${lands - frame} fr to go` : `since frame ${lands}`}`}
                />
              )}
            </Stage>
          )}
          {(takes.length === 0 || !showing) && (
            <p className="absolute inset-0 m-auto h-fit w-fit bg-raised px-4 py-3">
              {takes.length > 0 && view.alone
                ? `There is no ${view.title.toLowerCase()} in this moment yet.`
                : lacking.length > 0
                  ? `Choose a take for ${lacking.map(({ title }) => `the ${title}`).join(' and ')} in the sentence below.`
                  : 'The takes are not measured yet. The picture comes with that.'}
            </p>
          )}
        </div>
        <div className="flex flex-wrap items-center gap-2 border-t border-line bg-ground px-5 py-2 phone:px-3">
          <button type="button" className="knob main" onClick={() => void player.toggle()}>
            {playing ? 'Pause' : 'Play'}
          </button>
          <PlaySpeed />
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
          <button type="button" className="knob" aria-pressed={filled} onClick={() => fill(!filled)}>
            {filled ? 'Leave full screen' : 'Fill the screen'}
          </button>
          <span className="flex-1" />
          <span className="num" data-testid="frame">
            frame {frame} · {formatTimecode(frame, rate)} · {frame - start + 1} of {end - start}
          </span>
        </div>
      </div>
      <div className="border-t border-line bg-raised px-5 py-3 phone:px-4">
        <MomentSentence moment={moment} recipe={recipe} ruler={ruler} material={material} />
        <span className="sr-only">{`Lands at ${timeOfBeat(grid, moment.lands).toFixed(3)} seconds`}</span>
      </div>
    </Station>
  );
}

const sayKept = (title: string, tapped: number): string => {
  const name = title[0].toUpperCase() + title.slice(1);
  if (tapped === 0) return `${name}: whom the bench finds.`;
  return tapped === 1 ? `${name} is tapped.` : `${name}: ${tapped} are tapped.`;
};

/** Findings of the takes that this moment uses, as far as they concern what it shows of them. */
function TakeNotes({
  moment,
  recipe,
  slots,
  shown,
}: {
  moment: Moment;
  recipe: Recipe;
  slots: string[];
  shown: readonly MediaNode[];
}) {
  const findings = useData((data) => data.findings);
  const takes = useData((data) => data.snapshot.takes);
  const used = slots.map((slot) => fillOf(moment, slot).take);
  const plain = [
    'take.still',
    'take.same-light',
    ...(laysOverPlate(recipe) ? [] : againstPlate),
    // What the frame shows is said of the moment, whose frame can be pushed.
    'take.cropped',
  ];
  const notes = findings.match.filter((finding) => {
    const take = takes.find(({ id }) => id === finding.where.take);
    if (!take || !used.includes(take.id) || plain.includes(finding.code)) return false;
    return shown.length === 0 || !beginsAfter(finding, lastShown(shown, take.media));
  });
  if (notes.length === 0) return null;
  return (
    <Part title="Its takes">
      <Findings findings={notes} />
    </Part>
  );
}
