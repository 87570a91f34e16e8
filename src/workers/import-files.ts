import { arrived, expecting, type Locks } from './arrivals';
import { asCoreError, isFull } from './plain-errors';
import { openMedia, type Client } from './clients';
import type { MediaApi } from './media.worker';
import { recordedAt } from '@/media/recorded-at';
import { change } from '@/store/change';
import { newRecord } from '@/store/commands/projects';
import { newId, type Media, type Store } from '@/store/db';
import { refuse } from '@/core/error';
import { longestName } from '@/core/model/base';
import { slotInName } from '@/core/recipes/built';
import { nearestRate, type Rate } from '@/core/time/rate';

/** True for a still, which becomes a film in which it stands. */
const isStill = ({ type }: { type: string }): boolean => type.startsWith('image/');

/** What became of a file. */
type Imported = {
  name: string;
  outcome: 'song' | 'take' | 'sound' | 'known' | 'kept' | 'problem';
  message: string;
  /** the take or song that it became or is */
  record?: string;
  /** there was no room for it */
  full?: true;
};

/** The song of a project: its sound's name, null for a ruler of seconds alone; nothing where there is no song. */
async function songOf(store: Store, project: string): Promise<{ name: string | null } | null> {
  const records = await store.records.where({ project }).toArray();
  const songs = records.flatMap((record) => (record.kind === 'song' && record.alive ? [record] : []));
  const [song] = songs.sort((a, b) => b.created - a.created);
  if (!song) return null;
  const media = song.media ? await store.media.get(song.media) : null;
  return { name: media?.name ?? null };
}

/** The rate that a project's film runs at. */
async function rateOf(store: Store, project: string): Promise<Rate> {
  const record = await store.records.get(project);
  return record?.kind === 'project' ? record.rate : { num: 24, den: 1 };
}

/** Asks whether a sound may take the place of a song, both by name. */
export type MayReplace = (name: string, song: string) => Promise<boolean>;

/** "bench-left-1.mp4" becomes "Bench left 1". */
function readableName(file: string): string {
  const words =
    file
      .replace(/\.[^.]+$/, '')
      .replace(/[-_]+/g, ' ')
      .trim() || file;
  return (words[0].toUpperCase() + words.slice(1)).slice(0, longestName);
}

/** How files are brought in. */
export type Importing = {
  /** told how many are in, and the name of the one at hand */
  onProgress?: (done: number, name: string) => void;
  /** asked before each file whether the rest is no longer wanted */
  stopped?: () => boolean;
  /** the first clip does not set the film's size and rate */
  keepDelivery?: boolean;
  /** sound becomes one that moments can use, and not the song */
  asSound?: boolean;
  /** opens the worker that looks into files */
  open?: () => Client<Pick<MediaApi, 'probeFile' | 'filmOfStill'>>;
  /** asks before a sound takes the place of the song */
  mayReplace?: MayReplace;
  locks?: Locks;
};

/**
 * Brings files into a project one after the other. A file that cannot be used keeps its place with the reason;
 * what was there before stays as it is.
 */
export async function importFiles(
  store: Store,
  project: string,
  files: readonly File[],
  {
    onProgress = () => undefined,
    stopped = () => false,
    keepDelivery = false,
    asSound = false,
    open = openMedia,
    mayReplace = async () => true,
    locks = navigator.locks,
  }: Importing = {},
): Promise<Imported[]> {
  const media = open();
  try {
    return await expecting(store, project, files, locks, async (expected) => {
      const results: Imported[] = [];
      for (const [index, file] of files.entries()) {
        if (stopped()) break;
        onProgress(index, file.name);
        const probe = (blob: Blob) => media.api.probeFile(blob);
        const { fingerprint } = expected[index];
        results.push(
          await importFile(store, project, file, fingerprint, {
            probe,
            filmOf: async (still) => media.api.filmOfStill(still, await rateOf(store, project)),
            keepDelivery,
            asSound,
            mayReplace,
          }),
        );
        await arrived(store, expected[index]);
      }
      return results;
    });
  } finally {
    media.end();
  }
}

/** Rows of a file that could not be used, or did not come to its end, before. */
const failedBefore = (store: Store, project: string, fingerprint: string): Promise<string[]> =>
  store.media
    .where({ fingerprint })
    .filter((one) => one.project === project && one.problem !== null)
    .primaryKeys();

type Bringing = {
  probe: (blob: Blob) => Promise<NonNullable<Media['probe']>>;
  /** what a still becomes */
  filmOf: (still: Blob) => Promise<Blob>;
  keepDelivery: boolean;
  asSound: boolean;
  mayReplace: MayReplace;
};

