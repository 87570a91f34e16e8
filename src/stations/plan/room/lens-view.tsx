'use client';
import { useState, type KeyboardEvent } from 'react';
import { frameOf, roomAt } from '@/core/camera/view';
import type { Mark, Setup, Zone } from '@/core/model/plan-records';
import { eyeShare, viewOf, type SetupNumbers } from '@/core/plan/setup/numbers';
import { boxOf } from '@/core/plan/setup/zones';
import { sayLength } from '@/core/units';
import { addZone, setPart } from '@/store/commands/plan';
import { useData, useServices } from '@/ui/bench-context';
import { useAhead } from '@/ui/ahead';
import { useBoxDrag } from '@/ui/box-drag';
import { useGesture } from '@/ui/gesture';
import { useUnits } from '@/ui/live-length';
import { markDyes, zoneDyes, zoneNames } from '../dyes';
import { RoomSketch } from './room-sketch';
import { useNudge } from './use-nudge';
import { useStill } from './use-still';
import { wayOfKey } from '@/ui/arrow-keys';

type Ends = Pick<Zone, 'from' | 'to'>;

/** The same room through the lens, on a still or a sketch: marks, zones, joins, dragged where they show. */
export function LensView({
  setup,
  numbers,
  width,
  drawing,
  onDrawn,
}: {
  setup: Setup;
  numbers: SetupNumbers;
  width: number;
  /** the kind of zone that the next drag draws */
  drawing: Zone['what'] | null;
  onDrawn?: () => void;
}) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const units = useUnits();
  const still = useStill(setup);
  const [moved, setMoved] = useState<{ id: string; x: number; y: number } | null>(null);
  const [bent, setBent] = useState<(Ends & { id: string }) | null>(null);
  const view = viewOf(setup);
  const height = Math.round((width * setup.capture.height) / setup.capture.width);
  const zones = snapshot.zones.filter((zone) => zone.setup === setup.id);
  const saveMark = (mark: Mark, x: number, y: number) =>
    attempt(() =>
      setPart(store, setup.project, mark.id, `Move ${mark.name}`, {
        x: Number(x.toFixed(3)),
        y: Number(y.toFixed(3)),
      }),
    );
  const press = useNudge(saveMark);
  const dragMark = useBoxDrag<Mark>(({ thing, from, to, state }) => {
    const feet = frameOf(view, { x: thing.x, y: thing.y, z: 0 });
    const at = feet && roomAt(view, { x: feet.x + to[0] - from[0], y: feet.y + to[1] - from[1] });
    const near = at && at.y < 60 ? at : null;
    setMoved(state === 'held' && near ? { id: thing.id, x: near.x, y: near.y } : null);
    if (state === 'done' && near) void saveMark(thing, near.x, near.y);
  });
  const draw = useBoxDrag<Zone['what']>(({ thing, from, to, state }) => {
    const ends = { from: tidy(from), to: tidy(to) };
    setBent(state === 'held' ? { id: 'new', ...ends } : null);
    if (state !== 'done' || Math.hypot(to[0] - from[0], to[1] - from[1]) < 0.02) return;
    const count = zones.filter((zone) => zone.what === thing).length + 1;
    const name = `${zoneNames[thing][0].toUpperCase()}${zoneNames[thing].slice(1)} ${count}`;
    void attempt(() => addZone(store, setup.project, { setup: setup.id, what: thing, name, ...ends }));
    onDrawn?.();
  });
  const setEnds = (zone: Zone, ends: Ends) =>
    attempt(() => setPart(store, setup.project, zone.id, `Shape ${zone.name}`, ends));
  const shown = zones.map((zone) => (bent?.id === zone.id ? { ...zone, ...bent } : zone));
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label={`Through the lens of ${setup.name}`}
      className={`bg-stage select-none ${drawing ? 'cursor-crosshair touch-none' : 'touch-pan-y'}`}
      {...(drawing ? draw(drawing) : {})}
    >
      {still ? (
        <image href={still} width={width} height={height} preserveAspectRatio="xMidYMid slice" />
      ) : (
        <RoomSketch setup={setup} view={view} width={width} height={height} />
      )}
      {bent?.id === 'new' && drawing && (
        <Shape zone={{ what: drawing, ...bent }} dye="var(--saffron)" width={width} height={height} />
      )}
      {shown.map((zone) => {
        const copies = zones.filter(({ what }) => what === 'copy');
        const dye =
          zone.what === 'copy'
            ? markDyes[copies.findIndex(({ id }) => id === zone.id) % markDyes.length]
            : zoneDyes[zone.what];
        return (
          <ZoneShape
            key={zone.id}
            zone={zone}
            dye={dye}
            width={width}
            height={height}
            active={!drawing}
            onBend={(ends) => setBent(ends && { id: zone.id, ...ends })}
            onDone={(ends) => {
              setBent(null);
              return setEnds(zone, ends);
            }}
          />
        );
      })}
      {numbers.marks.map(({ mark: stored }, index) => {
        const mark = moved?.id === stored.id ? { ...stored, x: moved.x, y: moved.y } : stored;
        const feet = frameOf(view, { x: mark.x, y: mark.y, z: 0 });
        const top = frameOf(view, { x: mark.x, y: mark.y, z: mark.stature });
        const eyes = frameOf(view, { x: mark.x, y: mark.y, z: mark.stature * eyeShare });
        if (!feet || !top || !eyes) return null;
        const dye = markDyes[index % markDyes.length];
        const tall = (feet.y - top.y) * height;
        const [x, foot] = [feet.x * width, feet.y * height];
        const head = tall * 0.065;
        const label = `${mark.name} · ${sayLength(Math.hypot(mark.x, mark.y), units)}`;
        return (
          <g
            key={mark.id}
            role="button"
            tabIndex={drawing ? -1 : 0}
            data-mark={mark.name}
            aria-label={`${label} from the lens. Arrow keys move it.`}
            className={
              drawing
                ? 'pointer-events-none'
                : 'cursor-move outline-none focus-visible:[&_ellipse]:stroke-[3]'
            }
            {...dragMark(stored)}
            onKeyDown={press(stored)}
          >
            <path
              d={`M${x - head * 1.5} ${foot - tall * 0.83}H${x + head * 1.5}L${x + head * 1.2} ${foot - tall * 0.45}L${x + head} ${foot}H${x + head * 0.3}L${x} ${foot - tall * 0.42}L${x - head * 0.3} ${foot}H${x - head}L${x - head * 1.2} ${foot - tall * 0.45}Z`}
              fill={dye}
              opacity="0.5"
            />
            <circle cx={x} cy={foot - tall + head} r={head} fill={dye} opacity="0.7" />
            <line
              x1={x - head * 4}
              x2={x + head * 4}
              y1={eyes.y * height}
              y2={eyes.y * height}
              stroke={dye}
              strokeDasharray="2 3"
            />
            <ellipse
              cx={x}
              cy={foot}
              rx={head * 2.4}
              ry={head * 0.7}
              fill="none"
              stroke={dye}
              strokeWidth="1.6"
            />
            <Tag x={x} y={Math.min(height - 8, foot + 15)} text={label} dye={dye} limit={width} />
          </g>
        );
      })}
      {setup.capture.width > setup.capture.height && snapshot.project.upright && (
        <rect
          x={(width * (1 - numbers.reserve.upright)) / 2}
          width={width * numbers.reserve.upright}
          height={height}
          fill="none"
          stroke="var(--raised)"
          strokeDasharray="6 5"
        />
      )}
    </svg>
  );
}

