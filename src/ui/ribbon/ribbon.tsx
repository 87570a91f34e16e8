'use client';
import {
  useCallback,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
} from 'react';
import { byGravity } from '@/core/finding/finding';
import type { Moment } from '@/core/model/records';
import { beatOfTime, timeOfBeat, type BeatGrid } from '@/core/time/grid';
import { frameOfTime, timeOfFrame } from '@/core/time/rate';
import { moveSpan, type Span, type SpanPart } from '@/core/time/span';
import { copyMoment, createMoment, moveMoment } from '@/store/commands/moments';
import { firstOfBarAt, moveBeatTo } from '@/store/commands/song';
import { songMeasure } from '@/store/snapshot';
import { useBench } from '../bench-context';
import { useGesture } from '../gesture';
import { Fabric } from './fabric';
import { patchBox, piecesOf, positionAt, type RibbonLayout } from './layout';
import { Needle } from './needle';
import { Patch } from './patches';
import { Sections } from './sections';

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
  const bench = useBench();
  const { store, snapshot, player, moment: chosen, go, attempt, askRemove } = bench;
  const [held, setHeld] = useState<Held | null>(null);
  const asOne = useGesture();
  const svg = useRef<SVGSVGElement>(null);
  const waiting = useRef<ReturnType<typeof setTimeout> | null>(null);
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

  const grab = (moment: Moment | null, part: Held['part'], event: PointerEvent) => {
    event.stopPropagation();
    const exact = part === 'beat' ? Math.round(at(event)) : at(event);
    const from = hold(exact, event.altKey);
    const begin = () => setHeld({ moment, part, from, now: from, free: event.altKey });
    const { pointerId } = event;
    svg.current?.setPointerCapture(pointerId);
    // A finger scrolls; held for a moment it takes hold.
    if (event.pointerType === 'touch' && part !== 'lands') waiting.current = setTimeout(begin, 350);
    else begin();
  };
  const move = (event: PointerEvent) => {
    if (!held) return;
    const now = held.part === 'beat' ? at(event) : hold(at(event), event.altKey);
    setHeld({ ...held, now, free: event.altKey });
  };
  const release = (event: PointerEvent) => {
    if (waiting.current) clearTimeout(waiting.current);
    waiting.current = null;
    const was = held;
    setHeld(null);
    if (!was || was.from === was.now) {
      if (!was?.moment) player.seek(timeOfBeat(grid, at(event)));
      if (was?.moment) go({ moment: was.moment.id });
      return;
    }
    if (was.part === 'beat') {
      attempt(() => moveBeatTo(store, snapshot.project.id, was.from, timeOfBeat(grid, was.now)));
    } else if (was.part === 'new') {
      const [start, end] = [Math.min(was.from, was.now), Math.max(was.from, was.now)];
      attempt(async () => go({ moment: await createMoment(store, snapshot.project.id, start, end) }));
    } else if (was.moment) {
      const { moment, part } = was;
      attempt(() => moveMoment(store, snapshot.project.id, moment.id, part, was.now - was.from));
    }
  };

  const patchKey = (moment: Moment, event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by !== undefined) {
      const part: SpanPart = event.shiftKey ? 'end' : event.altKey ? 'lands' : 'body';
      asOne(event.nativeEvent, () =>
        attempt(() => moveMoment(store, snapshot.project.id, moment.id, part, by)),
      );
    } else if (event.key === 'Enter' || event.key === ' ') go({ moment: moment.id });
    else if (event.key === 'Delete' || event.key === 'Backspace') {
      askRemove(moment.id);
    } else if (event.key === 'c' && !event.ctrlKey) {
      attempt(async () => go({ moment: await copyMoment(store, snapshot.project.id, moment.id) }));
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
  const latest = useRef({ grab, patchKey, go });
  useLayoutEffect(() => {
    latest.current = { grab, patchKey, go };
  });
  const onGrab = useCallback(
    (moment: Moment, part: SpanPart, event: PointerEvent) => latest.current.grab(moment, part, event),
    [],
  );
  const onKey = useCallback(
    (moment: Moment, event: KeyboardEvent) => latest.current.patchKey(moment, event),
    [],
  );
  const onSelect = useCallback((moment: Moment) => latest.current.go({ moment: moment.id }), []);

  const drawn =
    held?.part === 'new' && held.from !== held.now
      ? piecesOf(layout, Math.min(held.from, held.now), Math.max(held.from, held.now))
      : [];
  const gravityOf = (moment: Moment) =>
    byGravity(bench.findings.build.filter((finding) => finding.where.moment === moment.id))[0]?.severity ??
    'fine';
  return (
    <svg
      ref={svg}
      width={width}
      height={height}
      role="application"
      aria-label={label}
      tabIndex={0}
      className="block touch-pan-y select-none overflow-visible"
      onPointerDown={(event) => grab(null, setting === 'beats' ? 'beat' : 'new', event)}
      onDoubleClick={(event) => {
        if (setting === 'beats')
          attempt(() => firstOfBarAt(store, snapshot.project.id, timeOfBeat(grid, at(event))));
      }}
      onPointerMove={move}
      onPointerUp={release}
      onPointerCancel={() => setHeld(null)}
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
          onGrab={onGrab}
          onKey={onKey}
          onSelect={onSelect}
        />
      ))}
      <Needle player={player} layout={layout} grid={grid} />
    </svg>
  );
}
