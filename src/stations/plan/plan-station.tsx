'use client';
import { useDeferredValue } from 'react';
import { switchUnits } from '@/store/commands/projects';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { useUnits } from '@/ui/live-length';
import { Strip } from '@/ui/ribbon/strip';
import { useWhere } from '@/ui/where';
import { Empty, Station } from '../station';
import { AddSetup } from './add-setup';
import { NeedsPage } from './needs/needs-page';
import { NeedsSide } from './needs/needs-side';
import { NumbersPage } from './numbers/numbers-page';
import { OrderPage } from './order/order-page';
import { OrderSide } from './order/order-side';
import { RoomPage } from './room/room-page';
import { RoomSide } from './room/room-side';
import { TakeAlongPage } from './along/take-along-page';

const question = 'What must be filmed, and how?';

const planParts = [
  { id: 'needs', text: 'Moments' },
  { id: 'room', text: 'Room' },
  { id: 'numbers', text: 'Numbers' },
  { id: 'order', text: 'Order' },
  { id: 'along', text: 'Take along' },
] as const;
type PartName = (typeof planParts)[number]['id'];

/** What must be filmed, and how: moments and their shots, the room, the numbers, the order, the lists. */
export function PlanStation() {
  const { store, attempt, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const moment = useData((data) => data.moment);
  const plan = useData((data) => data.plan);
  const where = useWhere();
  // Parts are drawn a little at a time: with many moments a whole one would hold up what is pressed meanwhile.
  const asked = useDeferredValue(where.part);
  const units = useUnits();
  const { moments, setups, project } = snapshot;
  if (moments.length === 0) {
    return (
      <Station question={question}>
        <Empty title="Nothing is planned yet">
          <p>
            Drag over some bars on the song: that makes a moment. Each kind of moment knows which shots it
            needs, how long they have to be and what must stay the same between them.
          </p>
          <button type="button" className="knob main" onClick={() => go({ station: 'song' })}>
            To the song
          </button>
        </Empty>
      </Station>
    );
  }
  const part: PartName = planParts.find(({ id }) => id === asked)?.id ?? 'needs';
  const { schedule } = plan;
  const setup =
    setups.find(({ id }) => id === where.setup) ??
    setups.find(({ id }) => id === moment?.setup) ??
    setups[0] ??
    null;
  const needsSetup = part === 'room' || part === 'numbers';
  const noSetup = (
    <Empty title="Add the first setup">
      <p>
        A setup is one camera in one place and light. It brings marks for two copies and a join between them;
        change what differs.
      </p>
      <AddSetup />
    </Empty>
  );
  const side = {
    needs: <NeedsSide />,
    room: setup && <RoomSide setup={setup} />,
    numbers: null,
    order: <OrderSide />,
    along: null,
  }[part];
  return (
    <Station
      question={question}
      sub={
        <>
          {needsSetup && setup && (
            <LiveChoice
              label="Setup"
              value={setup.id}
              options={setups.map(({ id, name }) => ({ value: id, text: name }))}
              onChange={(id) => go({ setup: id })}
            />
          )}{' '}
          <span className="whitespace-nowrap">
            {moments.length} {moments.length === 1 ? 'moment' : 'moments'} · {schedule.slots.length}{' '}
            {schedule.slots.length === 1 ? 'shot' : 'shots'}
          </span>
        </>
      }
      parts={{ options: planParts, shown: part, onShow: (id) => go({ part: id }) }}
      tools={
        <button
          type="button"
          className="knob"
          title="Lengths in centimetres and metres, or in feet and inches"
          onClick={() => attempt(() => switchUnits(store, project.id))}
        >
          Lengths: {units}
        </button>
      }
      side={side}
    >
      <Strip />
      {part === 'needs' && <NeedsPage />}
      {part === 'room' && (setup ? <RoomPage key={setup.id} setup={setup} /> : noSetup)}
      {part === 'numbers' && (setup ? <NumbersPage key={setup.id} setup={setup} /> : noSetup)}
      {part === 'order' && <OrderPage />}
      {part === 'along' && <TakeAlongPage />}
    </Station>
  );
}
