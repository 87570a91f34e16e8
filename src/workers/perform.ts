import type { Client } from './client';
import type { Job } from './job';
import type { KeptClient } from './kept-client';
import type { MediaApi } from './media.worker';
import { renderMoment, solveWork } from './moment-work';
import type { RenderApi } from './render.worker';
import { decodeSound, findLips, findPlayback, findRest, measureSong } from './song-work';
import { compareTakes, findWho, makePlate, measureTake, takeFilmApart } from './take-work';

/** The workers that work is given to. */
export type Workers = { media: KeptClient<MediaApi>; openRender: () => Client<RenderApi> };

/** Renders in a worker of its own, which ends with it, while no other holds memory. */
async function rendering(
  { media, openRender }: Workers,
  onOpen: (end: () => void) => void,
  work: (api: Client<RenderApi>['api']) => Promise<void>,
): Promise<void> {
  media.end();
  const client = openRender();
  onOpen(client.end);
  try {
    await work(client.api);
  } finally {
    client.end();
  }
}

/**
 * Does one piece of missing work and keeps its result.
 * @param onOpen receives what ends the worker at once
 * @throws CoreError what kept it from being done; nothing half-done is kept as done
 */
export function perform(job: Job, workers: Workers, onOpen: (end: () => void) => void): Promise<void> {
  const { need } = job;
  const media = (work: (api: Client<MediaApi>['api']) => Promise<void>) => workers.media.use(onOpen, work);
  switch (need.kind) {
    case 'take':
      return media((api) => measureTake({ ...job, need }, api));
    case 'song':
      return media((api) => measureSong({ ...job, need }, api));
    case 'again':
      return media((api) => findRest({ ...job, need }, api));
    case 'sound':
      return media((api) => decodeSound({ ...job, need }, api));
    case 'plate':
      return media((api) => makePlate({ ...job, need }, api));
    case 'compare':
      return media((api) => compareTakes({ ...job, need }, api));
    case 'apart':
      return media((api) => takeFilmApart({ ...job, need }, api));
    case 'bodies':
      return media((api) => findWho({ ...job, need }, api));
    case 'lips':
      return media((api) => findLips({ ...job, need }, api));
    case 'playback':
      return media((api) => findPlayback({ ...job, need }, api));
    case 'work':
      return media((api) => solveWork({ ...job, need }, api));
    case 'render':
      return rendering(workers, onOpen, (api) => renderMoment({ ...job, need }, api));
  }
}
