'use client';
import { useCallback } from 'react';
import type { Slot } from '@/core/plan/order/schedule';
import { chooseShot } from '@/store/commands/plan';
import { useData, useServices } from '@/ui/bench-context';

/** Locks a shot to the place of another: put on a later one it comes after that, on an earlier one it takes its place. */
export function useLockPlace(slots: readonly Slot[]) {
  const { store, attempt } = useServices();
  const projectId = useData((data) => data.snapshot.project.id);
  const project = projectId;
  return useCallback(
    (from: number, to: number): Promise<void> => {
      if (to === from || to < 0 || from < 0) return Promise.resolve();
      const after = to > from ? slots[to] : slots[to - 1];
      return attempt(() =>
        chooseShot(store, project, slots[from].shot.id, { after: after?.shot.id ?? 'first' }),
      );
    },
    [slots, store, project, attempt],
  );
}
