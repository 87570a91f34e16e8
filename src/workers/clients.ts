import { proxy, transfer, wrap, type Remote } from 'comlink';
import type { MediaApi } from './media.worker';
import type { PainterApi } from './painter.worker';
import type { PeopleApi } from './people.worker';
import type { PlanApi } from './plan.worker';
import type { PracticeApi } from './practice.worker';
import type { RenderApi } from './render.worker';
import type { WatchApi } from './watch.worker';

/** A worker and what it offers; `end` is how work is cancelled. */
export type Client<Api> = { api: Remote<Api>; end: () => void };

const client = <Api>(worker: Worker): Client<Api> => ({
  api: wrap<Api>(worker),
  end: () => worker.terminate(),
});

export const openMedia = (): Client<MediaApi> =>
  client(new Worker(new URL('./media.worker.ts', import.meta.url), { type: 'module' }));
export const openRender = (): Client<RenderApi> =>
  client(new Worker(new URL('./render.worker.ts', import.meta.url), { type: 'module' }));
export const openPlan = (): Client<PlanApi> =>
  client(new Worker(new URL('./plan.worker.ts', import.meta.url), { type: 'module' }));
export const openPainter = (): Client<PainterApi> =>
  client(new Worker(new URL('./painter.worker.ts', import.meta.url), { type: 'module' }));
export const openWatch = (): Client<WatchApi> =>
  client(new Worker(new URL('./watch.worker.ts', import.meta.url), { type: 'module' }));
export const openPeople = (): Client<PeopleApi> =>
  client(new Worker(new URL('./people.worker.ts', import.meta.url), { type: 'module' }));
export const openPractice = (): Client<PracticeApi> =>
  client(new Worker(new URL('./practice.worker.ts', import.meta.url), { type: 'module' }));

export const callback = proxy;

/** Marks a picture as handed over to a worker instead of copied. */
export const transferred = (bitmap: ImageBitmap): ImageBitmap => transfer(bitmap, [bitmap]);
