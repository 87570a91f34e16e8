import { refuse } from '@/core/error';
import { playbackSpeed } from '@/core/camera/speed';
import type { Take } from '@/core/model/records';
import { planShots } from '@/core/plan/shots';
import { songPartKey, songParts } from '@/core/song/parts';
import type { DecodedSong } from '@/media/measure-song';
import {
  followSound,
  layFirstBeats,
  layFirstSections,
  layFoundRest,
  lockedPassages,
} from '@/store/commands/song';
import type { Store } from '@/store/db';
import { planOf } from '@/store/plan';
import type { Snapshot } from '@/store/snapshot';
import { keep, original, type Doing, type Result } from './job';
import { proxyOf } from './sources';

/** five samples at 48 kHz: resampling may lay the ends of two decodings that far apart */
const sameSeconds = 1e-4;

/** Keeps a song's decoded sound. Beats on an older decoding that began late by the encoder's delay move with it. */
async function keepSound(store: Store, project: string, media: string, song: DecodedSong): Promise<void> {
  const { sound, wav, early } = song;
  const secondsOf = ({ size }: Blob) => (size * sound.duration) / wav.size;
  await store.transaction('rw', store.tables, async () => {
    const older = await store.proxies.get(media);
    await store.proxies.put({ id: media, blob: wav });
    const longer = older ? secondsOf(older.blob) - sound.duration : 0;
    if (early > 0 && Math.abs(longer - early) < sameSeconds) await followSound(store, project, early);
  });
}

/** Measures whatever is missing of a song, and keeps each part under its own key. */
export const measureSong: Doing<'song'> = async (job, api) => {
  const { store, snapshot, need, progress } = job;
  const { media } = need;
  const project = snapshot.project.id;
  const wav = need.parts.includes('sound') ? undefined : await store.proxies.get(media);
  // Without its decoded sound a song is measured whole.
  const parts = wav ? need.parts : songParts;
  const known = snapshot.measures.get(songPartKey('beats', media))?.value;
  const { decoded, beats, sections } = await api.measureSong(
    wav?.blob ?? (await original(store, media)),
    parts,
    known?.method === 'beats' ? known.beats : null,
    progress,
  );
  if (decoded) await keepSound(store, project, media, decoded);
  const results: Result[] = [
    ...(decoded
      ? [{ key: songPartKey('sound', media), value: { method: 'sound' as const, sound: decoded.sound } }]
      : []),
    ...(beats ? [{ key: songPartKey('beats', media), value: { method: 'beats' as const, beats } }] : []),
    ...(sections
      ? [{ key: songPartKey('sections', media), value: { method: 'sections' as const, form: sections } }]
      : []),
  ];
  const methods = new Set(results.map(({ value }) => value.method));
  await keep(job, media, results, (_, method) => methods.has(method));
  if (!beats || beats.beats.length < 2) return;
  const laid = await layFirstBeats(store, project, need.song, beats);
  if (laid) await layFirstSections(store, project);
};

/** Decodes a sound of one's own. */
export const decodeSound: Doing<'sound'> = async (job, api) => {
  const { store, need, progress } = job;
  const { decoded } = await api.measureSong(await original(store, need.media), ['sound'], null, progress);
  if (!decoded) return;
  await store.proxies.put({ id: need.media, blob: decoded.wav });
  await keep(job, need.media, [{ key: need.key, value: { method: 'sound', sound: decoded.sound } }]);
};

/** The speed at which the song was planned to be played while a take was filmed, as far as that is known. */
function plannedSpeeds(snapshot: Snapshot, take: Take): number[] {
  const log = snapshot.logs.find((one) => one.take === take.id);
  const shot = planShots(planOf(snapshot).input).find(({ id }) => id === log?.shot);
  return shot ? [playbackSpeed(shot.speed)] : [];
}

/** The sound of a song at hand. @throws CoreError `absent` where it is not here */
async function wavOf(store: Store, media: string): Promise<Blob> {
  const wav = await store.proxies.get(media);
  return (
    wav?.blob ?? refuse('absent', 'The song’s sound is no longer in this browser. Bring the song in again.')
  );
}

/** Looks for the song in the sound of a take. */
export const findPlayback: Doing<'playback'> = async (job, api) => {
  const { store, snapshot, need, progress } = job;
  const heard = await api.findPlayback(
    await original(store, need.take.media),
    await wavOf(store, need.song),
    plannedSpeeds(snapshot, need.take),
    progress,
  );
  await keep(job, need.take.media, [{ key: need.key, value: { method: 'playback', ...heard } }]);
};

/** Looks how the lips of whoever sings in a take go with the song that is heard in it. */
export const findLips: Doing<'lips'> = async (job, api) => {
  const { store, need, progress } = job;
  const { film, times } = await proxyOf(store, need.take);
  const sung = { wav: await wavOf(store, need.song), playback: need.playback };
  const lips = await api.findLips(film, times, sung, progress);
  await keep(job, need.take.media, [{ key: need.key, value: { method: 'lips', lips } }]);
};

export const findRest: Doing<'again'> = async ({ store, snapshot, need, progress }, api) => {
  const wav = await wavOf(store, need.media);
  const found = await api.findBeatsAgain(wav, lockedPassages(snapshot), progress);
  await layFoundRest(store, snapshot.project.id, snapshot.song?.grid ?? null, found);
};
