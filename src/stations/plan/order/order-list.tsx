'use client';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import { slotClock, type Slot } from '@/core/plan/order/schedule';
import { useData } from '@/ui/bench-context';
import { useGrowing } from '@/ui/use-growing';
import { useStaysPut } from '@/ui/use-stays-put';
import { goTo, useWhere } from '@/ui/where';
import { sayReason } from '../reasons';
import { setupDye } from './order-thread';
import { ShotDetail } from './shot-detail';
import { useLockPlace } from './use-lock-place';

/** The thread down the page, for a phone: a grip moves a shot to another place, which locks it there. */
export function OrderList({ slots }: { slots: readonly Slot[] }) {
  const lock = useLockPlace(slots);
  const { shot } = useWhere();
  const stay = useStaysPut(shot);
  const drawn = useGrowing(slots.length, 8);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const titleOf = (id: UniqueIdentifier) => slots.find((slot) => slot.shot.id === id)?.shot.title ?? '';
  const ids = slots.map((slot) => slot.shot.id);
  return (
    <DndContext
      sensors={sensors}
      accessibility={{
        announcements: {
          onDragStart: ({ active }) => `${titleOf(active.id)} is held. Arrows move it, space puts it down.`,
          onDragOver: ({ active, over }) =>
            over && over.id !== active.id
              ? `${titleOf(active.id)} comes to the place of ${titleOf(over.id)}.`
              : undefined,
          onDragEnd: ({ active, over }) =>
            over ? `${titleOf(active.id)} is put down.` : `${titleOf(active.id)} stays where it was.`,
          onDragCancel: ({ active }) => `${titleOf(active.id)} stays where it was.`,
        },
        screenReaderInstructions: { draggable: 'Space takes it up, arrows move it, space puts it down.' },
      }}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) =>
        over && lock(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)))
      }
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ol className="border-l-2 border-madder pl-4" aria-label="Order of filming">
          {slots.slice(0, drawn).map((slot) => (
            <OrderLine
              key={slot.shot.id}
              slot={slot}
              open={slot.shot.id === shot}
              onTap={(line) => {
                stay(line);
                goTo({ shot: slot.shot.id === shot ? null : slot.shot.id });
              }}
            />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

function OrderLine({ slot, open, onTap }: { slot: Slot; open: boolean; onTap: (line: Element) => void }) {
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const { shot } = slot;
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition, isDragging } =
    useSortable({ id: shot.id });
  const own = snapshot.choices.some((choice) => choice.shot === shot.id && choice.after);
  const dye = setupDye(snapshot.setups, shot.setup);
  return (
    <li
      ref={setNodeRef}
      data-knot={shot.title}
      className={`relative bg-ground pb-2 ${isDragging ? 'z-10 shadow-lg' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <span
        className="absolute top-0.5 -left-[25px] h-4 w-4 rounded-full border-4"
        style={{ borderColor: dye, background: own ? dye : 'var(--raised)' }}
      />
      <div className="flex items-start gap-1">
        <button
          type="button"
          aria-expanded={open}
          className="min-h-11 min-w-0 flex-1 text-left"
          onClick={(event) => onTap(event.currentTarget)}
        >
          <b className="font-semibold">{shot.title}</b>{' '}
          <span className="num">{slotClock(plan.schedule, slot.from, snapshot.day)}</span>
          <span className="block text-[12px] text-ink2">
            {sayReason(slot.reason, plan.names)}
            {own ? ' · locked' : ''}
          </span>
        </button>
        <button
          ref={setActivatorNodeRef}
          type="button"
          className="grid size-11 flex-none touch-none place-items-center text-ink2"
          {...attributes}
          {...listeners}
          aria-label={`Move ${shot.title}`}
        >
          <GripVertical size={18} aria-hidden />
        </button>
      </div>
      {open && (
        <div className="border-l-4 border-woad bg-raised px-3 py-2" data-detail={shot.id}>
          <ShotDetail slot={slot} />
        </div>
      )}
    </li>
  );
}