/** Frame shares to a tenth of a per cent, within the picture. */
const tidy = ([x, y]: readonly [number, number]): [number, number] => [
  Number(Math.min(1, Math.max(0, x)).toFixed(3)),
  Number(Math.min(1, Math.max(0, y)).toFixed(3)),
];

function Tag({ x, y, text, dye, limit }: { x: number; y: number; text: string; dye: string; limit: number }) {
  const wide = text.length * 6.6 + 12;
  const middle = Math.min(limit - wide / 2 - 2, Math.max(wide / 2 + 2, x));
  return (
    <g className="pointer-events-none">
      <rect x={middle - wide / 2} y={y - 12} width={wide} height={18} fill="var(--raised)" />
      <text x={middle} y={y + 1} textAnchor="middle" fontSize="12" fontWeight="600" fill={dye}>
        {text}
      </text>
    </g>
  );
}

function Shape({
  zone,
  dye,
  width,
  height,
}: {
  zone: Pick<Zone, 'what' | 'from' | 'to'>;
  dye: string;
  width: number;
  height: number;
}) {
  const box = boxOf(zone);
  const line = {
    x1: zone.from[0] * width,
    y1: zone.from[1] * height,
    x2: zone.to[0] * width,
    y2: zone.to[1] * height,
  };
  if (zone.what === 'seam') return <line {...line} stroke={dye} strokeWidth="4" strokeDasharray="5 5" />;
  if (zone.what === 'shadow')
    return (
      <>
        <line {...line} stroke={dye} strokeWidth="5" strokeLinecap="round" />
        <circle cx={line.x1} cy={line.y1} r="9" fill={dye} />
      </>
    );
  return (
    <rect
      x={box.left * width}
      y={box.top * height}
      width={(box.right - box.left) * width}
      height={(box.bottom - box.top) * height}
      fill={dye}
      fillOpacity={zone.what === 'copy' ? 0.24 : 0.4}
      stroke={dye}
      strokeWidth="1.4"
    />
  );
}

