'use client';
import type { Board, BoardRow } from '@/core/shoot/board';
import { useOffer } from '@/ui/actions/offers';
import { useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';

/** The next row that is not done, after the chosen one and then from the beginning. */
function nextOf({ rows }: Board, chosen: BoardRow | null): BoardRow | null {
  const at = rows.findIndex(({ id }) => id === chosen?.id);
  const around = [...rows.slice(at + 1), ...rows.slice(0, Math.max(0, at))];
  return around.find(({ done }) => !done) ?? null;
}

/** Which shot is filmed: chosen here, so that the camera stays open and held from one to the next. */
export function ShotChooser({ board, row, locked }: { board: Board; row: BoardRow | null; locked: boolean }) {
  const { go } = useServices();
  const next = nextOf(board, row);
  const on = () => next && !locked && go({ shot: next.id });
  useOffer([{ id: 'next-shot', text: 'Next shot that is missing', scope: 'set', keys: ['j'], run: on }]);
  return (
    <div className="flex min-w-0 flex-wrap items-center gap-x-3 gap-y-1">
      {/* Before the title, which grows as a take is rated: a thumb on its way must not meet another button. */}
      <button type="button" className="knob" disabled={!next || locked} onClick={on}>
        Next shot
      </button>
      {locked ? (
        <span className="text-[15px] font-semibold">{row?.title}</span>
      ) : (
        <LiveChoice
          label="Shot"
          value={row?.id ?? ''}
          options={board.rows.map(({ id, title, done }) => ({
            value: id,
            text: done ? `${title} · done` : title,
          }))}
          onChange={(shot) => go({ shot })}
        />
      )}
    </div>
  );
}