async function importFile(
  store: Store,
  project: string,
  file: File,
  fingerprint: string,
  { probe, filmOf, keepDelivery, asSound, mayReplace }: Bringing,
): Promise<Imported> {
  const { name } = file;
  const addHeard = asSound ? addOwnSound : addSong;
  const filmed = async () => (isStill(file) && !asSound ? filmOf(file) : file);
  try {
    const known = await store.media
      .where({ fingerprint })
      .filter((one) => one.project === project && !one.problem)
      .first();
    const unused = known && !(await usersOf(store, known)).length;
    // A page that was closed between the file and its take left it without one.
    if (unused)
      return known.probe?.video ? await addTake(store, known, keepDelivery) : await addHeard(store, known);
    if (known) {
      const returned = await putBack(store, known, filmed);
      const users = await usersOf(store, known);
      const user = users.find(({ kind }) => (kind === 'sound') === asSound);
      if (!user && !known.probe?.video) return await addHeard(store, known);
      if (user && !user.alive)
        await change(store, project, 'Bring back', [{ record: user.id, set: { alive: true } }]);
      return {
        name,
        outcome: 'known',
        message: returned ? `${name} is here again.` : `${name} is already in the project.`,
        record: user?.id,
      };
    }
    const id = newId();
    const row: Media = {
      id,
      project,
      name,
      type: file.type,
      size: file.size,
      fingerprint,
      place: 'blob',
      probe: null,
      problem: null,
      created: Date.now(),
    };
    let bytes: Blob = file;
    try {
      bytes = await filmed();
      row.probe = await probe(bytes);
      // A camera writes its file last when it stops.
      row.recorded = (await recordedAt(file)) ?? file.lastModified - row.probe.duration * 1000;
      if (asSound && row.probe.video)
        refuse(
          'media.no-sound',
          'This is a film. Bring it in as a take, or save its sound as WAV, MP3, FLAC, Opus or M4A first.',
        );
      const song = row.probe.video || asSound ? null : await songOf(store, project);
      // A video that is only sound may be the song, but never takes the place of one.
      if (song && file.type.startsWith('video')) {
        refuse(
          'media.no-pictures',
          'This video holds no pictures, only sound. Copy it from the camera again.',
        );
      }
      if (song?.name && !(await mayReplace(name, song.name))) {
        const message = `${song.name} stays the song; ${name} was not brought in.`;
        return { name, outcome: 'kept', message };
      }
    } catch (error) {
      row.problem = asCoreError(error);
      await store.removeRows('media', project, await failedBefore(store, project, fingerprint));
      await store.writeRows('media', [row]);
      return { name, outcome: 'problem', message: `${name}: ${row.problem.message}` };
    }
    await store.transaction('rw', store.media, store.writes, store.originals, async () => {
      await store.originals.add({ id, blob: new Blob([bytes], { type: bytes.type }) });
      await store.removeRows('media', project, await failedBefore(store, project, fingerprint));
      await store.writeRows('media', [row]);
    });
    return row.probe.video ? await addTake(store, row, keepDelivery) : await addHeard(store, row);
  } catch (error) {
    if (!isFull(error)) return { name, outcome: 'problem', message: asCoreError(error).message };
    const message = `There is no room left for ${name}. Free some under Space, in the menu at the project’s name, then bring it in again.`;
    return { name, outcome: 'problem', message, full: true };
  }
}

/**
 * Keeps a known file again where this browser lost its bytes, or what is shown and heard of it; work that ended
 * for want of a file is done then.
 * @returns whether something was lost
 */
async function putBack(store: Store, { id, project }: Media, filmed: () => Promise<Blob>): Promise<boolean> {
  const lost = !(await store.originals.get(id));
  // What is made of a still is made before the store is held.
  const bytes = lost ? await filmed() : null;
  return store.transaction(
    'rw',
    [store.originals, store.proxies, store.measures, store.halted, store.writes],
    async () => {
      const [original, proxy] = await Promise.all([store.originals.get(id), store.proxies.get(id)]);
      const shown = await store.measures
        .where({ subject: id })
        .filter(({ value: { method } }) => method === 'pictures' || method === 'sound')
        .primaryKeys();
      const remade = proxy ? [] : shown;
      if (original && remade.length === 0) return false;
      if (!original && bytes)
        await store.originals.put({ id, blob: new Blob([bytes], { type: bytes.type }) });
      await store.removeRows('measures', project, remade);
      const ended = await store.halted
        .where({ project })
        .filter(({ reason }) => reason !== 'cancelled' && reason.code === 'absent')
        .primaryKeys();
      await store.removeRows('halted', project, ended);
      return true;
    },
  );
}

/** The takes, songs and sounds, also removed ones, that a file is used by. */
const usersOf = async (store: Store, { id, project }: Media) =>
  (await store.records.where({ project }).toArray()).filter(
    (record) => 'media' in record && record.media === id,
  );

async function addSong(store: Store, media: Media): Promise<Imported> {
  const song = {
    ...newRecord(media.project),
    kind: 'song' as const,
    media: media.id,
    grid: null,
    confidence: null,
  };
  await change(store, media.project, 'Bring in the song', [{ create: song }]);
  return { name: media.name, outcome: 'song', message: `${media.name} is the song now.`, record: song.id };
}

async function addOwnSound(store: Store, media: Media): Promise<Imported> {
  const name = readableName(media.name);
  const sound = { ...newRecord(media.project), kind: 'sound' as const, media: media.id, name };
  await change(store, media.project, 'Bring in a sound', [{ create: sound }]);
  return { name: media.name, outcome: 'sound', message: `${name} can be laid now.`, record: sound.id };
}

async function addTake(store: Store, media: Media, keepDelivery: boolean): Promise<Imported> {
  const { project } = media;
  const takes = (await store.records.where({ project }).toArray()).filter((record) => record.kind === 'take');
  const name = readableName(media.name);
  const take = {
    ...newRecord(project),
    kind: 'take' as const,
    media: media.id,
    name,
    slot: slotInName(name),
    order: Math.max(0, ...takes.map((one) => one.order)) + 1,
    steady: false,
    match: false,
    ...(isStill(media) ? { sketch: true as const } : {}),
  };
  const video = media.probe?.video;
  const first = !keepDelivery && !isStill(media) && video && takes.length === 0 && video.rate > 0;
  const delivery = first
    ? [
        {
          record: project,
          set: {
            width: video.size.width & ~1,
            height: video.size.height & ~1,
            rate: nearestRate(video.rate),
          },
        },
      ]
    : [];
  await change(store, project, 'Bring in a take', [{ create: take }, ...delivery]);
  return { name: media.name, outcome: 'take', message: `${name} is in the project.`, record: take.id };
}
