'use client';
import { useEffect, useRef, useState } from 'react';

/** Size in CSS pixels of the element that gets the ref; zero until it is known. */
export function useSize<Element extends HTMLElement>() {
  const ref = useRef<Element>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    const element = ref.current;
    if (!element) return;
    const watch = new ResizeObserver(([entry]) => {
      setSize({ width: Math.floor(entry.contentRect.width), height: Math.floor(entry.contentRect.height) });
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  return [ref, size] as const;
}
