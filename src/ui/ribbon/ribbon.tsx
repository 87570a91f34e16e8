'use client';
import { useDrag } from '@use-gesture/react';
import { useCallback, useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { byGravity } from '@/core/finding/finding';
import type { Moment } from '@/core/model/records';
import { beatOfTime, timeOfBeat, type BeatGrid } from '@/core/time/grid';
import { frameOfTime, timeOfFrame } from '@/core/time/rate';
import { moveSpan, type Span, type SpanPart } from '@/core/time/span';
import { copyMoment, createMoment, moveMoment } from '@/store/commands/moments';
import { firstOfBarAt, moveBeatTo } from '@/store/commands/song';
import { songMeasure } from '@/store/snapshot';
import { useData, useServices } from '../bench-context';
import { gripOf, type DragState } from '../drag-state';
import { useGesture } from '../gesture';
import { Fabric } from './fabric';
import { patchBox, piecesOf, positionAt, type RibbonLayout } from './layout';
import { Needle } from './needle';
import { Patch } from './patches';
import { Sections } from './sections';
import { stepOfKey } from '@/ui/arrow-keys';

type Held = {
  moment: Moment | null;
  part: SpanPart | 'new' | 'beat';
  from: number;
  now: number;
  free: boolean;
};

const none = new Float32Array(0);

/** The span of a moment, with the part of it that is held where it is held. */
const heldSpan = (moment: Moment, held: Held | null): Span =>
  held?.moment?.id === moment.id && held.part !== 'new' && held.part !== 'beat'
    ? moveSpan(moment, held.part, held.now - held.from)
    : { start: moment.start, lands: moment.lands, end: moment.end };

/**
 * The song with its moments: drag over bars to make one, drag it, its ends or its pin; hold Alt for frames
 * instead of beats. Press to move the needle.
 */
export function Ribbon({
  layout,
  grid,
  beats,
  tall,
  barNumbers,
  height,
  width,
  label,
  setting = 'moments',
}: {
  layout: RibbonLayout;
  grid: BeatGrid;
  beats: boolean;
  tall: number;
  barNumbers?: boolean;
  height: number;
  width: number;
  label: string;
  /** what dragging on the fabric does: makes moments, or moves single beats */
  setting?: 'moments' | 'beats';
}) {
  const { store, player, go, attempt, askRemove } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const chosen = useData((data) => data.moment);
  const findings = useData((data) => data.findings);
  const [held, setHeld] = useState<Held | null>(null);
  const asOne = useGesture();
  const svg = useRef<SVGSVGElement>(null);
  const measure = songMeasure(snapshot);
  const rate = snapshot.project.rate;
  const hits = useMemo(() => measure?.beats.hits ?? [], [measure]);

  const at = (event: { clientX: number; clientY: number }): number => {
    const box = svg.current?.getBoundingClientRect();
    return positionAt(layout, event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0));
  };
  /** Positions hold to beats, or to frames where asked. */
  const hold = (position: number, free: boolean): number =>
    free
      ? beatOfTime(grid, timeOfFrame(rate, frameOfTime(rate, timeOfBeat(grid, position))))
      : Math.round(position);

  /** What lies under a press. */
  const under = (target: EventTarget | null): Pick<Held, 'moment' | 'part'> => {
    const element = target instanceof Element ? target : null;
    const id = element?.closest<SVGElement>('[data-moment]')?.dataset.moment;
    const part = element?.closest<SVGElement>('[data-part]')?.dataset.part as SpanPart | undefined;
    const moment = snapshot.moments.find((one) => one.id === id) ?? null;
    return { moment, part: moment ? (part ?? 'body') : setting === 'beats' ? 'beat' : 'new' };
  };
  /** Where the held part comes to lie: it keeps its distance from the pointer. */
  const dragged = (
    { moment, part }: Pick<Held, 'moment' | 'part'>,
    pressed: number,
    now: number,
    free: boolean,
  ) => {
    if (part === 'beat') return { from: Math.round(pressed), now };
    if (!moment || part === 'new') return { from: hold(pressed, free), now: hold(now, free) };
    const edge = part === 'body' ? moment.start : moment[part];
    return { from: edge, now: hold(edge + now - pressed, free) };
  };
  const commit = (was: Held) => {
    if (was.from === was.now) return;
    const project = snapshot.project.id;
    const { moment, part, from, now } = was;
    if (part === 'beat') void attempt(() => moveBeatTo(store, project, from, timeOfBeat(grid, now)));
    else if (part === 'new')
      void attempt(async () =>
        go({ moment: await createMoment(store, project, Math.min(from, now), Math.max(from, now)) }),
      );
    else if (moment) void attempt(() => moveMoment(store, project, moment.id, part, now - from));
  };
  const drag = useDrag(
    ({
      initial,
      xy,
      tap,
      last,
      event,
      altKey,
      memo = under(event.target),
    }: DragState<Pick<Held, 'moment' | 'part'>>) => {
      const [pressed, now] = [initial, xy].map(([clientX, clientY]) => at({ clientX, clientY }));
      if (tap) {
        if (memo.moment) go({ moment: memo.moment.id });
        else player.seek(timeOfBeat(grid, now));
        return undefined;
      }
      const next = { ...memo, ...dragged(memo, pressed, now, altKey), free: altKey };
      const grip = gripOf({ last, event });
      setHeld(grip === 'held' ? next : null);
      if (grip === 'done') commit(next);
      return memo;
    },
    // A finger that moves up or down scrolls; across, or held for a moment, it takes hold.
    { filterTaps: true, threshold: 6, preventScroll: 350, preventScrollAxis: 'y', pointer: { keys: false } },
  );

  const patchKey = (moment: Moment, event: KeyboardEvent) => {
    const by = stepOfKey(event.key);
    if (by !== undefined) {
      const part: SpanPart = event.shiftKey ? 'end' : event.altKey ? 'lands' : 'body';
      void asOne(event.nativeEvent, () =>
        attempt(() => moveMoment(store, snapshot.project.id, moment.id, part, by)),
      );
    } else if (event.key === 'Enter' || event.key === ' ') go({ moment: moment.id });
    else if (event.key === 'Delete' || event.key === 'Backspace') {
      askRemove(moment.id);
    } else if (event.key === 'c' && !event.ctrlKey) {
      void attempt(async () => go({ moment: await copyMoment(store, snapshot.project.id, moment.id) }));
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };

  const fabricKey = (event: KeyboardEvent) => {
    const now = beatOfTime(grid, player.time());
    const by = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -layout.perBar, ArrowDown: layout.perBar }[event.key];
    if (by === undefined) return;
    player.seek(timeOfBeat(grid, Math.round(now) + by));
    event.preventDefault();
    event.stopPropagation();
  };

  // Patches are many and seldom change: their handlers stay the same, so that only the held one is drawn anew.
  const latest = useRef({ patchKey });
  useLayoutEffect(() => {
    latest.current = { patchKey };
  });
  const onKey = useCallback(
    (moment: Moment, event: KeyboardEvent) => latest.current.patchKey(moment, event),
    [],
  );

  const drawn =
    held?.part === 'new' && held.from !== held.now
      ? piecesOf(layout, Math.min(held.from, held.now), Math.max(held.from, held.now))
      : [];
  const gravityOf = (moment: Moment) =>
    byGravity(findings.build.filter((finding) => finding.where.moment === moment.id))[0]?.severity ?? 'fine';
  return (
    <svg
      ref={svg}
      width={width}
      height={height}
      role="application"
      aria-label={label}
      tabIndex={0}
      className="block touch-pan-y overflow-visible select-none"
      {...drag()}
      onDoubleClick={(event) => {
        if (setting === 'beats')
          void attempt(() => firstOfBarAt(store, snapshot.project.id, timeOfBeat(grid, at(event))));
      }}
      onKeyDown={fabricKey}
      data-ribbon=""
      data-held={held?.part}
    >
      <Fabric
        layout={layout}
        grid={grid}
        beats={beats}
        peaks={measure?.song.peaks ?? none}
        perSecond={measure?.song.perSecond ?? 80}
        hits={hits}
        hitsAbove={snapshot.song?.hitsAbove ?? 0.55}
        tall={tall}
        barNumbers={barNumbers}
      />
      <Sections
        layout={layout}
        sections={snapshot.sections}
        cues={snapshot.cues}
        end={layout.lines[layout.lines.length - 1].to}
      />
      {held?.part === 'beat' &&
        piecesOf(layout, held.now, held.now + 0.001).map(({ line, x0 }) => (
          <path
            key={line.from}
            d={`M${x0} ${line.top}v${layout.height}`}
            stroke="var(--madder)"
            strokeWidth="2"
            strokeDasharray="3 3"
          />
        ))}
      {drawn.map(({ line, x0, x1 }) => (
        <rect
          key={line.from}
          x={x0}
          y={line.top + patchBox(layout.height).top}
          width={x1 - x0}
          height={patchBox(layout.height).deep}
          fill="var(--woad)"
          opacity="0.35"
        />
      ))}
      {snapshot.moments.map((moment) => (
        <Patch
          key={moment.id}
          layout={layout}
          grid={grid}
          moment={moment}
          span={heldSpan(moment, held)}
          gravity={gravityOf(moment)}
          selected={chosen?.id === moment.id}
          onKey={onKey}
        />
      ))}
      <Needle player={player} layout={layout} grid={grid} />
    </svg>
  );
}
