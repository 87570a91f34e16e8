'use client';
import type { ReactNode } from 'react';
import { ratings, type Rating } from '@/core/model/shoot-records';
import { nextNumber, takeLabel, type Board, type BoardRow } from '@/core/shoot/board';
import { rateLast, rateLog } from '@/store/commands/shoot';
import { useOffer } from '@/ui/actions/offers';
import { useData, useServices } from '@/ui/bench-context';
import { useLow } from '@/ui/use-phone';
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
  beside = false,
  head = null,
  note = null,
}: {
  board: Board;
  row: BoardRow | null;
  /** what the large button says while nothing runs */
  begin: string;
  onBegin: () => void;
  onStop: () => void;
  busy?: boolean;
  /** it stands beside the picture, as it does on a phone held sideways */
  beside?: boolean;
  /** what stands above it */
  head?: ReactNode;
  /** what is to be known before a take begins and while it runs */
  note?: ReactNode;
}) {
  const { store, attempt } = useServices();
  const projectId = useData((data) => data.snapshot.project.id);
  /** at the side it is under the thumb */
  const low = useLow();
  const upright = low || beside;
  const { running, elsewhere } = useTake(board);
  const seconds = useRunning(running);
  const last = row?.logs.findLast(({ length }) => length !== null) ?? null;

  const rate = (rating: Rating) => {
    if (!row) return;
    void attempt(() => rateLast(store, projectId, { setup: board.setup, shot: row.id }, rating));
  };
  useOffer([
    {
      id: 'take',
      text: running ? 'Stop the take' : begin.replace('#', row ? String(nextNumber(row)) : ''),
      scope: 'set',
      keys: ['r'],
      run: () => {
        if (elsewhere) return;
        if (running) onStop();
        else if (row && !busy) onBegin();
      },
    },
    { id: 'good', text: 'The last take is good', scope: 'set', keys: ['g'], run: () => rate('good') },
    { id: 'maybe', text: 'The last take is a maybe', scope: 'set', keys: ['y'], run: () => rate('maybe') },
    { id: 'no', text: 'The last take is no good', scope: 'set', keys: ['x'], run: () => rate('no') },
  ]);

  const round = upright ? 'aspect-square w-full !rounded-full !px-1 leading-tight' : '';
  return (
    <div
      className={`flex flex-none flex-col gap-2.5 border-line bg-raised ${upright ? 'w-[124px] justify-between border-l p-2' : 'border-t px-3.5 pt-2.5 pb-3'}`}
    >
      {head}
      <div
        className={`flex ${upright ? 'flex-col gap-1.5' : 'gap-2.5'}`}
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
            className={`big rate flex-1 disabled:opacity-50 ${upright ? '!min-h-11 !py-1' : ''}`}
            style={{ color: ratingWords[rating].dye }}
            onClick={() => last && attempt(() => rateLog(store, last, rating))}
          >
            <span>{ratingWords[rating].text}</span>
          </button>
        ))}
      </div>
      {note}
      {running && elsewhere ? (
        <p
          role="status"
          data-testid="elsewhere"
          className={`big grid place-items-center border border-madder text-center ${round}`}
        >
          <span>
            Take {running.number} runs in another window ·{' '}
            <span className="num">{sayLengthOfTake(seconds)}</span>
          </span>
        </p>
      ) : running ? (
        <button
          type="button"
          className={`big bg-madder text-raised ${round}`}
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
          className={`big bg-ink text-ground disabled:opacity-60 ${round}`}
          disabled={!row || busy}
          onClick={onBegin}
        >
          {!row && 'Choose a shot'}
          {row &&
            (upright && !busy
              ? `Record take ${nextNumber(row)}`
              : begin.replace('#', String(nextNumber(row))))}
        </button>
      )}
    </div>
  );
}
