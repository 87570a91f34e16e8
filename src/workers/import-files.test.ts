import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { undo } from '@/store/change';
import { removeTake } from '@/store/commands/takes';
import { taken, TestFilm } from '@/store/__tests__/film';
import { held, until } from './__tests__/answers';
import { ownLocks } from './__tests__/locks';
import { lostArrivals, tellLost } from './arrivals';
import { importFiles } from './import-files';

const video = { codec: 'avc', size: { width: 1920, height: 1080 }, turned: 0, rate: 25 };
const probes: Record<string, object> = {
  clip: { duration: 8, video, audio: null },
  upright: { duration: 8, video: { ...video, size: { width: 607, height: 1080 }, rate: 29.97 }, audio: null },
  song: { duration: 60, video: null, audio: { codec: 'opus' } },
};

describe('bringing files in', () => {
  let film: TestFilm;
  const locks = ownLocks();
  const ended = vi.fn();
  /** A file's words say what looking into it finds. */
  const probeFile = vi.fn(async (file: Blob) => {
    const found = probes[(await file.text()).split(' ')[0]];
    if (!found) throw { code: 'media.not-media', message: 'This is neither sound nor video.' };
    return found;
  });
  /** A still that can be read becomes a clip. */
  const filmOfStill = vi.fn(async (still: Blob) => {
    if ((await still.text()).startsWith('broken'))
      throw { code: 'media.still', message: 'This picture cannot be read.' };
    return new Blob(['clip of a still'], { type: 'video/mp4' });
  });
  const open = () => ({ api: { probeFile, filmOfStill } as never, end: ended });
  const file = (name: string, words: string, type = 'video/mp4') => new File([words], name, { type });
  const bring = (files: File[], stopped = () => false, keep = false) =>
    importFiles(film.store, film.project, files, { stopped, keepDelivery: keep, open, locks });

  beforeEach(async () => {
    film = await TestFilm.begin();
    ended.mockClear();
  });

  it('makes takes and a song of them, each with its name, and the first clip sets the film’s size and rate', async () => {
    const files = [
      file('bench-left-1.mp4', 'clip 1'),
      file('upright.mp4', 'upright'),
      file('song.opus', 'song', 'audio/ogg'),
    ];
    const outcomes = await bring(files);
    expect(outcomes.map(({ outcome }) => outcome)).toEqual(['take', 'take', 'song']);
    const { takes, project, song } = await film.read();
    expect(takes.map(({ name, slot }) => `${name}: ${slot}`)).toEqual([
      'Bench left 1: left',
      'Upright: null',
    ]);
    expect(project).toMatchObject({ width: 1920, height: 1080, rate: { num: 25, den: 1 } });
    expect(song?.media).toBeTruthy();
    expect(ended).toHaveBeenCalledTimes(1);
  });

  it('makes a film of a still, which stands in for a take and leaves the film as it is', async () => {
    const door = file('left-door.png', 'drawing', 'image/png');
    const outcomes = await bring([door, file('torn.jpg', 'broken', 'image/jpeg')]);
    expect(outcomes.map(({ outcome }) => outcome)).toEqual(['take', 'problem']);
    const { takes, project, media } = await film.read();
    expect(takes).toMatchObject([{ name: 'Left door', slot: 'left', sketch: true }]);
    expect(project).toMatchObject({ width: 1280, height: 720 });
    const row = [...media.values()].find(({ name }) => name === 'left-door.png');
    const kept = await film.store.originals.get(row?.id ?? '');
    expect(await kept?.blob.text()).toBe('clip of a still');
    expect(filmOfStill).toHaveBeenCalledTimes(2);
    // The same drawing again is known by itself, not by the film that became of it; where that is lost it is made anew.
    expect((await bring([door])).map(({ outcome }) => outcome)).toEqual(['known']);
    expect(filmOfStill).toHaveBeenCalledTimes(2);
    await film.store.originals.delete(row?.id ?? '');
    await bring([door]);
    expect(await (await film.store.originals.get(row?.id ?? ''))?.blob.text()).toBe('clip of a still');
  });

  it('keeps the film as it is where a take was recorded here', async () => {
    await bring([file('take.mp4', 'clip')], () => false, true);
    expect((await film.read()).project).toMatchObject({ width: 1280, height: 720 });
  });

  it('asks before a second sound takes the song’s place, and leaves everything as it was without leave', async () => {
    await bring([file('song.opus', 'song', 'audio/ogg')]);
    const before = (await film.read()).song;
    const asked: string[] = [];
    const second = (yes: boolean) =>
      importFiles(film.store, film.project, [file('other.opus', 'song two', 'audio/ogg')], {
        open,
        locks,
        mayReplace: async (name, song) => (asked.push(`${name} for ${song}`), yes),
      });
    expect((await second(false))[0]).toMatchObject({
      outcome: 'kept',
      message: 'song.opus stays the song; other.opus was not brought in.',
    });
    const { song, media } = await film.read();
    expect([song?.id, media.size]).toEqual([before?.id, 1]);
    expect((await second(true))[0].outcome).toBe('song');
    expect((await film.read()).song?.id).not.toBe(before?.id);
    expect(asked).toEqual(['other.opus for song.opus', 'other.opus for song.opus']);
  });

  it('takes up a file that a closed page left without its take', async () => {
    const bulk = vi.spyOn(film.store.commands, 'add').mockRejectedValueOnce(new Error('closed'));
    const [broken] = await bring([file('clip.mp4', 'clip')]);
    expect(broken.outcome).toBe('problem');
    bulk.mockRestore();
    expect((await film.read()).takes).toEqual([]);
    const [again] = await bring([file('clip.mp4', 'clip')]);
    expect(again.outcome).toBe('take');
    const { takes, media } = await film.read();
    expect([takes.length, media.size]).toEqual([1, 1]);
    expect((await bring([file('clip.mp4', 'clip')]))[0].outcome).toBe('known');
  });

  it('names the files that a lost page had not brought in, and takes them again', async () => {
    const four = ['one', 'two', 'three', 'four'].map((name) => file(`${name}.mp4`, `clip ${name}`));
    // A page that is lost never comes back from the second file; its locks go with it.
    const looked = held<object>();
    probeFile.mockResolvedValueOnce(probes.clip).mockImplementationOnce(looked.called as never);
    void importFiles(film.store, film.project, four, { open, locks: ownLocks() });
    await until(() => expect(looked.called).toHaveBeenCalled());
    const names = await lostArrivals(film.store, film.project, ownLocks());
    expect(names.sort()).toEqual(['four.mp4', 'three.mp4', 'two.mp4']);
    expect(tellLost(names)).toBe(
      'The page was closed before four.mp4, three.mp4, and two.mp4 were in. Bring them in again.',
    );
    const problems = async () =>
      [...(await film.read()).media.values()].filter(({ problem }) => problem).map(({ name }) => name);
    expect((await problems()).sort()).toEqual(names);
    expect(await lostArrivals(film.store, film.project, locks)).toEqual([]);
    expect((await bring(four)).map(({ outcome }) => outcome)).toEqual(['known', 'take', 'take', 'take']);
    expect(await problems()).toEqual([]);
    expect(await film.store.arrivals.count()).toBe(0);
  });

  it('leaves the files of a page that is still at it alone', async () => {
    const answers: (string[] | undefined)[] = [];
    await importFiles(film.store, film.project, [file('one.mp4', 'clip 1'), file('two.mp4', 'clip 2')], {
      open: () => ({
        api: {
          probeFile: async () => {
            answers.push(await lostArrivals(film.store, film.project, locks));
            return probes.clip as never;
          },
        } as never,
        end: ended,
      }),
      locks,
    });
    expect(answers).toEqual([[], []]);
    expect((await film.read()).takes).toHaveLength(2);
  });

  it('keeps the place of a file that cannot be used, with the reason, and takes it once it can', async () => {
    const [told] = await bring([file('letter.mp4', 'Dear bench')]);
    expect(told).toMatchObject({ outcome: 'problem', message: expect.stringContaining('letter.mp4') });
    const [row] = (await film.read()).media.values();
    expect(row.problem?.code).toBe('media.not-media');
    probeFile.mockResolvedValueOnce(probes.clip as object);
    expect((await bring([file('letter.mp4', 'Dear bench')]))[0].outcome).toBe('take');
  });

  it('knows a file again, and brings a take back that was taken out', async () => {
    await bring([file('left.mp4', 'clip')]);
    const [{ id }] = (await film.read()).takes;
    expect((await bring([file('another name.mp4', 'clip')]))[0]).toMatchObject({
      outcome: 'known',
      record: id,
    });
    await removeTake(film.store, film.project, id);
    await bring([file('left.mp4', 'clip')]);
    expect((await film.read()).takes).toHaveLength(1);
    await undo(film.store, film.project);
    expect((await film.read()).takes).toHaveLength(0);
  });

  it('keeps a file again whose bytes this browser lost, and does what had ended for want of it', async () => {
    await bring([file('left.mp4', 'clip'), file('right.mp4', 'clip 2')]);
    const { store, project } = film;
    const [lost, whole] = (await film.read()).takes.map(({ media }) => media);
    for (const media of [lost, whole]) await film.measured(media, taken(), true, { media });
    await store.proxies.put({ id: whole, blob: new Blob(['proxy']) });
    const reason = { code: 'absent', message: 'The file is no longer in this browser.' };
    await store.writeRows('halted', [
      { key: 'a', project, label: 'Render', reason },
      { key: 'b', project, label: 'Render', reason: 'cancelled' },
    ]);
    await store.originals.delete(lost);
    const [again, known] = await bring([file('left.mp4', 'clip'), file('right.mp4', 'clip 2')]);
    expect([again.message, known.message]).toEqual([
      'left.mp4 is here again.',
      'right.mp4 is already in the project.',
    ]);
    expect(await (await store.originals.get(lost))?.blob.text()).toBe('clip');
    // What is shown of it is made anew; of the other one nothing is.
    const shown = await store.measures.filter(({ value }) => value.method === 'pictures').toArray();
    expect(shown.map(({ subject }) => subject)).toEqual([whole]);
    expect(await store.halted.toCollection().primaryKeys()).toEqual(['b']);
    expect((await film.read()).takes).toHaveLength(2);
  });

  it('belongs to one project: the same file in another one is new there', async () => {
    await bring([file('left.mp4', 'clip')]);
    const first = film;
    film = await TestFilm.begin();
    expect((await bring([file('left.mp4', 'clip')]))[0].outcome).toBe('take');
    expect((await first.read()).takes).toHaveLength(1);
  });

  it('says that the disk is full, brings in the others, and leaves nothing half-kept', async () => {
    vi.spyOn(film.store.originals, 'add').mockRejectedValueOnce(
      Object.assign(new Error('No space'), { name: 'QuotaExceededError' }),
    );
    const outcomes = await bring([file('big.mp4', 'clip big'), file('small.mp4', 'clip small')]);
    expect(outcomes.map(({ outcome }) => outcome)).toEqual(['problem', 'take']);
    expect(outcomes[0].message).toMatch(/no room left for big\.mp4\. Free some under Space/);
    expect([...(await film.read()).media.values()].map(({ name }) => name)).toEqual(['small.mp4']);
    expect((await bring([file('big.mp4', 'clip big')]))[0].outcome).toBe('take');
  });

  it('says so by name as well where not even what is to come finds room', async () => {
    const full = Object.assign(new Error('No space'), { name: 'QuotaExceededError' });
    vi.spyOn(film.store.arrivals, 'bulkAdd').mockRejectedValueOnce(full);
    vi.spyOn(film.store.originals, 'add').mockRejectedValueOnce(full);
    const outcomes = await bring([file('big.mp4', 'clip big'), file('small.mp4', 'clip small')]);
    expect(outcomes.map(({ outcome }) => outcome)).toEqual(['problem', 'take']);
    expect(outcomes[0].message).toMatch(/no room left for big\.mp4\. Free some under Space/);
  });

  it('stops between two files when it is cancelled; what is in stays in', async () => {
    let looks = 0;
    const outcomes = await bring(
      ['one', 'two', 'three'].map((name) => file(`${name}.mp4`, `clip ${name}`)),
      () => ++looks > 2,
    );
    expect(outcomes).toHaveLength(2);
    expect((await film.read()).takes).toHaveLength(2);
    expect(ended).toHaveBeenCalledTimes(1);
  });

  it('refuses a video without pictures once there is a song', async () => {
    await film.addSong();
    const [told] = await bring([file('voice.mp4', 'song')]);
    expect(told).toMatchObject({ outcome: 'problem' });
    expect((await film.read()).song?.id).toBe('song-record');
  });
});
