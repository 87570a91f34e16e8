'use client';
import { useEffect, useState } from 'react';
import { askBeforeLeaving } from './where';

/**
 * Asks before somebody leaves while something runs that leaving would end, by whatever way: a station, the browser's
 * way back, closing the page.
 * @returns the way on that waits for an answer, or null
 */
export function useLeaving(running: boolean): { goOn: () => void; stay: () => void } | null {
  const [way, setWay] = useState<(() => void) | null>(null);
  useEffect(() => {
    if (!running) return;
    const end = askBeforeLeaving((go) => setWay(() => go));
    const close = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', close);
    return () => {
      end();
      setWay(null);
      window.removeEventListener('beforeunload', close);
    };
  }, [running]);
  if (!running || !way) return null;
  const stay = () => setWay(null);
  return {
    goOn: () => {
      stay();
      way();
    },
    stay,
  };
}
