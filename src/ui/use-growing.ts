'use client';
import { startTransition, useEffect, useState } from 'react';

/**
 * How many of many things are drawn: a few at once and the rest a few at a time, so that a long list never holds up
 * what is pressed meanwhile.
 * @param total how many there are; @param step how many come at a time
 */
export function useGrowing(total: number, step: number): number {
  const [drawn, setDrawn] = useState(step);
  useEffect(() => {
    if (drawn >= total) return;
    const timer = setTimeout(() => startTransition(() => setDrawn(drawn + step)));
    return () => clearTimeout(timer);
  }, [drawn, total, step]);
  return Math.min(drawn, total);
}
