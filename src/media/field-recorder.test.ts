import { BlobReader, ZipReader, Uint8ArrayWriter, type FileEntry } from '@zip.js/zip.js';
import { describe, expect, it } from 'vitest';
import { heardFrom, inRoom, noisy, rate, song } from '@/core/footage/__tests__/heard';
import { alignSound } from '@/core/footage/align-sound';
import { isHeard } from '@/core/footage/field-recorder';
import { readPcm } from '@/core/formats/wav';
import { cutForTakes, layOnRecording } from './field-recorder';
import { wavOf } from './sounds';

const quiet = () => undefined;
/** Three quarters of a minute of what happens on a set. */
const set = song(45, 11);
const recording = new File([wavOf([noisy(set, 30, 2)])], 'beside.wav');
/** What a camera in the room has heard of it, whose clock is slow by so many parts in a million. */
const heardBy = (from: number, seconds: number, drift: number, seed: number) =>
  noisy(inRoom(heardFrom(set, from, seconds, drift), seed), 10, seed);

async function unzipped(zip: Blob): Promise<Map<string, Uint8Array>> {
  const entries = await new ZipReader(new BlobReader(zip), { useWebWorkers: false }).getEntries();
  const files = entries.map(async (entry): Promise<[string, Uint8Array]> => [
    entry.filename,
    await (entry as FileEntry).getData(new Uint8ArrayWriter()),
  ]);
  return new Map(await Promise.all(files));
}

describe('a recorder beside the camera', () => {
  const cameras = [
    { id: 'one', from: 3.217_35, seconds: 20, drift: 60, seed: 3 },
    { id: 'two', from: 24.5, seconds: 14, drift: -40, seed: 4 },
  ];

  it('has each take on its sample, and gives it out under it at its clock', async () => {
    const sounds = new Map(
      cameras.map(({ id, from, seconds, drift, seed }) => [id, heardBy(from, seconds, drift, seed)]),
    );
    const files = [...sounds].map(([id, sound]) => ({ id, file: wavOf([sound]) }));
    const { name, seconds, heard } = await layOnRecording(recording, files, quiet);
    expect([name, seconds]).toEqual(['beside.wav', 45]);
    for (const { id, from, drift } of cameras) {
      expect(isHeard(heard[id])).toBe(true);
      // A sample at 48 kHz is 21 µs.
      expect(Math.abs(heard[id].offset - from)).toBeLessThan(1.5 / rate);
      expect(Math.abs(heard[id].drift - drift)).toBeLessThan(8);
    }
    const laid = cameras.map(({ id, seconds }) => ({ name: 'The same name', seconds, alignment: heard[id] }));
    const out = await unzipped(await cutForTakes(recording, laid, quiet));
    expect([...out.keys()]).toEqual(['the-same-name.wav', 'the-same-name-2.wav', 'takes.csv']);
    for (const [index, { id, seconds }] of cameras.entries()) {
      const bytes = [...out.values()][index];
      const { channels, sampleRate } = readPcm(Uint8Array.from(bytes).buffer);
      expect([channels[0].length, sampleRate]).toEqual([seconds * rate, rate]);
      const own = alignSound(channels[0], sounds.get(id) as Float32Array, rate);
      expect(Math.abs(own.offset)).toBeLessThan(2 / rate);
      expect(Math.abs(own.drift)).toBeLessThan(8);
    }
    expect(new TextDecoder().decode(out.get('takes.csv'))).toMatch(
      /^take,recording,begins.*\r\nThe same name,beside\.wav,3\.2173/,
    );
  });

  it('that began after the take, or ended before it, is silent there', async () => {
    const before = new Float32Array(12 * rate);
    before.set(set.subarray(0, 10 * rate), 2 * rate);
    const after = new Float32Array(12 * rate);
    after.set(set.subarray(37 * rate));
    const files = [before, after].map((sound, index) => ({ id: `${index}`, file: wavOf([sound]) }));
    const { heard } = await layOnRecording(recording, files, quiet);
    const laid = files.map(({ id }) => ({ name: id, seconds: 12, alignment: heard[id] }));
    const out = await unzipped(await cutForTakes(recording, laid, quiet));
    const [early, late] = [...out.values()].map((bytes) => Uint8Array.from(bytes).buffer);
    const loud = (data: Float32Array, from: number, until: number) =>
      data.subarray(from * rate, until * rate).reduce((sum, value) => sum + Math.abs(value), 0);
    const [one, other] = [early, late].map((bytes) => readPcm(bytes).channels[0]);
    expect([loud(one, 0, 1.99), loud(other, 8.01, 12)]).toEqual([0, 0]);
    expect([loud(one, 2.01, 12) > 1, loud(other, 0, 7.99) > 1]).toEqual([true, true]);
  });

  it('has not heard another set, a take without sound, or one that is no file', async () => {
    const files = [
      { id: 'other', file: wavOf([song(12, 90)]) },
      { id: 'silent', file: wavOf([new Float32Array(8 * rate)]) },
      { id: 'none', file: new Blob(['no sound at all']) },
    ];
    const { heard } = await layOnRecording(recording, files, quiet);
    expect(Object.keys(heard)).toEqual(['other', 'silent', 'none']);
    expect(Object.values(heard).some(isHeard)).toBe(false);
    for (const bytes of ['', 'no sound at all'])
      await expect(layOnRecording(new File([bytes], 'x.wav'), files, quiet)).rejects.toMatchObject({
        code: 'media.no-sound',
      });
  });
});
