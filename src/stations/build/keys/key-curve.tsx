'use client';
import { useDrag } from '@use-gesture/react';
import { useState, type KeyboardEvent } from 'react';
import type { Placing } from '@/core/hand/edit';
import { handValues, type HandKey } from '@/core/hand/schema';
import { trackOfKeys, type PlacedKey } from '@/core/hand/track';
import { valueAt, type Track } from '@/core/motion/keyframes';
import { beatOfTime, timeOfBeat } from '@/core/time/grid';
import { frameOfTime, perSecond, timeOfFrame } from '@/core/time/rate';
import { wayOfKey } from '@/ui/arrow-keys';
import { gripOf, type DragState } from '@/ui/drag-state';
import { useGesture } from '@/ui/gesture';
import { positionAt, xOf, type RibbonLayout } from '@/ui/ribbon/layout';
import type { Look } from './keys-lane';
import type { HandKeysHere } from './use-hand-keys';

const height = 92;
const air = 14;

type Held = { index: number; frame: number; value: number };
type Handle = 'leaves' | 'arrives';

/** The curve of what is keyed over the beats of the moment. Keys are dragged, or moved by arrow keys. */
export function KeyCurve({
  hand,
  placing,
  layout,
  frame,
  look,
}: {
  hand: HandKeysHere;
  placing: Placing;
  layout: RibbonLayout;
  frame: number;
  look: Look;
}) {
  const { grid, project } = placing.ruler;
  const { rate } = project;
  const asOne = useGesture();
  const [held, setHeld] = useState<Held | null>(null);
  const [bending, setBending] = useState<{ index: number; ease: HandKey['ease'] } | null>(null);
  const [line] = layout.lines;
  const { rest, min, max, step } = handValues[hand.value];
  const keys = hand.placed
    .map((key): PlacedKey => {
      const moved = held?.index === key.index ? { ...key, ...held } : key;
      return bending?.index === key.index ? { ...moved, ease: bending.ease } : moved;
    })
    .sort((one, other) => one.frame - other.frame);
  const track: Track | null = keys.length > 0 ? trackOfKeys(keys, (said) => said) : null;

  const xOfFrame = (at: number) => xOf(layout, line, beatOfTime(grid, timeOfFrame(rate, at)));
  const frameAtX = (x: number) => timeOfBeat(grid, positionAt(layout, x, line.top)) * perSecond(rate);
  const speedAt = (at: number) =>
    track ? (valueAt(track, at + 0.25) - valueAt(track, at - 0.25)) * 2 * perSecond(rate) : 0;
  const shownAt = (at: number) => (look === 'speed' ? speedAt(at) : track ? valueAt(track, at) : rest);
  const xs = Array.from(
    { length: Math.max(2, Math.floor((layout.right - layout.left) / 2)) },
    (_, index) => layout.left + index * 2,
  );
  const drawn = xs.map((x) => shownAt(frameAtX(x)));
  const ground = look === 'speed' ? 0 : rest;
  const spread = [...drawn, ground, ...(look === 'value' ? hand.placed.map(({ value }) => value) : [])];
  const [low, high] = [Math.min(...spread), Math.max(...spread)];
  const room = Math.max(high - low, look === 'speed' ? 1 : step * 10);
  const middle = (low + high) / 2;
  const yOf = (value: number) => height / 2 - ((value - middle) / room) * (height - 2 * air);
  const perPixel = room / (height - 2 * air);
  const path = `M${xs.map((x, index) => `${x} ${yOf(drawn[index]).toFixed(1)}`).join('L')}`;

  const { unit } = handValues[hand.value];
  const written = (value: number) => `${Math.round(value * 100) / 100}${unit === '°' ? '' : ' '}${unit}`;
  const scale = [...new Set([high, low])].map((at) => ({
    at,
    text: look === 'speed' ? `${written(at)} a second` : written(at),
  }));

  const drag = useDrag(
    ({ args, movement, tap, last, event }: DragState) => {
      const [key] = args as [PlacedKey];
      hand.choose(key.index);
      if (tap) return setHeld(null);
      const at = frameOfTime(rate, frameAtX(xOfFrame(key.frame) + movement[0]) / perSecond(rate));
      const value = Math.min(max, Math.max(min, key.value - movement[1] * perPixel));
      const grip = gripOf({ last, event });
      const said = Math.round(value / step) * step;
      setHeld(grip === 'held' ? { index: key.index, frame: at, value: said } : null);
      if (grip === 'done') void hand.place(key.index, at, said);
    },
    { filterTaps: true, threshold: 3, pointer: { keys: false } },
  );
  const press = (key: PlacedKey) => (event: KeyboardEvent) => {
    const isRemoval = event.key === 'Delete' || event.key === 'Backspace';
    const [across, down] = wayOfKey(event.key) ?? [0, 0];
    if (!isRemoval && !across && !down) return;
    event.preventDefault();
    event.stopPropagation();
    hand.choose(key.index);
    if (isRemoval) return void hand.remove(key.index);
    const by = step * (event.shiftKey ? 10 : 1);
    asOne(event.nativeEvent, () => void hand.nudge(key.index, across, -down * by || 0));
  };

  const next = hand.current && keys[keys.findIndex(({ index }) => index === hand.current?.index) + 1];
  const handles = look === 'value' && hand.current && next && hand.current.ease !== 'hold';
  return (
    <svg
      width="100%"
      height={height}
      className="pointer-events-none block touch-none overflow-visible"
      role="group"
      aria-label={`${handValues[hand.value].title} over the beats; ${keys.length} keys`}
      data-keys={keys.length}
    >
      {placing.anchors.map(({ name, frame: at }) => (
        <path key={name} d={`M${xOfFrame(at)} 0V${height}`} stroke="var(--line)" />
      ))}
      <path d={`M${layout.left} ${yOf(ground)}H${layout.right}`} stroke="var(--ink2)" strokeDasharray="2 5" />
      <path d={path} stroke="var(--woad)" strokeWidth="2" fill="none" />
      <path d={`M${xOfFrame(frame)} 0V${height}`} stroke="var(--madder)" strokeWidth="1.5" />
      {scale.map(({ at, text }) => (
        <text key={text} x={layout.left + 4} y={yOf(at) - 4} fontSize="11" fill="var(--ink2)" className="num">
          {text}
        </text>
      ))}
      {handles && (
        <Handles
          from={[xOfFrame(hand.current?.frame ?? 0), yOf(hand.current?.value ?? 0)]}
          to={[xOfFrame(next.frame), yOf(next.value)]}
          curve={(bending?.ease ?? hand.current?.ease) as Readonly<Curve>}
          onNudge={(which, by) => {
            const { current } = hand;
            if (current)
              void hand.change(current.index, (key) => ({
                ...key,
                ease: key.ease === 'hold' ? key.ease : bent(key.ease, which, by),
              }));
          }}
          onBend={(ease, done) => {
            const { current } = hand;
            if (!current) return;
            setBending(done ? null : { index: current.index, ease });
            if (done) void hand.change(current.index, (key) => ({ ...key, ease }));
          }}
        />
      )}
      {look === 'value' &&
        keys.map((key) => (
          <g
            key={key.index}
            role="slider"
            tabIndex={0}
            aria-label={`Key on frame ${key.frame}; arrow keys move it and change it, Delete takes it out`}
            aria-valuenow={key.value}
            aria-valuetext={`${key.value} ${handValues[hand.value].unit} on frame ${key.frame}`}
            data-key={key.frame}
            className="pointer-events-auto cursor-move"
            {...drag(hand.placed.find(({ index }) => index === key.index))}
            onKeyDown={press(key)}
            onFocus={() => hand.choose(key.index)}
          >
            <circle
              cx={xOfFrame(key.frame)}
              cy={yOf(key.value)}
              className="[r:12px] pointer-coarse:[r:22px]"
              fill="transparent"
            />
            <circle
              cx={xOfFrame(key.frame)}
              cy={yOf(key.value)}
              r={hand.current?.index === key.index ? 7 : 5}
              fill={hand.current?.index === key.index ? 'var(--woad)' : 'var(--raised)'}
              stroke="var(--woad)"
              strokeWidth="2.5"
            />
          </g>
        ))}
    </svg>
  );
}

