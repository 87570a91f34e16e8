'use client';
import { useState } from 'react';
import { frameOf, lensCone } from '@/core/camera/view';
import type { Mark, Piece, Setup } from '@/core/model/plan-records';
import { rigs } from '@/core/plan/setup/examine-setup';
import { viewOf, type SetupNumbers } from '@/core/plan/setup/numbers';
import { sayLength } from '@/core/units';
import { setPart } from '@/store/commands/plan';
import { useData, useServices } from '@/ui/bench-context';
import { useBoxDrag } from '@/ui/box-drag';
import { useUnits } from '@/ui/live-length';
import { markDyes } from '../dyes';
import { useNudge } from './use-nudge';

type Held = { id: string; x: number; y: number };

/** The room from above, to scale: camera, what the lens sees, what is sharp, marks, walls, joins as planes. */
export function TopView({
  setup,
  numbers,
  width,
  height,
}: {
  setup: Setup;
  numbers: SetupNumbers;
  width: number;
  height: number;
}) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const units = useUnits();
  const [held, setHeld] = useState<Held | null>(null);
  const { walls } = setup;
  const scale = Math.min(
    (width - 24) / (walls.left + walls.right),
    (height - 34) / (walls.ahead + walls.behind),
  );
  const left = (width - (walls.left + walls.right) * scale) / 2;
  const X = (x: number) => left + (x + walls.left) * scale;
  const Y = (y: number) => 12 + (walls.ahead - y) * scale;
  const view = viewOf(setup);
  // A metre, or three feet.
  const bar = units === 'metric' ? 1 : 0.9144;
  const path = (points: readonly { x: number; y: number }[]) =>
    points.map(({ x, y }, index) => `${index ? 'L' : 'M'}${X(x).toFixed(1)} ${Y(y).toFixed(1)}`).join('');
  const { sharp } = numbers;
  const near = Math.min(sharp.near, walls.ahead);
  const far = Math.min(sharp.far, walls.ahead);
  const place = <Thing extends { id: string; x: number; y: number }>(thing: Thing): Thing =>
    held?.id === thing.id ? { ...thing, x: held.x, y: held.y } : thing;
  const pieces = snapshot.pieces.filter((piece) => piece.setup === setup.id);
  const seams = snapshot.zones.filter((zone) => zone.setup === setup.id && zone.what === 'seam');
  const save = (thing: Mark | Piece, x: number, y: number) =>
    attempt(() =>
      setPart(store, setup.project, thing.id, `Move ${thing.name}`, {
        x: Number(x.toFixed(3)),
        y: Number(y.toFixed(3)),
      }),
    );
  const drag = useBoxDrag<Mark | Piece>(({ thing, from, to, state }) => {
    const x = thing.x + ((to[0] - from[0]) * width) / scale;
    const y = thing.y - ((to[1] - from[1]) * height) / scale;
    setHeld(state === 'held' ? { id: thing.id, x, y } : null);
    if (state === 'done') void save(thing, x, y);
  });
  const press = useNudge(save);
  const marks = numbers.marks.map(({ mark }) => place(mark));
  return (
    <svg
      width={width}
      height={height}
      role="group"
      aria-label="The room from above"
      className="touch-pan-y select-none"
    >
      <rect
        x={X(-walls.left)}
        y={Y(walls.ahead)}
        width={(walls.left + walls.right) * scale}
        height={(walls.ahead + walls.behind) * scale}
        fill="var(--raised)"
        stroke="var(--ink)"
        strokeWidth="3"
      />
      <clipPath id={`room-${setup.id}`}>
        <rect
          x={X(-walls.left)}
          y={Y(walls.ahead)}
          width={(walls.left + walls.right) * scale}
          height={(walls.ahead + walls.behind) * scale}
        />
      </clipPath>
      <g clipPath={`url(#room-${setup.id})`}>
        <path d={`${path(lensCone(view, 0.01, walls.ahead))}Z`} fill="var(--woad)" opacity="0.08" />
        {far > near && (
          <path
            d={`${path(lensCone(view, near, far))}Z`}
            fill="var(--verdigris)"
            opacity="0.2"
            data-testid="sharp"
          />
        )}
        <path
          d={
            path([{ x: 0, y: 0 }, lensCone(view, 0.01, walls.ahead)[1]]) +
            path([{ x: 0, y: 0 }, lensCone(view, 0.01, walls.ahead)[2]])
          }
          stroke="var(--woad)"
          strokeDasharray="5 4"
          fill="none"
        />
        {[near, far].map((at, index) =>
          at < walls.ahead ? (
            <path
              key={index}
              d={path([lensCone(view, at, at + 0.001)[0], lensCone(view, at, at + 0.001)[3]])}
              stroke="var(--verdigris)"
              strokeWidth="1.4"
            />
          ) : null,
        )}
        {seams.map((seam) => {
          const middle = (seam.from[0] + seam.to[0]) / 2;
          const across = ((middle - 0.5) * view.sensor.width) / view.focal;
          return (
            <path
              key={seam.id}
              d={path([
                { x: 0, y: 0 },
                { x: across * walls.ahead, y: walls.ahead },
              ])}
              stroke="var(--saffron)"
              strokeWidth="2"
              strokeDasharray="2 4"
            >
              <title>{seam.name}</title>
            </path>
          );
        })}
      </g>
      {pieces.map(place).map((piece) => (
        <g
          key={piece.id}
          role="button"
          tabIndex={0}
          aria-label={`${piece.name}: ${sayLength(piece.y, units)} away. Arrow keys move it.`}
          className="cursor-move outline-none focus-visible:[&_rect]:stroke-[3]"
          {...drag(piece)}
          onKeyDown={press(piece)}
        >
          <rect
            x={X(piece.x - piece.width / 2)}
            y={Y(piece.y + piece.depth / 2)}
            width={piece.width * scale}
            height={Math.max(4, piece.depth * scale)}
            fill={
              piece.what === 'backdrop'
                ? 'var(--lichen)'
                : piece.what === 'door'
                  ? 'var(--raised)'
                  : 'var(--fabric)'
            }
            stroke={piece.what === 'door' ? 'var(--madder)' : 'var(--ink2)'}
          />
          <text
            x={X(piece.x)}
            y={Y(piece.y) + 4}
            textAnchor="middle"
            fontSize="11"
            fill="var(--ink)"
            stroke="var(--raised)"
            strokeWidth="3"
            paintOrder="stroke"
          >
            {piece.name}
          </text>
        </g>
      ))}
      <circle
        cx={X(0)}
        cy={Y(0)}
        r={rigs[setup.rig].room * scale}
        fill="none"
        stroke="var(--ink2)"
        strokeDasharray="2 3"
      />
      <path
        d={`M${X(0) - 11} ${Y(0) + 16}V${Y(0) + 4}H${X(0) - 4}L${X(0)} ${Y(0) - 5}L${X(0) + 4} ${Y(0) + 4}H${X(0) + 11}V${Y(0) + 16}Z`}
        fill="var(--ink)"
      />
      {marks.map((mark, index) => {
        const dye = markDyes[index % markDyes.length];
        const tape = Math.hypot(mark.x, mark.y);
        const seen = frameOf(view, { x: mark.x, y: mark.y, z: 0 });
        const label = sayLength(tape, units);
        // Beside the thread, so that marks side by side do not cover each other's number.
        const half = label.length * 3.8 + 5;
        const beside = Math.sign(mark.x) * (half + 3);
        const [labelX, labelY] = [X(mark.x * 0.5) + beside, Y(mark.y * 0.5)];
        return (
          <g key={mark.id}>
            <line x1={X(0)} y1={Y(0)} x2={X(mark.x)} y2={Y(mark.y)} stroke={dye} strokeWidth="1.2" />
            <rect
              x={labelX - half}
              y={labelY - 9}
              width={half * 2}
              height={18}
              fill="var(--raised)"
              stroke="var(--line)"
            />
            <text x={labelX} y={labelY + 4} textAnchor="middle" className="num" fill="var(--ink)">
              {label}
            </text>
            <g
              role="button"
              tabIndex={0}
              data-mark={mark.name}
              aria-label={`${mark.name}: ${label} from the lens, ${seen ? `at ${Math.round(seen.x * 100)} % of the width` : 'behind the camera'}. Arrow keys move it.`}
              className="cursor-move outline-none focus-visible:[&_circle]:stroke-[4]"
              {...drag(mark)}
              onKeyDown={press(mark)}
            >
              <circle cx={X(mark.x)} cy={Y(mark.y)} r="22" fill="transparent" />
              <circle
                cx={X(mark.x)}
                cy={Y(mark.y)}
                r="11"
                fill={dye}
                stroke="var(--raised)"
                strokeWidth="2"
              />
              <text
                x={X(mark.x)}
                y={Y(mark.y) + 4}
                textAnchor="middle"
                fontSize="12"
                fontWeight="700"
                fill="var(--raised)"
              >
                {mark.name.slice(0, 1)}
              </text>
            </g>
          </g>
        );
      })}
      <path
        d={`M${X(walls.right) - bar * scale} ${Y(-walls.behind) + 8}v6h${bar * scale}v-6`}
        fill="none"
        stroke="var(--ink2)"
      />
      <text
        x={X(walls.right) - (bar * scale) / 2}
        y={Y(-walls.behind) + 11}
        textAnchor="middle"
        fontSize="10.5"
        fill="var(--ink2)"
      >
        {units === 'metric' ? '1 m' : '3′'}
      </text>
      <text x={X(-walls.left) + 8} y={Y(-walls.behind) + 16} fontSize="11.5" fill="var(--ink2)">
        {`sharp from ${sayLength(sharp.near, units)} to ${sayLength(sharp.far, units)}`}
      </text>
    </svg>
  );
}
