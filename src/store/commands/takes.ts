import type { YuvMatrix } from '@/core/picture/planes';
import { change } from '../change';
import type { Store } from '../db';

export const setTake = (
  store: Store,
  project: string,
  take: string,
  label: string,
  set: { slot?: string; steady?: boolean; match?: boolean; name?: string; matrix?: YuvMatrix },
) => change(store, project, label, [{ record: take, set }]);

/** Takes a clip, or a sound of one's own, out of the project; undo brings it back. */
export const removeTake = (store: Store, project: string, take: string) =>
  change(store, project, 'Take out of the project', [{ remove: take }]);

/** Brings a take back that was taken out. */
export const restoreTake = (store: Store, project: string, take: string) =>
  change(store, project, 'Bring back', [{ record: take, set: { alive: true } }]);
