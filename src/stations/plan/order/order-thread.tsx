'use client';
import { useEffect, useRef, useState } from 'react';
import { slotClock, type Slot } from '@/core/plan/order/schedule';
import { useData } from '@/ui/bench-context';
import { useBoxDrag } from '@/ui/box-drag';
import { useInTurn } from '@/ui/in-turn';
import { useGrowing } from '@/ui/use-growing';
import { goTo, useWhere } from '@/ui/where';
import { markDyes } from '../dyes';
import { sayReason } from '../reasons';
import { useLockPlace } from './use-lock-place';
import { stepOfKey } from '@/ui/arrow-keys';

const rowHeight = 118;

/** The dye of a setup on the thread. */
export const setupDye = (setups: readonly { id: string }[], setup: string) =>
  markDyes[
    Math.max(
      0,
      setups.findIndex(({ id }) => id === setup),
    ) % markDyes.length
  ];

/** Shots as knots on a thread, each with its reason and time; a knot is dragged to lock its place. */
export function OrderThread({ slots, width }: { slots: readonly Slot[]; width: number }) {
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const lockPlace = useLockPlace(slots);
  const { names, schedule } = plan;
  const where = useWhere();
  const [held, setHeld] = useState<{ index: number; x: number; y: number } | null>(null);
  const inTurn = useInTurn();
  const drawn = useGrowing(slots.length, 12);
  const perRow = Math.max(2, Math.floor(width / 150));
  const step = width / perRow;
  const rows = Math.ceil(slots.length / perRow);
  const place = (index: number) => ({
    x: (index % perRow) * step + 26,
    y: Math.floor(index / perRow) * rowHeight + 30 + (index % 2 ? 9 : -5),
  });
  const thread = slots
    .map((_, index) => {
      const { x, y } = place(index);
      if (index % perRow === 0) return `M${Math.max(2, x - 24)} ${y + 12}Q${x - 12} ${y} ${x} ${y}`;
      const before = place(index - 1);
      return `C${before.x + 50} ${before.y} ${x - 50} ${y} ${x} ${y}`;
    })
    .join('');
  const lock = (index: number, x: number, y: number) => {
    const target = Math.min(
      slots.length - 1,
      Math.max(0, Math.floor(y / rowHeight) * perRow + Math.round((x - 26) / step)),
    );
    return lockPlace(index, target);
  };
  const drag = useBoxDrag<number>(
    ({ thing, from, to, state }) => {
      const at = place(thing);
      const [x, y] = [at.x + (to[0] - from[0]) * width, at.y + (to[1] - from[1]) * rows * rowHeight];
      setHeld(state === 'held' ? { index: thing, x, y } : null);
      if (state === 'done') void lock(thing, x, y);
    },
    (index) => goTo({ shot: slots[index].shot.id }),
  );
  /** A shot one place earlier or later than it stands when its turn comes. */
  const shift = (shot: string, by: number) => {
    const index = slots.findIndex((slot) => slot.shot.id === shot);
    if (index < 0 || index + by < 0 || index + by >= slots.length) return;
    const to = place(index + by);
    return lock(index, to.x, to.y);
  };
  const latest = useRef(shift);
  useEffect(() => {
    latest.current = shift;
  });
  return (
    <svg
      width={width}
      height={rows * rowHeight}
      role="list"
      aria-label="Order of filming"
      className="select-none"
    >
      <path d={thread} fill="none" stroke="var(--madder)" strokeWidth="2" />
      {slots.slice(0, drawn).map((slot, index) => {
        const { shot } = slot;
        const at = held?.index === index ? held : place(index);
        const own = snapshot.choices.some((choice) => choice.shot === shot.id && choice.after);
        const dye = setupDye(snapshot.setups, shot.setup);
        const title = shot.title.length > 22 ? `${shot.title.slice(0, 21)}…` : shot.title;
        const reason = sayReason(slot.reason, names);
        return (
          <g key={shot.id} role="listitem">
            <g
              role="button"
              tabIndex={0}
              aria-pressed={where.shot === shot.id}
              aria-label={`${index + 1}: ${shot.title}, ${reason}${own ? ', locked' : ''}. Enter chooses it, arrow keys move it.`}
              data-knot={shot.title}
              className="cursor-grab touch-pan-y outline-none focus-visible:[&_circle]:stroke-[6]"
              {...drag(index)}
              onKeyDown={(event) => {
                const by = stepOfKey(event.key);
                if (event.key === 'Enter' || event.key === ' ') goTo({ shot: shot.id });
                else if (by !== undefined) {
                  inTurn(() => latest.current(shot.id, by));
                } else return;
                event.preventDefault();
                event.stopPropagation();
              }}
            >
              <title>{`${shot.title}: ${reason}`}</title>
              <circle cx={at.x} cy={at.y} r="16" fill="transparent" />
              <circle
                cx={at.x}
                cy={at.y}
                r={where.shot === shot.id ? 11 : 9}
                fill={own ? dye : 'var(--raised)'}
                stroke={dye}
                strokeWidth="4"
                strokeDasharray={shot.what === 'sound' ? '3 2' : undefined}
              />
            </g>
            <g className="pointer-events-none">
              {slot.newSetup && (
                <text
                  x={place(index).x + 16}
                  y={place(index).y - 10}
                  fontSize="11.5"
                  fontWeight="600"
                  fill={dye}
                >
                  {names[shot.setup]}
                </text>
              )}
              <text
                x={place(index).x - 14}
                y={place(index).y + 30}
                fontSize="12.5"
                fontWeight="600"
                fill="var(--ink)"
              >
                {title}
              </text>
              <Lines x={place(index).x - 14} y={place(index).y + 45} text={reason} />
              <text x={place(index).x - 14} y={place(index).y + 75} className="num" fill="var(--ink)">
                {slotClock(schedule, slot.from, snapshot.day)}
              </text>
            </g>
          </g>
        );
      })}
    </svg>
  );
}

/** Up to two short lines. */
function Lines({ x, y, text }: { x: number; y: number; text: string }) {
  const words = text.split(' ');
  const lines = ['', ''];
  for (const word of words) {
    const line = lines[0].length + word.length < 24 && lines[1] === '' ? 0 : 1;
    lines[line] = `${lines[line]} ${word}`.trim();
  }
  return (
    <text x={x} y={y} fontSize="11.5" fill="var(--ink2)">
      {lines[0]}
      <tspan x={x} dy="13">
        {lines[1].length > 25 ? `${lines[1].slice(0, 24)}…` : lines[1]}
      </tspan>
    </text>
  );
}
