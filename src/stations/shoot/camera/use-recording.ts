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
  const running = useRef<Running | null>(null);
  const stopAsked = useRef(false);
  const ended = useRef(onEnded);
  useEffect(() => {
    ended.current = onEnded;
  });
  useEffect(
    () => () => {
      stopAsked.current = true;
      running.current?.stop();
    },
    [],
  );

  const begin = useCallback(
    async (stream: MediaStream, log: Log, name: string, bitsPerSecond: number) => {
      setRecorded(log.id);
      stopAsked.current = false;
      let one: Running;
      try {
        one = await record(store, stream, log, name, bitsPerSecond);
      } catch (error) {
        setRecorded(null);
        throw error;
      }
      running.current = one;
      // Somebody was quicker than the recorder.
      if (stopAsked.current) one.stop();
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
    stop: () => {
      stopAsked.current = true;
      running.current?.stop();
    },
    /** the take that is being recorded here, by its log line */
    recorded,
    keeping,
  };
}
