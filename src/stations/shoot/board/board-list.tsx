'use client';
import type { ReactNode } from 'react';
import type { Board, BoardRow } from '@/core/shoot/board';
import { slotClock } from '@/core/plan/order/schedule';
import { useData } from '@/ui/bench-context';
import { useGrowing } from '@/ui/use-growing';
import { useStaysPut } from '@/ui/use-stays-put';

type State = { text: string; dye: string };

/** How a row stands, in a word. */
function stateOf(row: BoardRow, next: boolean): State {
  if (row.done) return { text: row.good > 0 ? 'good' : 'kept', dye: 'var(--verdigris)' };
  if (next) return { text: 'next', dye: 'var(--woad)' };
  if (row.begun) return { text: row.good > 0 ? 'partly' : 'not yet good', dye: 'var(--saffron)' };
  return { text: 'missing', dye: 'var(--madder)' };
}

/** "3 takes · 2 good · 1 maybe" */
function counts({ logs, good, maybe }: BoardRow): string {
  if (logs.length === 0) return '';
  const takes = `${logs.length} take${logs.length === 1 ? '' : 's'}`;
  return [takes, `${good} good`, ...(maybe > 0 ? [`${maybe} maybe`] : [])].join(' · ');
}

/** Every shot of the setup in the planned order. */
export function BoardList({
  board,
  chosen,
  onChoose,
  detail,
}: {
  board: Board;
  chosen: BoardRow | null;
  onChoose: (row: BoardRow) => void;
  /** shown under the chosen row, where there is no room beside the list */
  detail?: ReactNode;
}) {
  const stay = useStaysPut(chosen?.id ?? null);
  const plan = useData((data) => data.plan);
  const at = board.rows.findIndex((row) => row === chosen);
  // What is chosen is there from the start, however far down it stands.
  const drawn = Math.max(at + 1, useGrowing(board.rows.length, 8));
  const snapshot = useData((data) => data.snapshot);
  return (
    <ol className="flex flex-col gap-2 px-3.5 py-3" aria-label="Shots of this setup">
      {board.rows.slice(0, drawn).map((row) => {
        const state = stateOf(row, row === board.next);
        const slot = plan.schedule.slots.find(({ shot }) => shot.id === row.id);
        const asked = row.variations.filter((one) => one.asked);
        return (
          <li key={row.id}>
            <button
              type="button"
              aria-pressed={row === chosen}
              data-row={row.id}
              data-state={state.text}
              onClick={(event) => {
                stay(event.currentTarget);
                onChoose(row);
              }}
              className={`flex min-h-[60px] w-full items-center gap-3 bg-raised py-2 pr-3.5 pl-0 text-left ${row === chosen ? 'shadow-[inset_0_0_0_2px_var(--ink)]' : ''}`}
            >
              <span
                className="w-[6px] flex-none self-stretch"
                style={{
                  background: `repeating-linear-gradient(0deg, ${state.dye} 0 6px, transparent 6px 12px)`,
                }}
              />
              <span className="min-w-0 flex-1">
                <span className="block text-[16px] leading-tight font-semibold">{row.title}</span>
                <span className="block text-[13.5px] text-ink2">{counts(row) || row.note}</span>
                {asked.length > 0 && (
                  <span className="block text-[13.5px]">
                    {asked
                      .filter(({ good }) => good > 0)
                      .map(({ name }) => (
                        <span key={name} className="mr-2 text-verdigris">
                          ✓ {name}
                        </span>
                      ))}
                    {asked.some(({ good }) => good === 0) && (
                      <span className="text-saffron">
                        still:{' '}
                        {asked
                          .filter(({ good }) => good === 0)
                          .map(({ name }) => name)
                          .join(', ')}
                      </span>
                    )}
                  </span>
                )}
              </span>
              <span className="flex-none text-right">
                <span className="block text-[14px] font-semibold" style={{ color: state.dye }}>
                  {state.text}
                </span>
                {slot && row.logs.length === 0 && (
                  <span className="num block text-ink2">
                    {slotClock(plan.schedule, slot.from, snapshot.day)}
                  </span>
                )}
              </span>
            </button>
            {row === chosen && detail}
          </li>
        );
      })}
    </ol>
  );
}
