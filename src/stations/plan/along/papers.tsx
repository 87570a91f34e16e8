'use client';
import { cautionNote } from '@/core/safety/cautions';
import { cautionsOf } from '@/core/plan/lists/danger';
import { packingOf } from '@/core/plan/lists/packing';
import { slotClock } from '@/core/plan/order/schedule';
import { setupSheet } from '@/core/plan/setup/sheet';
import { clockTime, dateOf } from '@/core/time/zone';
import { useData, useServices } from '@/ui/bench-context';
import { useUnits } from '@/ui/live-length';
import { useWhere } from '@/ui/where';
import { LensView } from '../room/lens-view';
import { sayReason } from '../reasons';
import { papers } from './take-along-page';
import { TopView } from '../room/top-view';

/** One of the papers to take along, laid out for paper and for a phone. */
export function Papers() {
  const { go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const where = useWhere();
  const paper = papers.find(({ id }) => id === where.part) ?? papers[0];
  const pages = {
    call: CallSheet,
    shots: ShotList,
    setups: SetupSheets,
    zones: RoomDrawings,
    packing: PackingList,
  };
  const Page = pages[paper.id];
  return (
    <main className="mx-auto w-full max-w-[820px] overflow-y-auto p-8 print:max-w-none print:overflow-visible print:p-0 phone:p-4">
      <div className="mb-5 flex flex-wrap gap-2 print:hidden">
        <button type="button" className="knob" onClick={() => go({ station: 'plan', part: 'along' })}>
          Back
        </button>
        <button type="button" className="knob main" onClick={() => window.print()}>
          Print
        </button>
        <span className="flex-1" />
        {papers.map(({ id, text }) => (
          <button
            key={id}
            type="button"
            className="knob"
            aria-pressed={id === paper.id}
            onClick={() => go({ part: id })}
          >
            {text}
          </button>
        ))}
      </div>
      <h1 className="text-[26px] font-medium">{paper.text}</h1>
      <p className="mb-4 border-b-2 border-ink pb-2 text-ink2 print:text-black">{snapshot.project.name}</p>
      <Page />
    </main>
  );
}

function CallSheet() {
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const { schedule, names } = plan;
  const { day } = snapshot;
  const clock = (minutes: number) => slotClock(schedule, minutes, day);
  const dayStart = schedule.start ?? 0;
  return (
    <>
      <p className="mb-3 text-[15px]">
        {day ? (
          <>
            {schedule.days.map(({ from, until }, index) => (
              <span key={from} className="block">
                {schedule.days.length > 1 && `Day ${index + 1}: `}
                <b>{dateOf(dayStart + from * 60_000, day.zone)}</b>, call{' '}
                <b className="num">{clockTime(dayStart + from * 60_000, day.zone)}</b>, wrap{' '}
                <b className="num">{clockTime(dayStart + until * 60_000, day.zone)}</b> ({day.zone}).
              </span>
            ))}
          </>
        ) : (
          'No date is set yet; times count from the start.'
        )}{' '}
        {snapshot.moments.length} moments, {schedule.slots.length} shots, {snapshot.setups.length}{' '}
        {snapshot.setups.length === 1 ? 'setup' : 'setups'}.
      </p>
      <Table
        heads={['', 'From', 'Shot', 'Takes', 'Length', 'Clothes', 'Why here']}
        wide={5}
        rows={schedule.slots.map((slot, index) => ({
          key: slot.shot.id,
          above: slot.newSetup ? (names[slot.shot.setup] ?? 'Without a setup') : null,
          cells: [
            `${index + 1}`,
            clock(slot.from),
            `${slot.shot.title}${slot.shot.moments.length === 1 ? ` (${names[slot.shot.moments[0]]})` : ''}`,
            `${slot.shot.takes}`,
            `${slot.shot.seconds} s`,
            slot.shot.clothes ?? '',
            sayReason(slot.reason, names),
          ],
          under: [slot.shot.clothes && `${slot.shot.clothes} clothes`, sayReason(slot.reason, names)]
            .filter(Boolean)
            .join('; '),
        }))}
      />
      <h2 className="mt-5 mb-1 text-[17px]">What can hurt someone</h2>
      <p className="mb-2">{cautionNote}</p>
      {cautionsOf(plan.input).map((caution) => (
        <div key={caution.kind} className="mb-2 break-inside-avoid">
          <b>{caution.title}</b> <span>({caution.for.join(', ')})</span>
          <Boxes lines={caution.steps.map(({ text }) => text)} />
        </div>
      ))}
    </>
  );
}

function ShotList() {
  const plan = useData((data) => data.plan);
  const { moments, schedule, names } = plan;
  return (
    <>
      {moments.map(({ moment, filming }) => {
        const shots = schedule.slots
          .map(({ shot }) => shot)
          .filter((shot) => shot.moments.includes(moment.id));
        return (
          <section key={moment.id} className="mb-5 break-inside-avoid">
            <h2 className="text-[17px]">{moment.name}</h2>
            {moment.story && <p className="italic">{moment.story}</p>}
            <Table
              heads={['', 'Shot', 'Length', 'Takes', 'Where', 'How']}
              rows={shots.map((shot) => ({
                key: shot.id,
                above: null,
                cells: [
                  '☐',
                  shot.title,
                  `${shot.seconds} s`,
                  `${shot.takes}`,
                  names[shot.setup] ?? '',
                  shot.note,
                ],
              }))}
            />
            {filming.untouched.length > 0 && (
              <p className="mt-1">Never touch: {filming.untouched.join(', ')}.</p>
            )}
          </section>
        );
      })}
      {schedule.slots.some(({ shot }) => shot.moments.length === 0) && (
        <section className="break-inside-avoid">
          <h2 className="text-[17px]">Performance</h2>
          <Table
            heads={['', 'Shot', 'Length', 'Takes', 'Where']}
            rows={schedule.slots
              .filter(({ shot }) => shot.moments.length === 0)
              .map(({ shot }) => ({
                key: shot.id,
                above: null,
                cells: ['☐', shot.title, `${shot.seconds} s`, `${shot.takes}`, names[shot.setup] ?? ''],
              }))}
          />
        </section>
      )}
    </>
  );
}

function SetupSheets() {
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const units = useUnits();
  const { numbers } = plan;
  return snapshot.setups.map((setup) => {
    const mine = numbers.get(setup.id);
    return (
      mine && (
        <section key={setup.id} className="mb-6 break-inside-avoid">
          <h2 className="mb-1 text-[17px]">{setup.name}</h2>
          <Boxes lines={setupSheet(setup, mine, units).map(({ text }) => text)} />
        </section>
      )
    );
  });
}

function RoomDrawings() {
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const { numbers } = plan;
  return snapshot.setups.map((setup) => {
    const mine = numbers.get(setup.id);
    return (
      mine && (
        <section key={setup.id} className="mb-6 break-inside-avoid">
          <h2 className="mb-2 text-[17px]">{setup.name}</h2>
          <div className="flex flex-wrap items-start gap-3 [&_svg]:h-auto [&_svg]:max-w-full">
            <TopView setup={setup} numbers={mine} width={300} height={280} />
            <LensView setup={setup} numbers={mine} width={420} drawing={null} />
          </div>
        </section>
      )
    );
  });
}

function PackingList() {
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const items = packingOf(plan.input, snapshot.items);
  const groups = [...new Set(items.map(({ group }) => group))];
  return groups.map((group) => (
    <section key={group} className="mb-4 break-inside-avoid">
      <h2 className="mb-1 text-[17px]">{group}</h2>
      <Table
        heads={['Out', 'Back', 'What', 'For']}
        rows={items
          .filter((item) => item.group === group)
          .map((item) => ({ key: item.key, above: null, cells: ['☐', '☐', item.text, item.for.join(', ')] }))}
      />
    </section>
  ));
}

const Boxes = ({ lines }: { lines: readonly string[] }) => (
  <ul>
    {lines.map((text) => (
      <li key={text} className="flex gap-2 py-0.5">
        <span aria-hidden>☐</span>
        <span>{text}</span>
      </li>
    ))}
  </ul>
);

/** `under` stands below the shot on a phone, in place of the columns that do not fit there. */
type Line = { key: string; above: string | null; cells: string[]; under?: string };

function Table({
  heads,
  rows,
  wide = heads.length,
}: {
  heads: readonly string[];
  rows: readonly Line[];
  wide?: number;
}) {
  const onlyWide = (index: number) => (index >= wide ? 'phone:hidden' : '');
  return (
    <table className="w-full border-collapse text-[12.5px]">
      <thead>
        <tr>
          {heads.map((head, index) => (
            <th
              key={index}
              scope="col"
              className={`border-b-2 border-ink py-1 pr-3 text-left ${onlyWide(index)}`}
            >
              {head || <span className="sr-only">Tick</span>}
            </th>
          ))}
        </tr>
      </thead>
      {rows.map(({ key, above, cells, under }) => (
        <tbody key={key} className="break-inside-avoid">
          {above && (
            <tr>
              <td colSpan={heads.length} className="border-b border-ink pt-3 font-serif text-[15px]">
                {above}
              </td>
            </tr>
          )}
          <tr>
            {cells.map((cell, index) => (
              <td
                key={index}
                className={`border-b border-dotted border-line py-1 pr-3 align-top ${onlyWide(index)}`}
              >
                {cell}
                {under && index === 2 && (
                  <span className="block text-[12px] print:hidden desk:hidden">{under}</span>
                )}
              </td>
            ))}
          </tr>
        </tbody>
      ))}
    </table>
  );
}
