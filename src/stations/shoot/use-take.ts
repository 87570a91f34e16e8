'use client';
import { useEffect, useState } from 'react';
import type { Log } from '@/core/model/shoot-records';
import type { Board, BoardRow } from '@/core/shoot/board';
import { startLog, stopLog } from '@/store/commands/shoot';
import { useData, useServices } from '@/ui/bench-context';

/** When takes were begun by the clock that never jumps; only this visit knows. */
const begun = new Map<string, number>();

/** Seconds that a take has run. After a reload only the time of day is left to tell. */
export function ranFor(log: Log): number {
  const start = begun.get(log.id);
  return start === undefined
    ? Math.max(0, (Date.now() - log.started) / 1000)
    : (performance.now() - start) / 1000;
}

/** The take of a setup that runs, with what begins and ends takes. */
export function useTake(board: Board) {
  const { store } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const running = snapshot.logs.find((log) => log.length === null && log.setup === board.setup) ?? null;
  return {
    running,
    start: async (row: BoardRow, given: Pick<Log, 'variation' | 'draft' | 'passage'>): Promise<Log> => {
      const log = await startLog(store, snapshot.project.id, board.setup, row.id, given);
      begun.set(log.id, performance.now());
      return log;
    },
    stop: async (log: Log): Promise<void> => {
      await stopLog(store, log, ranFor(log));
      begun.delete(log.id);
    },
  };
}

/** Seconds that a take has run, four times a second. */
export function useRunning(log: Log | null): number {
  const [ran, setRan] = useState({ log: '', seconds: 0 });
  useEffect(() => {
    if (!log) return;
    const tick = () => setRan({ log: log.id, seconds: ranFor(log) });
    const timer = setInterval(tick, 250);
    return () => clearInterval(timer);
  }, [log]);
  // What is left of the take before is not this take's time.
  return ran.log === log?.id ? ran.seconds : 0;
}
