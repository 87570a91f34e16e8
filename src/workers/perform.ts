import { openMedia, openRender, type Client } from './clients';
import type { Job } from './job';
import type { MediaApi } from './media.worker';
import { renderMoment, solveWork } from './moment-work';
import type { RenderApi } from './render.worker';
import { decodeSound, findPlayback, findRest, measureSong } from './song-work';
import { compareTakes, findWho, makePlate, measureTake, takeFilmApart } from './take-work';

/** The workers that work is given to. */
export type Workers = { openMedia: () => Client<MediaApi>; openRender: () => Client<RenderApi> };
export const ownWorkers: Workers = { openMedia, openRender };

/** Hands a job to a client that is ended once the job is over, however it ends. */
async function using<Api>(
  client: Client<Api>,
  onOpen: (end: () => void) => void,
  work: (api: Client<Api>['api']) => Promise<void>,
): Promise<void> {
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
  const media = (work: (api: Client<MediaApi>['api']) => Promise<void>) =>
    using(workers.openMedia(), onOpen, work);
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
    case 'playback':
      return media((api) => findPlayback({ ...job, need }, api));
    case 'work':
      return media((api) => solveWork({ ...job, need }, api));
    case 'render':
      return using(workers.openRender(), onOpen, (api) => renderMoment({ ...job, need }, api));
  }
}
