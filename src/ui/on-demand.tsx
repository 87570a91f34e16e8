'use client';
import { lazy, Suspense, useState, type ComponentType } from 'react';

const waiting: (() => Promise<unknown>)[] = [];

/** Has a part fetched before it is asked for, once nothing else is to be done. @returns `load` itself */
export function early<Part>(load: () => Promise<Part>): () => Promise<Part> {
  waiting.push(load);
  return load;
}

const whenIdle = (act: () => void) =>
  void ('requestIdleCallback' in window ? requestIdleCallback(act) : setTimeout(act, 2000));

/** Fetches what waits, one part after the other, so that the first press of each need not wait for it. */
export function fetchWhenIdle(): void {
  whenIdle(() => {
    const next = waiting.shift();
    // What could not be fetched now is asked for again where it is needed.
    if (next)
      void next()
        .catch(() => undefined)
        .finally(fetchWhenIdle);
  });
}

/** A dialog that is fetched after the first view, or when it is first opened, and stays from then on. */
export function onDemand<Props extends { open: boolean }>(
  load: () => Promise<ComponentType<Props>>,
): ComponentType<Props> {
  const Part = lazy(early(async () => ({ default: await load() })));
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
