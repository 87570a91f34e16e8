'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { say } from '@/ui/say';
import type { Store } from '@/store/db';
import { asCoreError } from '@/workers/plain-errors';

/** Runs something that may be refused. Resolves once its changes are on the screen, or the refusal is said. */
type Attempt = (work: () => unknown) => Promise<void>;

/**
 * Runs what people ask for, at once and one beside the other.
 * @param drawn the newest step that the screen shows, as a stamp
 * @returns `pending` counts what is not on the screen yet
 */
export function useAttempt(store: Store, project: string, drawn: string) {
  const [pending, setPending] = useState(0);
  const shown = useRef(drawn);
  const waiting = useRef(new Map<() => void, string>());

  useEffect(() => {
    shown.current = drawn;
    for (const [resolve, step] of waiting.current) {
      if (step > drawn) continue;
      waiting.current.delete(resolve);
      resolve();
    }
  }, [drawn]);
  useEffect(() => {
    const all = waiting.current;
    return () => {
      for (const resolve of all.keys()) resolve();
      all.clear();
    };
  }, []);

  const attempt: Attempt = useCallback(
    async (work) => {
      setPending((count) => count + 1);
      try {
        await work();
        const step = store.latest.get(project) ?? '';
        if (step > shown.current)
          await new Promise<void>((resolve) => void waiting.current.set(resolve, step));
      } catch (error) {
        say('refused', asCoreError(error).message);
      } finally {
        setPending((count) => count - 1);
      }
    },
    [store, project],
  );
  return { attempt, pending };
}
