'use client';
import { useEffect, useState } from 'react';

/** Size in CSS pixels of the element that gets the ref, whenever it comes; zero until it is known. */
export function useSize<Element extends HTMLElement>() {
  const [element, setElement] = useState<Element | null>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    if (!element) return;
    const watch = new ResizeObserver(([entry]) => {
      setSize({ width: Math.floor(entry.contentRect.width), height: Math.floor(entry.contentRect.height) });
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, [element]);
  return [setElement, size] as const;
}
