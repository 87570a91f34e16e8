import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readPcm, toPcm, wavHead } from './wav';

const sample = fc.float({ min: -1, max: 1, noNaN: true });

function written(channels: Float32Array[], sampleRate: number): Uint8Array {
  const pcm = toPcm(channels);
  const head = wavHead(channels[0].length, channels.length, sampleRate);
  const out = new Uint8Array(head.length + pcm.byteLength);
  out.set(head);
  out.set(new Uint8Array(pcm.buffer), head.length);
  return out;
}

describe('WAV', () => {
  it('gives back what was written, to 16 bits', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(sample, sample), { minLength: 1, maxLength: 200 }), (pairs) => {
        const channels = [0, 1].map((channel) => Float32Array.from(pairs, (pair) => pair[channel]));
        const read = readPcm(written(channels, 48000).buffer as ArrayBuffer);
        expect(read.sampleRate).toBe(48000);
        read.channels.forEach((data, channel) =>
          data.forEach((value, at) =>
            expect(Math.abs(value - channels[channel][at])).toBeLessThan(1 / 32000),
          ),
        );
      }),
    );
  });

  it('is a WAV file to ffprobe', () => {
    const folder = mkdtempSync(join(tmpdir(), 'wav-'));
    const path = join(folder, 'tone.wav');
    writeFileSync(path, written([new Float32Array(24000).fill(0.25)], 48000));
    const args = ['-v', 'error', '-show_entries', 'stream=codec_name,sample_rate,channels,duration'];
    const [stream] = JSON.parse(
      execFileSync('ffprobe', [...args, '-of', 'json', path], { encoding: 'utf8' }),
    ).streams;
    rmSync(folder, { recursive: true });
    expect(stream).toMatchObject({ codec_name: 'pcm_s16le', sample_rate: '48000', channels: 1 });
    expect(Number(stream.duration)).toBeCloseTo(0.5, 6);
  });

  it('refuses what is not a WAV file', () => {
    expect(() => readPcm(new TextEncoder().encode('Dear bench, '.repeat(9)).buffer as ArrayBuffer)).toThrow(
      expect.objectContaining({ code: 'wav' }),
    );
  });
});
