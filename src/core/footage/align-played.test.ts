import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { allowed } from '../finding/allowed';
import { heardFrom, inRoom, noisy, rate, song } from './__tests__/heard';
import { alignKept } from './align-kept';
import { alignPlayed } from './align-played';
import { onReference } from './align-sound';

const reference = song(60, 5);

/** Seconds of a sound as ffmpeg's player has them that keeps the pitch. */
function throughFfmpeg(sound: Float32Array, filter: string, from: number, seconds: number): Float32Array {
  const input = sound.slice(Math.round(from * rate), Math.round((from + seconds) * rate));
  const raw = ['-f', 'f32le', '-ar', String(rate), '-ac', '1'];
  const bytes = execFileSync('ffmpeg', ['-v', 'error', ...raw, '-i', '-', '-af', filter, ...raw, '-'], {
    input: new Uint8Array(input.buffer),
    maxBuffer: 1e8,
  });
  return new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
}

/** Seconds of the recording by which a second of the song is off, at the beginning and at the end. */
const off = (found: ReturnType<typeof alignPlayed>, start: number, seconds: number, speed: number) =>
  [0, seconds].map((at) => Math.abs(onReference(found, at) - start - speed * at) / speed);

describe('a take’s sound on a song that was played at another speed', () => {
  it.each([
    { speed: 2.5, start: 4.217 },
    { speed: 1.25, start: 21.9 },
  ])('is found within 2 ms at $speed times its speed, in a room at 10 dB', ({ speed, start }) => {
    const heard = noisy(inRoom(heardFrom(reference, start, 12, 20, speed), 3), 10, 40);
    const found = alignPlayed(reference, heard, rate);
    expect(found.speed).toBe(speed);
    expect(found.confidence).toBeGreaterThan(allowed.heard);
    const error = Math.max(...off(found, start, 12, speed));
    console.info(`At ${speed} times: off by ${(1000 * error).toFixed(2)} ms at the most.`);
    expect(error).toBeLessThan(0.002);
  });

  it('is found at a speed that was planned, and as it is where it was played so', () => {
    const heard = heardFrom(reference, 9, 12, 0, 1.7);
    expect(alignPlayed(reference, heard, rate).confidence).toBeLessThan(allowed.heard - 0.1);
    expect(alignPlayed(reference, heard, rate, [1.7])).toMatchObject({ speed: 1.7 });
    const own = alignPlayed(reference, heardFrom(reference, 9, 12, 0), rate, [1.7]);
    expect(own.speed).toBeUndefined();
    expect(own.offset).toBeCloseTo(9, 4);
  });

  it.each([
    { speed: 2, filter: 'atempo=2' },
    { speed: 1.25, filter: 'atempo=1.25' },
  ])('is found within 16 ms where $filter has kept its pitch', ({ speed, filter }) => {
    const heard = noisy(inRoom(throughFfmpeg(reference, filter, 9.1, 14 * speed), 3), 10, 40);
    const found = alignPlayed(reference, heard, rate);
    expect(found.speed).toBe(speed);
    expect(found.confidence).toBeGreaterThan(allowed.heard);
    const error = Math.max(...off(found, 9.1, 12, speed));
    console.info(`Pitch kept at ${speed} times: off by ${(1000 * error).toFixed(1)} ms.`);
    expect(error).toBeLessThan(0.016);
  });

  it('is doubted by its loudness in another song, and in less than four seconds', () => {
    for (const seed of [77, 78, 79])
      expect(alignKept(reference, song(20, seed), rate, [1]).confidence).toBeLessThan(allowed.heard);
    expect(alignKept(reference, reference.subarray(0, 3 * rate), rate, [1]).confidence).toBe(0);
    expect(alignKept(reference, reference.subarray(2 * rate, 8 * rate), rate, [1]).offset).toBeCloseTo(2, 2);
    expect(() => alignKept(reference, reference, 4000, [1])).toThrow(
      expect.objectContaining({ code: 'sample-rate' }),
    );
  });

  it('is doubted in another song, and found nowhere in silence', () => {
    expect(alignPlayed(reference, song(12, 77), rate).confidence).toBeLessThan(allowed.heard - 0.1);
    expect(alignPlayed(reference, new Float32Array(8 * rate), rate).confidence).toBe(0);
  });
});