/** A zone with its name and two round handles. */
function ZoneShape({
  zone,
  dye,
  width,
  height,
  active,
  onBend,
  onDone,
}: {
  zone: Zone;
  dye: string;
  width: number;
  height: number;
  active: boolean;
  /** hears of where it would come to lie, and null where it stays */
  onBend: (ends: Ends | null) => void;
  onDone: (ends: Ends) => Promise<void>;
}) {
  const box = boxOf(zone);
  const ends: Ends = { from: zone.from, to: zone.to };
  const ahead = useAhead<Ends>();
  const asOne = useGesture();
  const drag = useBoxDrag<'from' | 'to'>(({ thing, from, to, state }) => {
    const [x, y] = ends[thing];
    const bent = { ...ends, [thing]: tidy([x + to[0] - from[0], y + to[1] - from[1]]) };
    if (state === 'done') void onDone(bent);
    else onBend(state === 'held' ? bent : null);
  });
  const press = (end: 'from' | 'to') => (event: KeyboardEvent) => {
    const step = event.shiftKey ? 0.05 : 0.01;
    const by = wayOfKey(event.key);
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    const newest = ahead.newest(zone.id, ends);
    const next = { ...newest, [end]: tidy([newest[end][0] + by[0] * step, newest[end][1] + by[1] * step]) };
    asOne(event.nativeEvent, () => ahead.send(zone.id, next, onDone(next)));
  };
  return (
    <g data-zone={zone.what} className={active ? '' : 'pointer-events-none'}>
      <g className="pointer-events-none">
        <Shape zone={zone} dye={dye} width={width} height={height} />
      </g>
      <Tag
        x={((box.left + box.right) / 2) * width}
        y={Math.max(16, box.top * height + (zone.what === 'seam' ? 38 : 16))}
        text={zone.name}
        dye={dye}
        limit={width}
      />
      {(['from', 'to'] as const).map((end) => (
        <circle
          key={end}
          role="button"
          tabIndex={active ? 0 : -1}
          aria-label={`${zone.name}, ${end === 'from' ? 'first' : 'second'} end. Arrow keys move it.`}
          cx={Math.min(width - 7, Math.max(7, zone[end][0] * width))}
          cy={Math.min(height - 7, Math.max(7, zone[end][1] * height))}
          r="6"
          fill="var(--raised)"
          stroke={dye}
          strokeWidth="2.5"
          className="cursor-grab"
          {...drag(end)}
          onKeyDown={press(end)}
        />
      ))}
    </g>
  );
}
