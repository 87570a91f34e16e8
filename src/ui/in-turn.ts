'use client';
import { useCallback, useRef } from 'react';

/** Runs work one piece after the other: each sees on the screen what the one before it did. */
export function useInTurn(): (work: () => void | Promise<void>) => void {
  const last = useRef<Promise<void>>(Promise.resolve());
  return useCallback((work) => {
    last.current = last.current.then(work).catch(() => undefined);
  }, []);
}
