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
  /** the film that is taken apart, or the long take that is divided */
  film: string | null;
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
    film: get('film'),
    round: get('round'),
  };
}

/** Hears of a way that leads away, and takes it once it may be taken. */
type Asked = (go: () => void) => void;
let asked: Asked | null = null;

/** Fields that lead away from what is on the screen. */
const leading = ['project', 'station', 'part', 'setup', 'shot'] as const;
const leadsAway = (to: URLSearchParams, from: URLSearchParams) =>
  leading.some((field) => to.get(field) !== from.get(field));

/**
 * Has every way that leads away asked about first, also the browser's own way back.
 * @returns ends it
 */
export function askBeforeLeaving(ask: Asked): () => void {
  const held = window.location.search;
  const back = (event: PopStateEvent) => {
    const to = window.location.search;
    if (!leadsAway(new URLSearchParams(to), new URLSearchParams(held))) return;
    event.stopImmediatePropagation();
    window.history.pushState(null, '', `${window.location.pathname}${held}`);
    ask(() => move(new URLSearchParams(to), false));
  };
  asked = ask;
  window.addEventListener('popstate', back, true);
  return () => {
    if (asked === ask) asked = null;
    window.removeEventListener('popstate', back, true);
  };
}

function move(query: URLSearchParams, replace: boolean): void {
  const address = `${window.location.pathname}?${query}`;
  // Going where one is already would only make the way back longer.
  if (address === window.location.pathname + window.location.search) return;
  if (replace) window.history.replaceState(null, '', address);
  else window.history.pushState(null, '', address);
  window.dispatchEvent(new Event(changed));
}

/** Goes somewhere without a reload; fields that are not named stay. */
export function goTo(where: Partial<Where>, replace = false): void {
  const query = new URLSearchParams(window.location.search);
  const before = new URLSearchParams(query);
  for (const [key, value] of Object.entries(where)) {
    if (value) query.set(key, value);
    else query.delete(key);
  }
  if (asked && leadsAway(query, before)) asked(() => move(query, replace));
  else move(query, replace);
}
