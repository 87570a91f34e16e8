import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { songParts, type SongPart } from '@/core/song/parts';
import { createMoment } from '@/store/commands/moments';
import { needsOf, type Need } from '@/store/needs';
import { songMeasure } from '@/store/snapshot';
import { TestFilm } from '@/store/__tests__/film';
import { heard } from './__tests__/answers';
import { measureSong } from './song-work';

/** A WAV of one channel at 48 kHz, by its size alone. */
const wavOf = (seconds: number) => new Blob([new Uint8Array(44 + Math.round(seconds * 48_000) * 2)]);

let film: TestFilm;
beforeEach(async () => {
  film = await TestFilm.begin();
  await film.addSong();
  await film.store.originals.add({ id: 'song', blob: new Blob(['file']) });
});

/** Lets the song be measured once. @returns what the worker was asked for */
async function listen(early: number): Promise<{ parts: readonly SongPart[]; source: Blob }> {
  const snapshot = await film.read();
  const need = needsOf(snapshot).find((one): one is Need & { kind: 'song' } => one.kind === 'song');
  if (!need) throw new Error('Nothing of the song is missing.');
  const { decoded, ...found } = heard(need.parts, early);
  const answer = { ...found, decoded: decoded && { ...decoded, wav: wavOf(decoded.sound.duration) } };
  const ask = vi.fn<(source: Blob, parts: readonly SongPart[]) => Promise<typeof answer>>();
  ask.mockResolvedValue(answer);
  const job = { store: film.store, snapshot, need, progress: () => undefined };
  await measureSong(job, { measureSong: ask } as never);
  const [source, parts] = ask.mock.calls[0];
  return { source, parts };
}
const beats = async () => (await film.read()).song?.grid?.beats ?? [];

describe('measuring a song', () => {
  it('keeps each part under its own key, and listens to the kept sound for what is missing later', async () => {
    expect((await listen(0)).parts).toEqual(songParts);
    expect(songMeasure(await film.read())?.song.duration).toBe(60);
    const key = [...(await film.read()).measures.keys()].find((one) => one.startsWith('sections')) ?? '';
    await film.store.removeRows('measures', film.project, [key]);
    expect(songMeasure(await film.read())).toBeNull();
    const { parts, source } = await listen(0);
    expect(parts).toEqual(['sections']);
    expect(source.size).toBe(wavOf(60).size);
    expect(needsOf(await film.read())).toEqual([]);
  });

  it('measures all of it where its sound is gone', async () => {
    await listen(0);
    await film.store.proxies.delete('song');
    const key = [...(await film.read()).measures.keys()].find((one) => one.startsWith('beats')) ?? '';
    await film.store.removeRows('measures', film.project, [key]);
    const { parts, source } = await listen(0);
    expect(parts).toEqual(songParts);
    expect(await source.text()).toBe('file');
  });

  it('moves beats with the sound that they were laid on, where an older decoding began late', async () => {
    const moment = await createMoment(film.store, film.project, 8, 12);
    const before = await beats();
    await film.store.proxies.put({ id: 'song', blob: wavOf(60.025) });
    await listen(0.025);
    (await beats()).forEach((beat, index) => expect(beat).toBeCloseTo(before[index] - 0.025, 6));
    // Beats that were found stay found.
    expect((await film.read()).song?.confidence).toBe(0.9);
    const [kept] = (await film.read()).moments;
    expect(kept).toMatchObject({ id: moment, start: 8, end: 12 });
  });

  it('leaves beats where they are on a sound that began where it does now, and on none', async () => {
    const before = await beats();
    await listen(0.025);
    expect(await beats()).toEqual(before);
    // Measured once more: what is kept has no delay any longer.
    await film.store.removeRows('measures', film.project, [...(await film.read()).measures.keys()]);
    await listen(0.025);
    expect(await beats()).toEqual(before);
  });
});
