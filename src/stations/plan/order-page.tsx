'use client';
import { useState } from 'react';
import { slotClock, type Schedule, type Slot } from '@/core/plan/schedule';
import { chooseShot } from '@/store/commands/plan';
import { planOf } from '@/store/plan';
import { useBench } from '@/ui/bench-context';
import { follow } from '@/ui/drag';
import { useSize } from '@/ui/use-size';
import { goTo, useWhere } from '@/ui/where';
import { Empty } from '../station';
import { DaySentence } from './day-sentence';
import { markDyes } from './dyes';
import { sayReason } from './reasons';

const step = 156;
const rowHeight = 118;

/** The order of filming as a thread with knots, each with its reason and its time. */
export function OrderPage() {
  const { snapshot } = useBench();
  const { schedule } = planOf(snapshot);
  const [ref, { width }] = useSize<HTMLDivElement>();
  const [words, setWords] = useState('');
  if (schedule.slots.length === 0) {
    return (
      <Empty title="No shots yet">
        <p>
          The moments of this plan need nothing filmed, and no performance is laid out. Choose other kinds, or
          add passes.
        </p>
      </Empty>
    );
  }
  return (
    <div className="flex flex-col gap-3 p-5 max-sm:p-3">
      <DaySentence />
      <h2 className="text-[15px] font-[560]">In this order</h2>
      <div ref={ref}>
        {width > 0 &&
          (width < 560 ? (
            <OrderList schedule={schedule} />
          ) : (
            <OrderThread schedule={schedule} width={width} />
          ))}
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="text-[15px] font-[560]">Timetable</h2>
        <input
          aria-label="Search the timetable"
          placeholder="search"
          className="num border-b-2 border-line bg-transparent px-1 py-1 outline-none focus:border-woad"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
      </div>
      <Timetable schedule={schedule} words={words} />
    </div>
  );
}

/** The dye of a setup on the thread. */
const dyeOf = (setups: readonly { id: string }[], setup: string) =>
  markDyes[
    Math.max(
      0,
      setups.findIndex(({ id }) => id === setup),
    ) % markDyes.length
  ];

function OrderThread({ schedule, width }: { schedule: Schedule; width: number }) {
  const { snapshot, store, attempt } = useBench();
  const { names } = planOf(snapshot);
  const where = useWhere();
  const [held, setHeld] = useState<{ index: number; x: number; y: number } | null>(null);
  const { slots } = schedule;
  const perRow = Math.max(2, Math.floor(width / step));
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
    if (target === index) return;
    // Dropped on a later knot it comes after that knot, on an earlier one it takes its place.
    const after = target > index ? slots[target] : slots[target - 1];
    attempt(() =>
      chooseShot(store, snapshot.project.id, slots[index].shot.id, { after: after?.shot.id ?? 'first' }),
    );
  };
  return (
    <svg
      width={width}
      height={rows * rowHeight}
      role="list"
      aria-label="Order of filming"
      className="select-none"
    >
      <path d={thread} fill="none" stroke="var(--madder)" strokeWidth="2" />
      {slots.map((slot, index) => {
        const { shot } = slot;
        const at = held?.index === index ? held : place(index);
        const own = snapshot.choices.some((choice) => choice.shot === shot.id && choice.after);
        const dye = dyeOf(snapshot.setups, shot.setup);
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
              className="cursor-grab touch-none outline-none focus-visible:[&_circle]:stroke-[6]"
              onClick={() => goTo({ shot: shot.id })}
              onPointerDown={(event) => {
                const box = (event.currentTarget.closest('svg') as SVGElement).getBoundingClientRect();
                follow(event, box, (shareX, shareY, last) => {
                  const [x, y] = [shareX * box.width, shareY * box.height];
                  setHeld(last ? null : { index, x, y });
                  if (last && Math.hypot(x - at.x, y - at.y) < 20) goTo({ shot: shot.id });
                  else if (last) lock(index, x, y);
                });
              }}
              onKeyDown={(event) => {
                const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
                if (event.key === 'Enter' || event.key === ' ') goTo({ shot: shot.id });
                else if (by !== undefined) {
                  const to = place(index + by);
                  if (index + by >= 0 && index + by < slots.length) lock(index, to.x, to.y);
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

/** The same thread down the page, for a phone. */
function OrderList({ schedule }: { schedule: Schedule }) {
  const { snapshot } = useBench();
  const { names } = planOf(snapshot);
  return (
    <ol className="border-l-2 border-madder pl-4" aria-label="Order of filming">
      {schedule.slots.map((slot) => (
        <li key={slot.shot.id} className="relative pb-2">
          <span
            className="absolute -left-[25px] top-0.5 h-4 w-4 rounded-full border-4 bg-raised"
            style={{ borderColor: dyeOf(snapshot.setups, slot.shot.setup) }}
          />
          <button type="button" className="min-h-11 text-left" onClick={() => goTo({ shot: slot.shot.id })}>
            <b className="font-semibold">{slot.shot.title}</b>{' '}
            <span className="num">{slotClock(schedule, slot.from, snapshot.day)}</span>
            <span className="block text-[12px] text-ink2">{sayReason(slot.reason, names)}</span>
          </button>
        </li>
      ))}
    </ol>
  );
}

function Timetable({ schedule, words }: { schedule: Schedule; words: string }) {
  const { snapshot } = useBench();
  const { names } = planOf(snapshot);
  const wanted = words.trim().toLowerCase();
  const said = (slot: Slot) =>
    `${slot.shot.title} ${names[slot.shot.setup] ?? ''} ${slot.shot.moments.map((id) => names[id]).join(' ')}`;
  const found = schedule.slots.filter((slot) => said(slot).toLowerCase().includes(wanted));
  return (
    <div className="overflow-x-auto">
      <table className="thread-table">
        <thead>
          <tr>
            {['', 'From', 'Until', 'Shot', 'Setup', 'For', 'Takes', 'Length', 'Why here'].map((title) => (
              <th key={title} scope="col">
                {title || <span className="sr-only">Place</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {found.map((slot) => (
            <tr key={slot.shot.id} className={slot.newSetup ? 'bar-row' : undefined}>
              <td>{schedule.slots.indexOf(slot) + 1}</td>
              <td>{slotClock(schedule, slot.from, snapshot.day)}</td>
              <td>{slotClock(schedule, slot.until, snapshot.day)}</td>
              <td className="!font-sans">{slot.shot.title}</td>
              <td className="!font-sans">{names[slot.shot.setup] ?? '–'}</td>
              <td className="!font-sans">{slot.shot.moments.map((id) => names[id]).join(', ')}</td>
              <td>{slot.shot.takes}</td>
              <td>{slot.shot.seconds} s</td>
              <td className="!font-sans">
                {sayReason(slot.reason, names)}
                {slot.newClothes ? '; change of clothes' : ''}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {found.length === 0 && <p className="py-2 text-ink2">Nothing in the timetable is called that.</p>}
    </div>
  );
}
