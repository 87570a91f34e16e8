'use client';
import { useRef } from 'react';

/** Values that were asked for and are not drawn yet, so that the next step is made from them and none is lost. */
export function useAhead<Value>() {
  const sent = useRef(new Map<string, Value[]>());
  return {
    /** The newest value of a thing: the last that was asked for, else the one that is drawn. */
    newest: (thing: string, drawn: Value): Value => sent.current.get(thing)?.at(-1) ?? drawn,
    /** Takes note of a value that is on its way. @param done resolves once it is drawn or was refused */
    send: (thing: string, value: Value, done: void | Promise<void>): void => {
      if (!done) return;
      const values = sent.current.get(thing) ?? [];
      sent.current.set(thing, values);
      values.push(value);
      void done.finally(() => values.shift());
    },
  };
}
