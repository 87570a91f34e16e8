import { refuse } from '@/core/error';
import { mediaOfTask } from '@/core/footage/seam-task';
import { filesIn } from '@/core/picture/node';
import { suggestSlot } from '@/core/recipes/built';
import type { Motion } from '@/core/recipes/slots';
import { change } from '@/store/change';
import { layFirstBeats, layFirstSections, layFoundRest, lockedPassages } from '@/store/commands/song';
import type { MeasureValue, Store } from '@/store/db';
import { framesOf, pictureOf } from '@/store/material';
import type { Need } from '@/store/needs';
import { songKey, takeKey, type Snapshot } from '@/store/snapshot';
import { openMedia, openRender, type Client } from './clients';
import type { MediaApi } from './media.worker';
import { asCoreError } from './plain-errors';
import type { RenderApi } from './render.worker';
import { sourcesOf } from './sources';

/** The workers that work is given to. */
export type Workers = { openMedia: () => Client<MediaApi>; openRender: () => Client<RenderApi> };
export const ownWorkers: Workers = { openMedia, openRender };

/** A piece of work with what it needs: the project as it was when it was begun, and how far it is. */
export type Job<Some extends Need = Need> = {
  store: Store;
  snapshot: Snapshot;
  need: Some;
  progress: (share: number) => void;
};

/** Keeps a result under its key; an older word that this work had ended without one goes. */
async function keep({ store, snapshot, need }: Job, subject: string, value: MeasureValue): Promise<void> {
  await store.transaction('rw', store.measures, store.halted, async () => {
    const [kind] = value.method.split('-');
    const [, , work] = need.key.split(':');
    const older = store.measures
      .where({ subject })
      .filter(
        ({ key, value }) =>
          value.method.startsWith(`${kind}-`) && (kind === 'take' || key.split(':')[2] === work),
      );
    if (kind === 'seam' || kind === 'take') await older.delete();
    await store.measures.put({ key: need.key, project: snapshot.project.id, subject, value });
    await store.halted.delete(need.key);
  });
}

async function original(store: Store, media: string): Promise<Blob> {
  const row = await store.originals.get(media);
  return row?.blob ?? refuse('absent', 'The file is no longer in this browser. Bring it in again.');
}

async function measured({ store, snapshot }: Job, media: string) {
  const value = snapshot.measures.get(takeKey(media))?.value;
  const kept = await store.stills.get(media);
  if (value?.method !== 'take-2' || !kept)
    return refuse('absent', 'This take has to be measured again. Bring it in again.');
  return { ...value.take, stills: kept.stills };
}

/** A take of no known slot gets the one that its movement suggests; what a person chose meanwhile stays. */
const giveSlot = (store: Store, project: string, media: string, motion: Motion) =>
  change(
    store,
    project,
    'Sort the take',
    ({ takes }) =>
      takes
        .filter((take) => take.media === media && take.slot === null)
        .map(({ id }) => ({ record: id, set: { slot: suggestSlot(motion) } })),
    true,
  );

type NeedOf<Kind extends Need['kind']> = Extract<Need, { kind: Kind }>;
type Doing<Kind extends Need['kind']> = (
  job: Job<NeedOf<Kind>>,
  api: Client<MediaApi>['api'],
) => Promise<void>;

const measureTake: Doing<'take'> = async (job, api) => {
  const { store, snapshot, need, progress } = job;
  const media = snapshot.media.get(need.media);
  const expected = { duration: media?.probe?.duration ?? 0, rate: media?.probe?.video?.rate ?? 25 };
  const file = await original(store, need.media);
  const { measure, stills, poster, proxy, complete } = await api.measureTake(file, expected, progress);
  await store.stills.put({ id: need.media, stills });
  await store.proxies.put({ id: need.media, blob: proxy });
  await keep(job, need.media, { method: 'take-2', take: measure, poster, complete });
  await giveSlot(store, snapshot.project.id, need.media, measure.motion);
};

const measureSong: Doing<'song'> = async (job, api) => {
  const { store, snapshot, need, progress } = job;
  const { measure, beats, wav } = await api.measureSong(await original(store, need.media), progress);
  await store.proxies.put({ id: need.media, blob: wav });
  await keep(job, need.media, { method: 'song-2', song: measure, beats });
  if (beats.beats.length < 2) return;
  const laid = await layFirstBeats(store, snapshot.project.id, need.song, beats);
  if (laid) await layFirstSections(store, snapshot.project.id);
};

const findRest: Doing<'again'> = async ({ store, snapshot, need, progress }, api) => {
  const wav = await store.proxies.get(need.media);
  if (!wav) return refuse('absent', 'The song is no longer in this browser. Bring it in again.');
  const found = await api.findBeatsAgain(wav.blob, lockedPassages(snapshot), progress);
  await layFoundRest(store, snapshot.project.id, snapshot.song?.grid ?? null, found);
};

const compareTakes: Doing<'compare'> = async (job, api) => {
  const { need } = job;
  const [take, plate] = await Promise.all([measured(job, need.take), measured(job, need.plate)]);
  const comparison = await api.compareTake(take, plate).catch((error: unknown) => {
    // Sizes that differ are a finding of their own, from the measures themselves: nothing more is to be said.
    if (asCoreError(error).code !== 'take.size') throw error;
    return refuse('take.size', '');
  });
  await keep(job, need.subject, { method: 'compare-1', comparison });
};

const solveWork: Doing<'work'> = async (job, api) => {
  const { store, snapshot, need, progress } = job;
  const task = need.work.task();
  const seam = await api.solveMomentSeam(
    task,
    await sourcesOf(store, snapshot, mediaOfTask(task), 'proxies'),
    progress,
  );
  await keep(job, need.moment.id, { method: 'seam-2', seam });
};

async function renderMoment(
  { store, snapshot, need, progress }: Job<NeedOf<'render'>>,
  api: Client<RenderApi>['api'],
): Promise<void> {
  const built = pictureOf(snapshot, need.moment);
  const render = snapshot.renders.find((one) => one.id === need.render);
  const frames = framesOf(snapshot, need.moment);
  const { project, song } = snapshot;
  if (!built || !render || !frames || !song)
    return refuse('render', 'There is nothing to render yet. Choose takes first.');
  const heard = song.media && snapshot.measures.has(songKey(song.media));
  const wav = heard && song.media ? await store.proxies.get(song.media) : null;
  const blob = await api.renderShot(
    {
      tree: built.tree,
      start: frames.start,
      end: frames.end,
      delivery: { width: project.width, height: project.height },
      rate: project.rate,
      container: render.container,
      bitrate: project.megabits * 1e6,
      sources: await sourcesOf(store, snapshot, filesIn(built.tree), 'originals'),
      song: wav?.blob ?? null,
      file: render.name,
    },
    progress,
  );
  await store.renders.update(render.id, { status: 'done', blob });
}

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
    case 'compare':
      return media((api) => compareTakes({ ...job, need }, api));
    case 'work':
      return media((api) => solveWork({ ...job, need }, api));
    case 'render':
      return using(workers.openRender(), onOpen, (api) => renderMoment({ ...job, need }, api));
  }
}
