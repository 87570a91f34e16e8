'use client';
import { lazy, Suspense, useState, type ComponentType } from 'react';

/** A dialog that is fetched when it is first opened, and stays from then on. */
export function onDemand<Props extends { open: boolean }>(
  load: () => Promise<ComponentType<Props>>,
): ComponentType<Props> {
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
