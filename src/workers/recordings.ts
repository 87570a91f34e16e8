import type { Log } from '@/core/model/shoot-records';
import { StreamRecorder } from '@/media/recorder';
import { refuse } from '@/core/error';
import { change } from '@/store/change';
import { linkTake, logOf, stopLog } from '@/store/commands/shoot';
import type { Recording, Store } from '@/store/db';
import { planOf } from '@/store/plan';
import { readSnapshot } from '@/store/snapshot';
import type { Locks } from './arrivals';
import { importFiles } from './import-files';
import { isFull } from './plain-errors';

const lockOf = (id: string) => `fickle-ribbon-recording-${id}`;

/** Bytes that are kept free while a take runs, so that its line in the log can be closed once nothing else fits. */
export const heldBack = 2e6;
const held = 'held back for ';
const heldFor = (id: string): [string, number] => [`${held}${id}`, 0];

/**
 * Holds room back for a take's line in the log, before there is one.
 * @throws CoreError `storage.none` where there is not even that
 */
export async function holdRoom(store: Store, id: string): Promise<void> {
  const [recording, index] = heldFor(id);
  try {
    await store.chunks.put({ recording, index, blob: new Blob([new Uint8Array(heldBack)]) });
  } catch (error) {
    if (!isFull(error)) throw error;
    refuse(
      'storage.none',
      'There is no room left on this device for a take. Free some under Space, in the menu at the project’s name.',
    );
  }
}

/** Gives back what was held for a take. */
export const releaseRoom = (store: Store, id: string): Promise<void> => store.chunks.delete(heldFor(id));

/**
 * How many bytes of those that a take needs really fit, found by keeping as many for a moment. What browsers tell of
 * their room is a guess, and with some of them the same whatever is free.
 * @returns `bytes` where all fit, else a lower bound of what does
 */
export async function tryRoom(store: Store, bytes: number): Promise<number> {
  const [recording, index] = heldFor('a try');
  const slice = new Uint8Array(1e6);
  for (let size = bytes; size > bytes / 64; size /= 2) {
    const parts = Array.from({ length: Math.ceil(size / slice.length) }, (_, at) =>
      slice.subarray(0, Math.min(slice.length, size - at * slice.length)),
    );
    try {
      await store.chunks.put({ recording, index, blob: new Blob(parts) });
      await store.chunks.delete([recording, index]);
      return size;
    } catch (error) {
      if (!isFull(error)) throw error;
    }
  }
  return 0;
}

/** A recording that runs. `ended` tells how it came out once all of it is kept. */
export type Running = { stop: () => void; ended: Promise<{ failure: unknown }> };

/**
 * Records a take into the store, second by second, and gives back the room that was held for it when it ends.
 * Whatever ends it, {@link finishRecording} makes a file of what is there.
 * @throws CoreError `recording.none` where this browser cannot record
 */
export async function record(
  store: Store,
  stream: MediaStream,
  log: Log,
  name: string,
  bitsPerSecond: number,
  locks: Locks = navigator.locks,
): Promise<Running> {
  let end: (told: { failure: unknown }) => void = () => undefined;
  const ended = new Promise<{ failure: unknown }>((resolve) => (end = resolve));
  const recorder = new StreamRecorder(
    stream,
    bitsPerSecond,
    async (blob, index) => {
      await store.chunks.put({ recording: log.id, index, blob });
    },
    (failure) => end({ failure }),
  );
  const row: Recording = {
    id: log.id,
    project: log.project,
    log: log.id,
    type: recorder.type,
    name: `${name}.${recorder.type === 'video/mp4' ? 'mp4' : 'webm'}`,
    started: Date.now(),
  };
  // While this page lives it holds the lock; a page that was thrown out of memory does not. Held before there is a row,
  // so that no other page takes the recording for one that was left behind.
  await new Promise<void>((held) => {
    void locks.request(lockOf(log.id), () => {
      held();
      return ended;
    });
  });
  try {
    await store.recordings.put(row);
    recorder.start();
  } catch (error) {
    await store.recordings.delete(log.id);
    end({ failure: error });
    throw error;
  }
  return {
    stop: () => recorder.stop(),
    ended: ended.finally(() => releaseRoom(store, log.id)),
  };
}

