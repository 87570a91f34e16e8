'use client';
import { useRef } from 'react';
import { useServices } from './bench-context';

/** Notches of a wheel this close together, in milliseconds, are one turn of it. */
const oneTurn = 400;

/** Runs what a held key or a turned wheel does as one gesture, which undo takes back as a whole. */
export function useGesture() {
  const { store } = useServices();
  const last = useRef({ id: '', at: -Infinity });
  return <Result>(event: Event, work: () => Result): Result => {
    const goesOn =
      event instanceof KeyboardEvent ? event.repeat : event.timeStamp - last.current.at < oneTurn;
    last.current = { id: goesOn ? last.current.id : crypto.randomUUID(), at: event.timeStamp };
    return store.within(last.current.id, work);
  };
}
