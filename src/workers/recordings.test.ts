import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { FakeRecorder } from '@/media/__tests__/fake-recorder';
import { addSetup } from '@/store/commands/plan';
import { startLog } from '@/store/commands/shoot';
import { TestFilm } from '@/store/__tests__/film';
import { until } from './__tests__/answers';
import { ownLocks } from './__tests__/locks';
import { heldBack, holdRoom, record, recoverRecordings, whyEnded } from './recordings';

beforeEach(() => vi.stubGlobal('MediaRecorder', FakeRecorder));
afterEach(() => {
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

/** A film with a setup, and a line in its log for a take that is about to be recorded. */
async function rolling() {
  const film = await TestFilm.begin();
  const setup = await addSetup(film.store, film.project);
  await holdRoom(film.store, 'log');
  const log = await startLog(film.store, film.project, setup, 'shot', { variation: '' }, 'log');
  return { store: film.store, project: film.project, log };
}

describe('a recording', () => {
  it('is nobody else’s from before it is in the store until its last piece is kept', async () => {
    const { store, project, log } = await rolling();
    const locks = ownLocks();
    const recovered: Awaited<ReturnType<typeof recoverRecordings>>[] = [];
    // Another tab looks for recordings that were left behind, just when this one comes to be in the store.
    const put = store.recordings.put.bind(store.recordings);
    vi.spyOn(store.recordings, 'put').mockImplementation(((row: Parameters<typeof put>[0]) =>
      put(row).then(async (key) => {
        recovered.push(await recoverRecordings(store, project, locks));
        return key;
      })) as never);
    const { stop, ended } = await record(store, {} as MediaStream, log, 'Take 1', 8e6, locks);
    FakeRecorder.last.give('a piece');
    await until(async () => expect(await store.chunks.count()).toBe(2));
    recovered.push(await recoverRecordings(store, project, locks));
    expect(recovered).toEqual([
      { kept: 0, problems: [] },
      { kept: 0, problems: [] },
    ]);
    expect(await store.recordings.count()).toBe(1);
    stop();
    expect(await ended).toEqual({ failure: null });
    expect((await store.chunks.toArray()).map(({ index }) => index)).toEqual([0, 1]);
  });

  it('holds room back for the log while it runs, and gives it back the moment nothing more fits', async () => {
    const { store, log } = await rolling();
    const { ended } = await record(store, {} as MediaStream, log, 'Take 1', 8e6, ownLocks());
    const sizes = async () => (await store.chunks.toArray()).map(({ blob }) => blob.size);
    expect(await sizes()).toEqual([heldBack]);
    const full = Object.assign(new Error('No space'), { name: 'QuotaExceededError' });
    vi.spyOn(store.chunks, 'put').mockRejectedValue(full);
    FakeRecorder.last.give('a piece');
    expect((await ended).failure).toBe(full);
    expect(await sizes()).toEqual([]);
    expect(whyEnded(full)).toMatch(/no room left on this device: the take was ended/);
  });

  it('is not begun where there is not even room for the log', async () => {
    const { store } = await TestFilm.begin();
    const full = Object.assign(new Error('No space'), { name: 'QuotaExceededError' });
    vi.spyOn(store.chunks, 'put').mockRejectedValue(full);
    await expect(holdRoom(store, 'log')).rejects.toMatchObject({ code: 'storage.none' });
  });

  it('that never began leaves no room held once the film is opened again; one that runs keeps its own', async () => {
    const { store, project, log } = await rolling();
    const locks = ownLocks();
    await record(store, {} as MediaStream, log, 'Take 1', 8e6, locks);
    await holdRoom(store, 'lost before its line');
    expect(await recoverRecordings(store, project, locks)).toEqual({ kept: 0, problems: [] });
    expect((await store.chunks.toArray()).map(({ recording }) => recording)).toEqual(['held back for log']);
  });

  it('that a lost page left without one piece is said, and its line in the log stays', async () => {
    const { store, project, log } = await rolling();
    await record(store, {} as MediaStream, log, 'Take 1', 8e6, ownLocks());
    // The page is lost: its locks are gone, and so are pieces that were never given.
    const { kept, problems } = await recoverRecordings(store, project, ownLocks());
    expect(kept).toBe(0);
    expect(problems).toEqual([expect.stringMatching(/^Nothing was recorded .* log is kept\.$/)]);
    expect(await store.recordings.count()).toBe(0);
    expect(await store.records.get(log.id)).toMatchObject({ alive: true, length: 0 });
  });
});
