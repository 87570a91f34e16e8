'use client';
import { useState } from 'react';
import { slotClock, type Schedule, type Slot } from '@/core/plan/order/schedule';
import { useData } from '@/ui/bench-context';
import { LongTable } from '@/ui/long-table';
import { useSize } from '@/ui/use-size';
import { Empty } from '../../station';
import { DaySentence } from './day-sentence';
import { OrderList } from './order-list';
import { OrderThread } from './order-thread';
import { sayReason } from '../reasons';

/** The order of filming as a thread with knots, each with its reason and its time. */
export function OrderPage() {
  const plan = useData((data) => data.plan);
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
            <OrderList slots={schedule.slots} />
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

function Timetable({ schedule, words }: { schedule: Schedule; words: string }) {
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const { names } = plan;
  const wanted = words.trim().toLowerCase();
  const said = (slot: Slot) =>
    `${slot.shot.title} ${names[slot.shot.setup] ?? ''} ${slot.shot.moments.map((id) => names[id]).join(' ')}`;
  const found = schedule.slots.filter((slot) => said(slot).toLowerCase().includes(wanted));
  if (found.length === 0) return <p className="py-2 text-ink2">Nothing in the timetable is called that.</p>;
  return (
    <LongTable
      label="Timetable"
      heads={[
        <span key="place" className="sr-only">
          Place
        </span>,
        'From',
        'Until',
        'Shot',
        'Setup',
        'For',
        'Takes',
        'Length',
        'Why here',
      ]}
      count={found.length}
      row={(index) => {
        const slot = found[index];
        const { shot } = slot;
        const words = (text: string) => <span className="font-sans">{text}</span>;
        return {
          key: shot.id,
          begins: slot.newSetup,
          cells: [
            schedule.slots.indexOf(slot) + 1,
            slotClock(schedule, slot.from, snapshot.day),
            slotClock(schedule, slot.until, snapshot.day),
            words(shot.title),
            words(names[shot.setup] ?? '–'),
            words(shot.moments.map((id) => names[id]).join(', ')),
            shot.takes,
            `${shot.seconds} s`,
            words(`${sayReason(slot.reason, names)}${slot.newClothes ? '; change of clothes' : ''}`),
          ],
        };
      }}
    />
  );
}
