'use client';
import { useLayoutEffect, useRef } from 'react';

/** The nearest ancestor that scrolls. */
function scrollerOf(element: Element): Element | null {
  for (let at = element.parentElement; at; at = at.parentElement)
    if (at.scrollHeight > at.clientHeight && /auto|scroll/.test(getComputedStyle(at).overflowY)) return at;
  return document.scrollingElement;
}

/**
 * Keeps what was tapped where the finger is while something above it closes and something below it opens.
 * @param chosen what is open; the place is kept when this changes
 * @returns to be called with the tapped element
 */
export function useStaysPut(chosen: string | null): (element: Element) => void {
  const held = useRef<{ element: Element; top: number } | null>(null);
  useLayoutEffect(() => {
    const one = held.current;
    held.current = null;
    if (!one?.element.isConnected) return;
    const scroller = scrollerOf(one.element);
    if (scroller) scroller.scrollTop += one.element.getBoundingClientRect().top - one.top;
  }, [chosen]);
  return (element) => {
    held.current = { element, top: element.getBoundingClientRect().top };
  };
}