type Curve = [number, number, number, number];

/** A curve with one of its handles moved by shares of the way between two keys. */
function bent([x1, y1, x2, y2]: Readonly<Curve>, which: Handle, [across, up]: [number, number]): Curve {
  const round = (value: number) => Math.round(value * 100) / 100;
  const share = (value: number) => round(Math.min(1, Math.max(0, value)));
  const level = (value: number) => round(Math.min(3, Math.max(-2, value)));
  return which === 'leaves'
    ? [share(x1 + across), level(y1 + up), x2, y2]
    : [x1, y1, share(x2 + across), level(y2 + up)];
}

/** The two handles of the curve that leaves the chosen key. */
function Handles({
  from,
  to,
  curve,
  onNudge,
  onBend,
}: {
  from: [number, number];
  to: [number, number];
  curve: Readonly<Curve>;
  onNudge: (which: Handle, by: [number, number]) => void;
  onBend: (ease: Curve, done: boolean) => void;
}) {
  const [width, rise] = [to[0] - from[0], to[1] - from[1]];
  // Between two keys of the same value a handle has nothing to rise along.
  const tall = Math.abs(rise) < 8 ? -40 : rise;
  const place = (x: number, y: number): [number, number] => [from[0] + x * width, from[1] + y * tall];
  const drag = useDrag(
    ({ args, movement, last, event, memo }: DragState<Readonly<Curve>>) => {
      const [which] = args as [Handle];
      const start = memo ?? curve;
      const grip = gripOf({ last, event });
      const [x, y] = grip === 'off' ? [0, 0] : movement;
      onBend(bent(start, which, [x / width, y / tall]), grip !== 'held');
      return start;
    },
    { threshold: 2, pointer: { keys: false } },
  );
  const press = (which: Handle) => (event: KeyboardEvent) => {
    const [across, down] = wayOfKey(event.key) ?? [0, 0];
    if (!across && !down) return;
    event.preventDefault();
    event.stopPropagation();
    onNudge(which, [across * 0.02, -down * 0.02]);
  };
  const ends = [
    { which: 'leaves' as const, root: from, at: place(curve[0], curve[1]) },
    { which: 'arrives' as const, root: place(1, 1), at: place(curve[2], curve[3]) },
  ];
  return ends.map(({ which, root, at }) => (
    <g key={which}>
      <path d={`M${root[0]} ${root[1]}L${at[0]} ${at[1]}`} stroke="var(--madder)" strokeWidth="1" />
      <rect
        role="slider"
        tabIndex={0}
        aria-label={`How the curve ${which}; arrow keys bend it`}
        aria-valuenow={Math.round((which === 'leaves' ? curve[0] : 1 - curve[2]) * 100)}
        aria-valuetext={`over ${Math.round((which === 'leaves' ? curve[0] : 1 - curve[2]) * 100)} %`}
        data-handle={which}
        x={at[0] - 5}
        y={at[1] - 5}
        width="10"
        height="10"
        fill="var(--raised)"
        stroke="var(--madder)"
        strokeWidth="2"
        className="pointer-events-auto cursor-move"
        {...drag(which)}
        onKeyDown={press(which)}
      />
    </g>
  ));
}
