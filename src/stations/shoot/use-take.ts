'use client';
import { useEffect, useState } from 'react';
import type { Log } from '@/core/model/shoot-records';
import type { Board, BoardRow } from '@/core/shoot/board';
import { startLog, stopLog } from '@/store/commands/shoot';
import { useData, useServices } from '@/ui/bench-context';

/** When takes were begun by the clock that never jumps, and how to tell other pages that they are over. */
const begun = new Map<string, { at: number; release: () => void }>();

const lockOf = (log: string) => `fickle-ribbon-take-${log}`;
/** Holds a take for as long as it runs and this page lives, so that other pages leave it alone. */
function holdTake(log: string): () => void {
  let release: () => void = () => undefined;
  const over = new Promise<void>((resolve) => (release = resolve));
  // An address that is not safe has no locks: then there is nobody to tell.
  void navigator.locks?.request(lockOf(log), () => over);
  return release;
}

/** Whether a take that runs was begun in another page of this browser, which is still open. */
function useElsewhere(log: string | null): boolean {
  const [found, setFound] = useState<string | null>(null);
  useEffect(() => {
    if (!log || begun.has(log) || !navigator.locks) return;
    let here = true;
    const look = async () => {
      const { held = [] } = await navigator.locks.query();
      if (here) setFound(held.some(({ name }) => name === lockOf(log)) ? log : null);
    };
    void look();
    const timer = setInterval(() => void look(), 1000);
    return () => {
      here = false;
      clearInterval(timer);
    };
  }, [log]);
  return log !== null && found === log && !begun.has(log);
}

/** Seconds that a take has run. After a reload only the time of day is left to tell. */
export function ranFor(log: Log): number {
  const start = begun.get(log.id);
  return start === undefined
    ? Math.max(0, (Date.now() - log.started) / 1000)
    : (performance.now() - start.at) / 1000;
}

/** The take of a setup that runs, with what begins and ends takes. */
export function useTake(board: Board) {
  const { store } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const running = snapshot.logs.find((log) => log.length === null && log.setup === board.setup) ?? null;
  const elsewhere = useElsewhere(running?.id ?? null);
  return {
    running,
    /** another page of this browser films it: it is neither stopped nor rated here */
    elsewhere,
    start: async (
      row: BoardRow,
      given: Pick<Log, 'variation' | 'draft' | 'passage'>,
      id?: string,
    ): Promise<Log> => {
      const log = await startLog(store, snapshot.project.id, board.setup, row.id, given, id);
      begun.set(log.id, { at: performance.now(), release: holdTake(log.id) });
      return log;
    },
    stop: async (log: Log): Promise<void> => {
      await stopLog(store, log, ranFor(log));
      begun.get(log.id)?.release();
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
