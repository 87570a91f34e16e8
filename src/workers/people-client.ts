import { clientOf, type CancellableClient } from './client';
import type { PeopleApi } from './people.worker';

/** By itself, since other workers open it too: a bundler waits for ever for a worker that leads to itself. */
export const openPeople = (): CancellableClient<PeopleApi> =>
  clientOf(new Worker(new URL('./people.worker.ts', import.meta.url), { type: 'module' }));
