'use client';
import { useEffect, useMemo, useState } from 'react';
import type { Moment } from '@/core/model/records';
import { plateSlot } from '@/core/model/slots';
import { slotsInUse } from '@/core/recipes/built';
import { invertAffine, mapPoint, type Affine } from '@/core/geometry/affine';
import type { Point } from '@/core/geometry/size';
import { mediaIn } from '@/core/picture/node';
import { barAndBeat, barStart, nextBar, timeOfBeat } from '@/core/time/grid';
import { frameShownAt, timeOfFrame } from '@/core/time/rate';
import { formatTimecode } from '@/core/time/timecode';
import { setMoment } from '@/store/commands/moments';
import { awaitedOf, framesOf, materialOf, movedAt, pictureOf, type Buildable } from '@/store/material';
import { useOffer } from '@/ui/actions/offers';
import { useData, useNeedle, usePlaying, useServices } from '@/ui/bench-context';
import { Choices } from '@/ui/choices';
import { Findings } from '@/ui/findings';
import { LiveChoice } from '@/ui/live-choice';
import { passage, xOf } from '@/ui/ribbon/layout';
import { PlaySpeed } from '@/ui/play-speed';
import { Ribbon } from '@/ui/ribbon/ribbon';
import { Outlines } from '@/ui/stage/outlines';
import { placeFrame, Stage } from '@/ui/stage/stage';
import { filling, useFill } from '@/ui/use-fill';
import { usePhone } from '@/ui/use-phone';
import { useSize } from '@/ui/use-size';
import { Part, Station } from '../station';
import { MomentSentence } from './sentence';
import { AnchorKnots } from './anchor-knots';
import { NoOutline } from './draw/no-outline';
import { ShapeOnStage, ShapeToolKnobs, useShapeTools } from './draw/shape-on-stage';
import { useCompare } from './compare';
import { InstantMarks } from './instant-marks';
import { Framing } from './framing';
import { HiddenPeople } from './hide/hidden-people';
import { HidePad } from './hide/hide-pad';
import { useHiding } from './hide/use-hiding';
import { JoinCurve } from './join-curve';
import { MomentLook } from './moment-look';
import { MomentSounds } from './moment-sounds';
import { KeysLane } from './keys/keys-lane';
import { HandPad } from './keys/hand-pad';
import { useHandKeys } from './keys/use-hand-keys';
import { SmoothCameras } from './smoothing';
import { Thread } from './thread';
import { TapPad } from './tap-pad';
import { useTaps } from './use-taps';
import { useVersions, Versions } from './versions';
import { showingOf, viewKey, viewsIn } from './views';
import { TakeNotes } from './take-notes';

export const question = 'Does it land?';

