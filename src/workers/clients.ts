import { proxy, transfer } from 'comlink';
import { clientOf, type CancellableClient } from './client';
import type { MediaApi } from './media.worker';
import type { PainterApi } from './painter.worker';
import type { PairsApi } from './pairs.worker';
import type { PlanApi } from './plan.worker';
import type { PracticeApi } from './practice.worker';
import type { RenderApi } from './render.worker';
import type { WatchApi } from './watch.worker';

export type { CancellableClient, Client } from './client';
export { openPeople } from './people-client';

export const openMedia = (): CancellableClient<MediaApi> =>
  clientOf(new Worker(new URL('./media.worker.ts', import.meta.url), { type: 'module' }));
export const openRender = (): CancellableClient<RenderApi> =>
  clientOf(new Worker(new URL('./render.worker.ts', import.meta.url), { type: 'module' }));
export const openPlan = (): CancellableClient<PlanApi> =>
  clientOf(new Worker(new URL('./plan.worker.ts', import.meta.url), { type: 'module' }));
export const openPairs = (): CancellableClient<PairsApi> =>
  clientOf(new Worker(new URL('./pairs.worker.ts', import.meta.url), { type: 'module' }));
export const openPainter = (): CancellableClient<PainterApi> =>
  clientOf(new Worker(new URL('./painter.worker.ts', import.meta.url), { type: 'module' }));
export const openWatch = (): CancellableClient<WatchApi> =>
  clientOf(new Worker(new URL('./watch.worker.ts', import.meta.url), { type: 'module' }));
export const openPractice = (): CancellableClient<PracticeApi> =>
  clientOf(new Worker(new URL('./practice.worker.ts', import.meta.url), { type: 'module' }));

export const callback = proxy;

/** Marks a picture as handed over to a worker instead of copied. */
export const transferred = (bitmap: ImageBitmap): ImageBitmap => transfer(bitmap, [bitmap]);
