'use client';
import { fileName } from '@/core/formats/file-name';
import { writeCalendar } from '@/core/formats/calendar';
import { writeShotList } from '@/core/formats/shot-list';
import { refuse } from '@/core/error';
import { doneAt, slotClock } from '@/core/plan/order/schedule';
import { freePlaces } from '@/store/commands/plan';
import { useData, useServices } from '@/ui/bench-context';
import { Findings } from '@/ui/findings';
import { usePhone } from '@/ui/use-phone';
import { useWhere } from '@/ui/where';
import { saveFile } from '../../save';
import { Part } from '../../station';
import { sayReason } from '../reasons';
import { ShotDetail } from './shot-detail';

const about = (code: string) => /^(order|plan\.(light|sun))/.test(code);

/** What was found about the order, the chosen shot, and the files. */
export function OrderSide() {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const where = useWhere();
  const phone = usePhone();
  const { schedule, names } = plan;
  const slot = schedule.slots.find(({ shot }) => shot.id === where.shot) ?? schedule.slots[0];
  const locked = snapshot.choices.filter((one) => one.after);
  const base = fileName(snapshot.project.name);
  return (
    <>
      <Part title="What the bench found">
        <Findings findings={plan.findings.filter(({ code }) => about(code))} />
        {locked.length > 0 && (
          <button
            type="button"
            className="knob mt-2"
            onClick={() => attempt(() => freePlaces(store, snapshot.project.id))}
          >
            Free {locked.length === 1 ? 'the locked place' : `all ${locked.length} locked places`}
          </button>
        )}
      </Part>
      {slot && !phone && (
        <Part title={slot.shot.title}>
          <ShotDetail slot={slot} />
        </Part>
      )}
      <Part title="Take it away">
        <div className="flex flex-wrap gap-1.5">
          <button
            type="button"
            className="knob"
            onClick={() =>
              saveFile(
                `${base}-shots.csv`,
                writeShotList(schedule.slots, {
                  clock: (minutes) => slotClock(schedule, minutes, snapshot.day),
                  setup: (id) => names[id] ?? '',
                  moment: (id) => names[id] ?? '',
                  reason: (one) => sayReason(one.reason, names),
                }),
                'text/csv',
              )
            }
          >
            Shot list (CSV)
          </button>
          <button
            type="button"
            className="knob"
            onClick={() =>
              attempt(async () => {
                const { start } = schedule;
                if (start === null)
                  return refuse('no-day', 'Give the day a date first: press the date above the order.');
                const events = schedule.slots.map((one) => ({
                  id: `${snapshot.project.id}/${one.shot.id}`,
                  title: one.shot.title,
                  text: `${one.shot.takes} × ${one.shot.seconds} s. ${one.shot.note} (${sayReason(one.reason, names)})`,
                  place: names[one.shot.setup],
                  start: start + one.from * 60_000,
                  end: start + one.until * 60_000,
                }));
                saveFile(`${base}-timetable.ics`, writeCalendar(events, Date.now()), 'text/calendar');
              })
            }
          >
            Timetable (calendar)
          </button>
        </div>
        {schedule.start !== null && snapshot.day && (
          <p className="mt-1 text-[12px] text-ink2">
            Done: {slotClock(schedule, doneAt(schedule), snapshot.day)}.
          </p>
        )}
      </Part>
    </>
  );
}