/** One moment on the bench: its passage of the song, its picture, its sentence, and what was found. */
export function MomentBench({ moment, recipe, ruler }: Buildable & { moment: Moment }) {
  const { store, player, attempt, go, askRemove } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const findings = useData((data) => data.findings);
  const { project, grid } = ruler;
  const { rate } = project;
  const [viewed, setViewed] = useState(recipe.views[0].id);
  const [ribbonRef, ribbon] = useSize<HTMLDivElement>();
  const [stageRef, space] = useSize<HTMLDivElement>();
  const time = useNeedle(player);
  const playing = usePlaying(player);
  const { start, lands, end } = framesOf(snapshot, moment) ?? { start: 0, lands: 0, end: 1 };
  const frame = Math.min(end - 1, Math.max(start, frameShownAt(rate, time)));
  const built = pictureOf(snapshot, moment);
  const tree = built?.tree ?? null;
  const takes = useMemo(() => (tree ? mediaIn(tree) : []), [tree]);
  const { material } = materialOf(snapshot, moment);
  const { missing, ended } = awaitedOf(snapshot, moment);
  const views = useMemo(() => {
    const given = materialOf(snapshot, moment).material;
    return viewsIn(moment, recipe, (slot) =>
      [start, lands - 1].some((one) => recipe.outline(moment, given, ruler, one, slot) !== null),
    );
  }, [snapshot, moment, recipe, ruler, start, lands]);
  const view = views.find(({ id }) => id === viewed) ?? views[0];
  const landing = recipe.landing(moment, ruler, material);
  const shown = view.outline ? (built?.layered ?? null) : tree;
  const showing = useMemo(() => shown && showingOf(view, shown, frame, rate), [view, shown, frame, rate]);
  const outlined = typeof view.outline === 'string' ? view.outline : undefined;
  const outline = recipe.outline(moment, material, ruler, frame, outlined);

  const placing = useMemo(() => ({ anchors: recipe.anchors(moment, ruler), ruler }), [recipe, moment, ruler]);
  const [keying, setKeying] = useState(false);
  const hand = useHandKeys(moment, built?.layered ?? null, placing, frame);
  const versions = useVersions(moment);
  // What is moved by hand as a whole takes along whatever is pointed at in it.
  const moved = useMemo(() => movedAt(snapshot, moment, frame), [snapshot, moment, frame]);
  const through = ([x, y]: Point, map: Affine): Point => {
    const [across, down] = mapPoint(map, [x * project.width, y * project.height]);
    return [across / project.width, down / project.height];
  };
  const compare = useCompare({ views, view, tree, frame, span: { start, end }, rate, versions });

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
          keys: [viewKey(index)?.toLowerCase() ?? []].flat(),
          run: () => setViewed(id),
        })),
      [views],
    ),
  );

  const goTo = (wanted: number) => {
    player.pause();
    player.seek(timeOfFrame(rate, Math.min(end - 1, Math.max(start, wanted))) + 0.001);
  };
  const step = (by: number) => goTo(frame + by);
  const from = barStart(grid, moment.start - 1);
  const to = nextBar(grid, moment.end);
  const layout = passage(from, to, Math.max(200, ribbon.width), 92);
  const picture = placeFrame(space, project);
  const { filled, fill } = useFill(false);
  const shapeTools = useShapeTools();
  const phone = usePhone();

  const filmed = slotsInUse(moment, recipe).filter(({ key }) => key !== plateSlot);
  const lacking = filmed.filter(({ key }) => !material.takes[key]);
  const hiding = useHiding();
  const pointing = {
    pointAt: (pointed: Point) => (view.alone ? pointed : through(pointed, invertAffine(moved))),
    placeOf: (at: Point) => (view.alone ? at : through(at, moved)),
  };
  const taps = useTaps({
    moment,
    recipe,
    view,
    material,
    takes,
    frame,
    ruler,
    ...pointing,
  });
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
              title: viewKey(index) ? `${title} (${viewKey(index)})` : title,
            }))}
            pressed={(id) => view.id === id}
            onPress={setViewed}
            strip
          />
        )
      }
      side={
        <>
          <Part title="What the bench found">
            {missing.length > 0 && <p className="mb-2 text-ink2">Being worked out: {missing.join(', ')} …</p>}
            {ended.map(({ title, why }) => (
              <p key={title} data-ended className="mb-2">
                Not worked out: {title}. {why}
              </p>
            ))}
            <Findings findings={findings.build.filter((finding) => finding.where.moment === moment.id)} />
          </Part>
          <JoinCurve answers={material.solved} start={start} rate={rate} />
          <TakeNotes moment={moment} recipe={recipe} slots={filmed.map(({ key }) => key)} shown={takes} />
          {taps.part}
          <InstantMarks moment={moment} recipe={recipe} ruler={ruler} material={material} showing={showing} />
          <HiddenPeople moment={moment} takes={material.takes} hiding={hiding} />
          <SmoothCameras moment={moment} recipe={recipe} material={material} />
          <Framing moment={moment} recipe={recipe} ruler={ruler} material={material} />
          <MomentLook moment={moment} />
          <Versions moment={moment} versions={versions} />
          <MomentSounds moment={moment} recipe={recipe} ruler={ruler} />
          <div className="flex flex-wrap gap-1.5">
            {outline?.state === 'drawn' && (
              <button
                type="button"
                className="knob"
                onClick={() =>
                  attempt(() =>
                    setMoment(store, project.id, moment.id, outline.again ?? `Solve ${outline.title} again`, {
                      [`settings.${outline.setting}`]: null,
                    }),
                  )
                }
              >
                {outline.again ?? `Solve ${outline.title} again`}
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
            <AnchorKnots moment={moment} anchors={placing.anchors} ruler={ruler} layout={layout} />
          </>
        )}
      </div>
      {keying && ribbon.width > 0 && (
        <KeysLane moment={moment} hand={hand} placing={placing} layout={layout} frame={frame} />
      )}
      <div className={filled ? `${filling} flex flex-col` : 'flex flex-1 flex-col phone:flex-none'}>
        <div
          ref={stageRef}
          className={`relative flex-1 overflow-hidden bg-stage ${filled ? 'min-h-0' : 'min-h-[240px] phone:h-[240px] phone:flex-none low:h-[calc(100dvh-130px)]'}`}
        >
          {space.width > 0 && takes.length > 0 && showing && (
            <Stage
              frame={picture}
              showing={showing}
              second={compare.second}
              label={`${moment.name}, ${view.id}, frame ${frame}`}
            >
              {compare.edges && (
                <Outlines tree={showing.tree} at={showing.frame} frame={picture} delivery={project} />
              )}
              {/* Where the join's points are dragged, a tap beside one is no tap on a performer. */}
              {keying && !view.alone && !view.outline && <HandPad frame={picture} hand={hand} />}
              {hiding.wanted && !view.outline && !showing.against && (
                <HidePad
                  moment={moment}
                  project={project}
                  showing={showing}
                  frame={picture}
                  hiding={hiding}
                  {...pointing}
                />
              )}
              {taps.tap && !view.outline && !keying && !hiding.wanted && (
                <TapPad frame={picture} label={taps.label} marks={taps.marks} onTap={taps.tap} />
              )}
              {view.outline && outline && (
                <ShapeOnStage
                  moment={moment}
                  project={project}
                  outline={outline}
                  frame={picture}
                  tools={shapeTools}
                />
              )}
              {!view.alone && typeof view.outline !== 'string' && landing && (
                <Thread
                  from={xOf(layout, layout.lines[0], moment.lands)}
                  frame={picture}
                  to={through(landing.at, moved)}
                  text={`${landing.who}, ${frame < lands ? `${lands - frame} fr to go` : `since frame ${lands}`}`}
                />
              )}
            </Stage>
          )}
          {takes.length > 0 && showing && !phone && (
            <div className="absolute bottom-2 left-2 bg-raised/85 px-3 py-1.5">{compare.controls}</div>
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
        {view.outline && outline && (
          <ShapeToolKnobs moment={moment} project={project} outline={outline} tools={shapeTools} />
        )}
        {view.outline && !outline && (
          <NoOutline
            frame={frame}
            span={{ start, end }}
            isOutlined={(one) => recipe.outline(moment, material, ruler, one, outlined) !== null}
            onGo={goTo}
          />
        )}
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
          <button type="button" className="knob" aria-pressed={keying} onClick={() => setKeying(!keying)}>
            Keys by hand
          </button>
          {phone && compare.controls}
          <span className="flex-1" />
          <span className="num" data-testid="frame">
            frame {frame} · {formatTimecode(frame, rate)} · {frame - start + 1} of {end - start}
          </span>
        </div>
      </div>
      <div className="border-t border-line bg-raised px-5 py-3 phone:order-2 phone:px-4">
        <MomentSentence moment={moment} recipe={recipe} ruler={ruler} material={material} />
        <span className="sr-only">{`Lands at ${timeOfBeat(grid, moment.lands).toFixed(3)} seconds`}</span>
      </div>
    </Station>
  );
}
