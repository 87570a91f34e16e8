'use client';
import { useState } from 'react';
import { slotClock, type Schedule, type Slot } from '@/core/plan/order/schedule';
import { useBench } from '@/ui/bench-context';
import { useSize } from '@/ui/use-size';
import { goTo } from '@/ui/where';
import { Empty } from '../../station';
import { DaySentence } from './day-sentence';
import { OrderThread, setupDye } from './order-thread';
import { sayReason } from '../reasons';

/** The order of filming as a thread with knots, each with its reason and its time. */
export function OrderPage() {
  const { plan } = useBench();
  const { schedule } = plan;
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
    <div className="flex flex-col gap-3 p-5 phone:p-3">
      <DaySentence />
      <h2 className="text-[15px] font-[560]">In this order</h2>
      <div ref={ref}>
        {width > 0 &&
          (width < 560 ? (
            <OrderList schedule={schedule} />
          ) : (
            <OrderThread slots={schedule.slots} width={width} />
          ))}
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="text-[15px] font-[560]">Timetable</h2>
        <input
          aria-label="Search the timetable"
          placeholder="search"
          className="num border-b-2 border-line bg-transparent px-1 py-1 outline-none focus:border-woad pointer-coarse:min-h-11"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
      </div>
      <Timetable schedule={schedule} words={words} />
    </div>
  );
}

/** The same thread down the page, for a phone. */
function OrderList({ schedule }: { schedule: Schedule }) {
  const { snapshot, plan } = useBench();
  const { names } = plan;
  return (
    <ol className="border-l-2 border-madder pl-4" aria-label="Order of filming">
      {schedule.slots.map((slot) => (
        <li key={slot.shot.id} className="relative pb-2">
          <span
            className="absolute top-0.5 -left-[25px] h-4 w-4 rounded-full border-4 bg-raised"
            style={{ borderColor: setupDye(snapshot.setups, slot.shot.setup) }}
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
  const { snapshot, plan } = useBench();
  const { names } = plan;
  const wanted = words.trim().toLowerCase();
  const said = (slot: Slot) =>
    `${slot.shot.title} ${names[slot.shot.setup] ?? ''} ${slot.shot.moments.map((id) => names[id]).join(' ')}`;
  const found = schedule.slots.filter((slot) => said(slot).toLowerCase().includes(wanted));
  return (
    <div role="region" aria-label="Timetable" tabIndex={0} className="overflow-x-auto">
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
