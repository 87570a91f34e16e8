'use client';
import { useSyncExternalStore } from 'react';

/** Where the person is: ids in the address, so that it can be kept and sent. */
export type Where = {
  project: string | null;
  station: string | null;
  moment: string | null;
  part: string | null;
  setup: string | null;
  shot: string | null;
  /** number of the training round that is played; a new one each time where there is none */
  round: string | null;
};

const changed = 'fickle-ribbon:where';
const search = () => window.location.search;
const listen = (listener: () => void) => {
  window.addEventListener('popstate', listener);
  window.addEventListener(changed, listener);
  return () => {
    window.removeEventListener('popstate', listener);
    window.removeEventListener(changed, listener);
  };
};

export function useWhere(): Where {
  const query = new URLSearchParams(useSyncExternalStore(listen, search, () => ''));
  const get = (key: keyof Where) => query.get(key);
  return {
    project: get('project'),
    station: get('station'),
    moment: get('moment'),
    part: get('part'),
    setup: get('setup'),
    shot: get('shot'),
    round: get('round'),
  };
}

/** Goes somewhere without a reload; fields that are not named stay. */
export function goTo(where: Partial<Where>, replace = false): void {
  const query = new URLSearchParams(window.location.search);
  for (const [key, value] of Object.entries(where)) {
    if (value) query.set(key, value);
    else query.delete(key);
  }
  const address = `${window.location.pathname}?${query}`;
  if (replace) window.history.replaceState(null, '', address);
  else window.history.pushState(null, '', address);
  window.dispatchEvent(new Event(changed));
}
