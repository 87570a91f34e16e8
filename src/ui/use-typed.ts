'use client';
import { useEffect, useRef, useState } from 'react';

/** Milliseconds after the last letter at which what was typed is kept. */
const pause = 400;

/**
 * Words that are kept while they are typed. What is stored shows at once, also where it was undone or came from
 * another device, unless something newer is being typed.
 */
export function useTyped(stored: string, keep: (text: string) => void) {
  const [typed, setTyped] = useState<string | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const pending = useRef<(() => void) | null>(null);
  const flush = () => {
    clearTimeout(timer.current);
    pending.current?.();
    pending.current = null;
  };
  useEffect(
    () => () => {
      clearTimeout(timer.current);
      pending.current?.();
    },
    [],
  );
  // What was typed is stored: from here on what is stored counts.
  if (typed !== null && typed === stored) setTyped(null);
  const type = (text: string) => {
    setTyped(text);
    clearTimeout(timer.current);
    pending.current = () => keep(text);
    timer.current = setTimeout(flush, pause);
  };
  return { text: typed ?? stored, type, flush };
}