/**
 * Makes a take of the project from what a recording kept, and ties it to its log line.
 * @returns a sentence about it where something is to be said
 */
export async function finishRecording(store: Store, id: string): Promise<string | null> {
  const row = await store.recordings.get(id);
  if (!row) return null;
  const chunks = await store.chunks.where({ recording: id }).sortBy('index');
  const drop = () =>
    store.transaction('rw', store.recordings, store.chunks, async () => {
      await store.recordings.delete(id);
      await store.chunks.where({ recording: id }).delete();
      await releaseRoom(store, id);
    });
  if (chunks.length === 0) {
    const line = await store.records.get(row.log);
    if (line?.kind === 'log' && line.length === null) await stopLog(store, line, 0);
    await drop();
    return 'Nothing was recorded before the take ended; its line in the log is kept.';
  }
  const file = new File(
    chunks.map(({ blob }) => blob),
    row.name,
    { type: row.type, lastModified: Date.now() },
  );
  const [result] = await importFiles(store, row.project, [file], { keepDelivery: true });
  // What could not become a file now, for want of room, is tried again once there is some.
  if (result.full)
    return 'There is no room for the file of this take yet; what was recorded is kept. Free some under Space, in the menu at the project’s name: its file is made when you come back from there.';
  if (!result.record) return result.message;
  const snapshot = await readSnapshot(store, row.project);
  const log = snapshot?.logs.find((one) => one.id === row.log);
  const board = snapshot && planOf(snapshot).boards.find(({ setup }) => setup === log?.setup);
  if (snapshot && board && log) {
    const take = snapshot.takes.find((one) => one.id === result.record);
    const media = take && snapshot.media.get(take.media);
    if (media) await store.writeRows('media', [{ ...media, recorded: row.started }]);
    await linkTake(store, snapshot.project.id, board, [{ log: log.id, take: result.record }], true);
    if (log.length === null) await stopLog(store, log, media?.probe?.duration ?? 0);
  }
  await drop();
  return null;
}

/**
 * Recordings that a closed or lost page left behind become takes, and room that it held is given back.
 * @returns how many did, and what is to be said of the others
 */
export async function recoverRecordings(
  store: Store,
  project: string,
  locks: Locks = navigator.locks,
): Promise<{ kept: number; problems: string[] }> {
  const out = { kept: 0, problems: [] as string[] };
  for (const { id } of await store.recordings.where({ project }).toArray()) {
    await locks.request(lockOf(id), { ifAvailable: true }, async (lock) => {
      if (!lock) return;
      const problem = await finishRecording(store, id);
      if (problem) out.problems.push(problem);
      else out.kept++;
    });
  }
  const left = (await store.recordings.toCollection().primaryKeys()).map((id) => heldFor(id)[0]);
  await store.chunks
    .where('recording')
    .startsWith(held)
    .and(({ recording }) => !left.includes(recording))
    .delete();
  return out;
}

/** What to say when a recording ended by itself. */
export function whyEnded(failure: unknown): string | null {
  if (!failure) return null;
  return isFull(failure)
    ? 'There is no room left on this device: the take was ended, and what was recorded until then is kept. Free some under Space, in the menu at the project’s name, before the next one.'
    : 'The recording was ended by the browser; what was recorded until then is kept.';
}

/** Marks a take's log line with what the watch saw, as it sees it. */
export async function noteSeen(store: Store, log: Log, seen: Log['seen'][number][]): Promise<void> {
  const tags = Object.fromEntries(
    seen.flatMap(({ code }) => (tagOf[code] ? [[`tags.${tagOf[code]}`, true]] : [])),
  );
  await change(
    store,
    log.project,
    'What the watch saw',
    (now) => [{ record: log.id, set: { seen: [...logOf(now, log.id).seen, ...seen], ...tags } }],
    true,
  );
}

const tagOf: Record<string, string> = {
  'watch.moved': 'bumped',
  'watch.light': 'light',
  'watch.colour': 'light',
  'watch.soft': 'focus',
  'watch.crossing': 'crossed the seam',
  'watch.shadow': 'crossed the seam',
};
