'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { say } from '@/ui/say';
import type { Log } from '@/core/model/shoot-records';
import { useServices } from '@/ui/bench-context';
import { finishRecording, record, whyEnded, type Running } from '@/workers/recordings';

/** Records takes of the open camera. Leaving the screen ends a recording as a press would. */
export function useRecording(onEnded: (log: Log) => Promise<void>) {
  const { store, attempt } = useServices();
  const [keeping, setKeeping] = useState(false);
  const [recorded, setRecorded] = useState<string | null>(null);
  const running = useRef<(Running & { log: string }) | null>(null);
  const ended = useRef(onEnded);
  useEffect(() => {
    ended.current = onEnded;
  });
  useEffect(() => () => running.current?.stop(), []);

  const begin = useCallback(
    async (stream: MediaStream, log: Log, name: string, bitsPerSecond: number) => {
      const one = await record(store, stream, log, name, bitsPerSecond);
      running.current = { ...one, log: log.id };
      setRecorded(log.id);
      void attempt(async () => {
        const { failure } = await one.ended;
        running.current = null;
        setRecorded(null);
        setKeeping(true);
        try {
          const said = whyEnded(failure);
          if (said) say('refused', said);
          await ended.current(log);
          const told = await finishRecording(store, log.id);
          if (told) say('refused', told);
        } finally {
          setKeeping(false);
        }
      });
    },
    [store, attempt],
  );
  return {
    begin,
    stop: () => running.current?.stop(),
    /** the take that is being recorded here, by its log line */
    recorded,
    keeping,
  };
}
