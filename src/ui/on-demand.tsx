'use client';
import { lazy, Suspense, useState, type ComponentType } from 'react';

const waiting: (() => Promise<unknown>)[] = [];

/** Fetches all dialogs while nothing else is to be done, so that the first press of one need not wait. */
export function fetchWhenIdle(): void {
  const all = () => void Promise.allSettled(waiting.map((load) => load()));
  if ('requestIdleCallback' in window) requestIdleCallback(all);
  else setTimeout(all, 2000);
}

/** A dialog that is fetched after the first view, or when it is first opened, and stays from then on. */
export function onDemand<Props extends { open: boolean }>(
  load: () => Promise<ComponentType<Props>>,
): ComponentType<Props> {
  waiting.push(load);
  const Part = lazy(async () => ({ default: await load() }));
  return function OnDemand(props: Props) {
    const [wanted, setWanted] = useState(props.open);
    if (props.open && !wanted) setWanted(true);
    return (
      wanted && (
        <Suspense fallback={null}>
          <Part {...props} />
        </Suspense>
      )
    );
  };
}
