import { refuse } from '@/core/error';
import { layFirstBeats, layFirstSections, layFoundRest, lockedPassages } from '@/store/commands/song';
import { keep, original, type Doing } from './job';

export const measureSong: Doing<'song'> = async (job, api) => {
  const { store, snapshot, need, progress } = job;
  const { measure, beats, wav } = await api.measureSong(await original(store, need.media), progress);
  await store.proxies.put({ id: need.media, blob: wav });
  await keep(job, need.media, [{ key: need.key, value: { method: 'song-2', song: measure, beats } }]);
  if (beats.beats.length < 2) return;
  const laid = await layFirstBeats(store, snapshot.project.id, need.song, beats);
  if (laid) await layFirstSections(store, snapshot.project.id);
};

export const findRest: Doing<'again'> = async ({ store, snapshot, need, progress }, api) => {
  const wav = await store.proxies.get(need.media);
  if (!wav) return refuse('absent', 'The song is no longer in this browser. Bring it in again.');
  const found = await api.findBeatsAgain(wav.blob, lockedPassages(snapshot), progress);
  await layFoundRest(store, snapshot.project.id, snapshot.song?.grid ?? null, found);
};
