'use client';
import { cautionsOf } from '@/core/plan/lists/danger';
import { cautionNote } from '@/core/safety/cautions';
import type { BoardRow } from '@/core/shoot/board';
import { useData } from '@/ui/bench-context';
import { Tick, useTicks } from '@/ui/tick';

/** What can hurt someone in this shot, once more before it is filmed; the same ticks as in the plan. */
export function CautionPart({ row, setup }: { row: BoardRow; setup: string }) {
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const ticked = useTicks();
  const moments = snapshot.moments.filter(
    ({ id }) => row.shot?.moments.includes(id) || row.pickup?.moment === id,
  );
  const input = { ...plan.input, moments, setups: snapshot.setups.filter(({ id }) => id === setup) };
  const cautions = row.shot?.what === 'plate' ? [] : cautionsOf(input);
  if (cautions.length === 0) return null;
  const open = cautions.flatMap(({ steps }) => steps).filter(({ key }) => !ticked.has(key)).length;
  return (
    <section
      aria-label="Cautions"
      className="border-l-4 px-3 py-2"
      style={{ borderColor: open > 0 ? 'var(--madder)' : 'var(--verdigris)' }}
      data-testid="cautions"
    >
      <h2 className="text-[16px] font-[560]">
        {open > 0 ? 'Before this is filmed' : 'Cautions, all ticked'}
      </h2>
      {cautions.map(({ kind, title, steps }) => (
        <div key={kind} className="mt-1.5 text-[14px]">
          <h3 className="font-semibold">{title}</h3>
          {steps.map(({ key, text }) => (
            <Tick key={key} of={key} text={text} done={ticked.has(key)} />
          ))}
        </div>
      ))}
      <p className="mt-1.5 text-[13px] text-ink2">{cautionNote}</p>
    </section>
  );
}
