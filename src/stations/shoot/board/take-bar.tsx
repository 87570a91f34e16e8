'use client';
import { ratings, type Rating } from '@/core/model/shoot-records';
import { nextNumber, takeLabel, type Board, type BoardRow } from '@/core/shoot/board';
import { rateLast, rateLog } from '@/store/commands/shoot';
import { useOffer } from '@/ui/actions/offers';
import { useBench } from '@/ui/bench-context';
import { useRunning, useTake } from '../use-take';
import { ratingWords, sayLengthOfTake } from '../words';

/** What a thumb reaches: rate the last take, and begin or end one. */
export function TakeBar({
  board,
  row,
  begin,
  onBegin,
  onStop,
  busy = false,
}: {
  board: Board;
  row: BoardRow | null;
  /** what the large button says while nothing runs */
  begin: string;
  onBegin: () => void;
  onStop: () => void;
  busy?: boolean;
}) {
  const { store, snapshot, attempt } = useBench();
  const { running } = useTake(board);
  const seconds = useRunning(running);
  const last = row?.logs.findLast(({ length }) => length !== null) ?? null;

  const rate = (rating: Rating) => {
    if (!row) return;
    void attempt(() => rateLast(store, snapshot.project.id, { setup: board.setup, shot: row.id }, rating));
  };
  useOffer([
    {
      id: 'take',
      text: running ? 'Stop the take' : begin.replace('#', row ? String(nextNumber(row)) : ''),
      scope: 'set',
      keys: ['r'],
      run: () => {
        if (running) onStop();
        else if (row && !busy) onBegin();
      },
    },
    { id: 'good', text: 'The last take is good', scope: 'set', keys: ['g'], run: () => rate('good') },
    { id: 'maybe', text: 'The last take is a maybe', scope: 'set', keys: ['y'], run: () => rate('maybe') },
    { id: 'no', text: 'The last take is no good', scope: 'set', keys: ['x'], run: () => rate('no') },
  ]);

  return (
    <div className="flex flex-none flex-col gap-2.5 border-t border-line bg-raised px-3.5 pt-2.5 pb-3">
      <div
        className="flex gap-2.5"
        role="group"
        aria-label={last ? `Rate take ${last.number}` : 'Rate the take'}
      >
        {ratings.map((rating) => (
          <button
            key={rating}
            type="button"
            disabled={!last || Boolean(running)}
            aria-pressed={last?.rating === rating}
            aria-label={last ? `Take ${last.number}: ${ratingWords[rating].text}` : ratingWords[rating].text}
            className="big rate flex-1 disabled:opacity-50"
            style={{ color: ratingWords[rating].dye }}
            onClick={() => last && attempt(() => rateLog(store, last, rating))}
          >
            <span>{ratingWords[rating].text}</span>
          </button>
        ))}
      </div>
      {running ? (
        <button
          type="button"
          className="big bg-madder text-raised"
          data-ran={Math.floor(seconds)}
          onClick={onStop}
        >
          Stop take{' '}
          {takeLabel(
            running,
            board.rows.flatMap(({ logs }) => logs),
          )}{' '}
          · <span className="num !text-[16px]">{sayLengthOfTake(seconds)}</span>
        </button>
      ) : (
        <button
          type="button"
          className="big bg-ink text-ground disabled:opacity-60"
          disabled={!row || busy}
          onClick={onBegin}
        >
          {row ? begin.replace('#', String(nextNumber(row))) : 'Choose a shot'}
        </button>
      )}
    </div>
  );
}
