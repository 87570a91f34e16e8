import { useEffect, useSyncExternalStore } from 'react';
import type { Action, Scope } from './action';

const offers = new Map<symbol, readonly Action[]>();
const listeners = new Set<() => void>();
let all: readonly Action[] = [];

function tell(): void {
  all = [...offers.values()].flat();
  for (const listener of listeners) listener();
}

/** Offers actions for as long as the part that calls this is on the screen. */
export function useOffer(actions: readonly Action[]): void {
  useEffect(() => {
    const offer = Symbol();
    offers.set(offer, actions);
    tell();
    return () => {
      offers.delete(offer);
      tell();
    };
  }, [actions]);
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
const none: readonly Action[] = [];

/** What can be done here: what parts of the screen offer right now, then the bench's own. */
export function useActionsHere(actions: readonly Action[], scopes: readonly Scope[]): Action[] {
  const offered = useSyncExternalStore(
    subscribe,
    () => all,
    () => none,
  );
  return [...offered, ...actions].filter(({ scope }) => scopes.includes(scope));
}
