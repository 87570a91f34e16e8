'use client';
import { useState } from 'react';
import { cautionNote } from '@/core/safety/cautions';
import { cautionsOf } from '@/core/plan/lists/danger';
import { packingOf, type PackItem } from '@/core/plan/lists/packing';
import { setupSheet } from '@/core/plan/setup/sheet';
import { addItem, removePart } from '@/store/commands/plan';
import { useData, useServices } from '@/ui/bench-context';
import { Tick, useTicks } from '@/ui/tick';
import { useUnits } from '@/ui/live-length';

export const papers = [
  { id: 'call', text: 'Call sheet' },
  { id: 'shots', text: 'Shot list' },
  { id: 'setups', text: 'Setup sheets' },
  { id: 'zones', text: 'Room and zones' },
  { id: 'packing', text: 'Packing list' },
] as const;

const card = 'mb-4 break-inside-avoid border border-line bg-raised p-3';

/** Lists to tick: what to pack, what can hurt someone, what each setup needs set; and the papers to print. */
export function TakeAlongPage() {
  const { go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const units = useUnits();
  const ticked = useTicks();
  return (
    <div className="columns-[300px] gap-4 p-5 phone:p-3">
      <section className={card}>
        <h2 className="mb-1 text-[15px] font-[560]">Papers</h2>
        <p className="mb-2 text-ink2">Each prints on A4 or Letter and reads well on a phone.</p>
        <div className="flex flex-wrap gap-1.5">
          {papers.map(({ id, text }) => (
            <button
              key={id}
              type="button"
              className={`knob ${id === 'call' ? 'main' : ''}`}
              onClick={() => go({ station: 'papers', part: id })}
            >
              {text}
            </button>
          ))}
        </div>
      </section>
      <section className={card}>
        <h2 className="mb-1 text-[15px] font-[560]">Before filming: what can hurt someone</h2>
        <p className="mb-1 text-[12px] text-ink2">{cautionNote}</p>
        {cautionsOf(plan.input).map((caution) => (
          <div key={caution.kind} className="mt-2">
            <h3 className="font-sans text-[13px] font-semibold">{caution.title}</h3>
            <p className="text-[12px] text-ink2">for {caution.for.join(', ')}</p>
            {caution.steps.map(({ key, text }) => (
              <Tick key={key} of={key} text={text} done={ticked.has(key)} />
            ))}
          </div>
        ))}
      </section>
      <Packing ticked={ticked} />
      {snapshot.setups.map((setup) => {
        const numbers = plan.numbers.get(setup.id);
        return (
          numbers && (
            <section key={setup.id} className={card}>
              <h2 className="mb-1 text-[15px] font-[560]">{setup.name}: set and leave alone</h2>
              {setupSheet(setup, numbers, units).map(({ key, text }) => (
                <Tick key={key} of={key} text={text} done={ticked.has(key)} />
              ))}
            </section>
          )
        );
      })}
    </div>
  );
}

const groups: PackItem['group'][] = ['Kit', 'Clothes', 'Props', 'Tape and paper', 'Own'];

/** The packing list, ticked on the way out and on the way back. */
function Packing({ ticked }: { ticked: Set<string> }) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const [text, setText] = useState('');
  const items = packingOf(plan.input, snapshot.items);
  const add = () => {
    const wanted = text.trim();
    if (!wanted) return;
    void attempt(() => addItem(store, snapshot.project.id, { text: wanted }));
    setText('');
  };
  return (
    <section className={card}>
      <h2 className="mb-1 text-[15px] font-[560]">Packing list</h2>
      <p className="mb-1 flex justify-between text-[12px] text-ink2">
        <span>out</span>
        <span>back</span>
      </p>
      {groups.map((group) => {
        const mine = items.filter((item) => item.group === group);
        if (mine.length === 0) return null;
        return (
          <div key={group} className="mt-1.5">
            <h3 className="font-sans text-[13px] font-semibold">{group === 'Own' ? 'Of your own' : group}</h3>
            {mine.map((item) => (
              <div key={item.key} className="flex items-start gap-2 border-b border-dotted border-line">
                <span className="flex-1">
                  <Tick
                    of={`out/${item.key}`}
                    text={item.text}
                    done={ticked.has(`out/${item.key}`)}
                    label={`${item.text}, packed`}
                  />
                </span>
                {group === 'Own' && (
                  <button
                    type="button"
                    className="text-[12px] underline pointer-fine:min-h-6"
                    onClick={() =>
                      attempt(() => removePart(store, snapshot.project.id, item.key, 'Unpack it'))
                    }
                  >
                    remove
                  </button>
                )}
                <Tick
                  of={`back/${item.key}`}
                  text=""
                  done={ticked.has(`back/${item.key}`)}
                  label={`${item.text}, back again`}
                />
              </div>
            ))}
          </div>
        );
      })}
      <div className="mt-2 flex gap-1.5">
        <input
          aria-label="Something of your own to pack"
          className="min-w-0 flex-1 border-b-2 border-line bg-transparent px-1 outline-none focus:border-woad"
          placeholder="something of your own"
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && add()}
        />
        <button type="button" className="knob" onClick={add}>
          Add
        </button>
      </div>
    </section>
  );
}
