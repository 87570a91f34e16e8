'use client';
import { slotClock, type Slot } from '@/core/plan/order/schedule';
import { chooseShot } from '@/store/commands/plan';
import { useData, useServices } from '@/ui/bench-context';
import { Reading } from '@/ui/findings';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';
import { sayReason } from '../reasons';

/** All about one shot of the order: how it is filmed, how long that takes, its place, and why. */
export function ShotDetail({ slot }: { slot: Slot }) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const { schedule, names } = useData((data) => data.plan);
  const { shot } = slot;
  const choice = snapshot.choices.find((one) => one.shot === shot.id);
  const save = (set: Parameters<typeof chooseShot>[3]) =>
    attempt(() => chooseShot(store, snapshot.project.id, shot.id, set));
  return (
    <>
      <p className="mb-1 text-ink2">{shot.note}</p>
      <p className="leading-7">
        <LiveNumber
          label="Takes expected"
          value={shot.takes}
          step={1}
          min={1}
          max={99}
          show={(value) => `${value} ${value === 1 ? 'take' : 'takes'}`}
          onChange={(takes) => save({ takes: Math.round(takes) })}
        />{' '}
        of {shot.seconds} s, in{' '}
        <LiveNumber
          label="Minutes planned"
          value={shot.minutes}
          step={1}
          min={1}
          max={600}
          show={(value) => `${value} min`}
          onChange={(minutes) => save({ minutes: Math.round(minutes) })}
        />
        {choice?.minutes ? ' (set by hand)' : ''}. Its place is{' '}
        <LiveChoice
          label="Place in the order"
          value={choice?.after ?? 'free'}
          options={[
            { value: 'free', text: 'free' },
            { value: 'first', text: 'before all others' },
            ...schedule.slots
              .map((one, index) => ({
                value: one.shot.id,
                text: `straight after ${index + 1}: ${one.shot.title}`,
              }))
              .filter(({ value }) => value !== shot.id),
          ]}
          onChange={(after) => save({ after: after === 'free' ? null : after })}
        />
        .
      </p>
      <Reading name="Why here" value={sayReason(slot.reason, names)} />
      <Reading
        name="Clock"
        value={`${slotClock(schedule, slot.from, snapshot.day)} to ${slotClock(schedule, slot.until, snapshot.day)}`}
      />
      {shot.same.length > 0 && <Reading name="Keep equal" value={shot.same.join(', ')} />}
      {shot.clothes && <Reading name="Clothes" value={shot.clothes} />}
    </>
  );
}
