'use client';
import { useMemo } from 'react';
import type { Board } from '@/core/shoot/board';
import { matchLog } from '@/core/shoot/match-log';
import { acceptPairs } from '@/store/commands/shoot';
import { useData, useServices } from '@/ui/bench-context';

/** "2 h 3 min 4 s ahead of" for seconds. */
function sayOffset(seconds: number): string {
  const whole = Math.round(Math.abs(seconds));
  if (whole < 3) return 'right';
  const parts = [
    [Math.floor(whole / 3600), 'h'],
    [Math.floor((whole % 3600) / 60), 'min'],
    [whole % 60, 's'],
  ] as const;
  const text = parts
    .filter(([value]) => value > 0)
    .map(([value, unit]) => `${value} ${unit}`)
    .join(' ');
  return `${text} ${seconds > 0 ? 'ahead' : 'behind'}`;
}

/** Files of another camera and the log lines they belong to, by time and length. */
export function MatchFiles({ board }: { board: Board }) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const logs = useMemo(() => board.rows.flatMap((row) => row.logs), [board]);
  const pairs = useMemo(() => {
    const linked = new Set(snapshot.logs.map(({ take }) => take));
    const files = snapshot.takes.flatMap((take) => {
      const media = snapshot.media.get(take.media);
      if (linked.has(take.id) || !media?.recorded || !media.probe) return [];
      return [{ id: take.id, started: media.recorded / 1000, length: media.probe.duration }];
    });
    const lines = logs.flatMap(({ id, take, length, started }) =>
      take || length === null ? [] : [{ id, length, started: started / 1000 }],
    );
    return matchLog(files, lines);
  }, [snapshot, logs]);
  if (pairs.length === 0) return null;
  const offsets = [...new Set(pairs.map(({ offset }) => sayOffset(offset)))];
  return (
    <div
      className="mx-3.5 mt-3 border-l-4 border-woad bg-raised px-3 py-2.5 text-[14px]"
      data-testid="match-files"
    >
      {pairs.length === 1 ? 'One file fits a log line' : `${pairs.length} files fit log lines`} by time and
      length; the camera’s clock is {offsets.join(', later ')}.
      <ul className="my-1.5">
        {pairs.map(({ file, log }) => {
          const line = logs.find(({ id }) => id === log);
          const row = board.rows.find(({ id }) => id === line?.shot);
          return (
            <li key={file}>
              {snapshot.takes.find(({ id }) => id === file)?.name} → {row?.title}, take {line?.number}
            </li>
          );
        })}
      </ul>
      <button
        type="button"
        className="knob main"
        onClick={() => attempt(() => acceptPairs(store, snapshot.project.id, board, pairs))}
      >
        {pairs.length === 1 ? 'That is right' : 'These are right'}
      </button>
    </div>
  );
}
