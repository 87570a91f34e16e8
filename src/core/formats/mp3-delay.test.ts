import { describe, expect, it } from 'vitest';
import { mp3Delay } from './mp3-delay';

/** The first frame of an MP3 with what its encoder says of the samples it put before and behind the music. */
function frame(delay: number | null, { mono = false, tag = 0, name = 'Info' } = {}): Uint8Array {
  const bytes = new Uint8Array(tag + 417);
  if (tag > 0) bytes.set([73, 68, 51, 3, 0, 0, 0, 0, (tag - 10) >> 7, (tag - 10) & 127]);
  bytes.set([0xff, 0xfb, 0x90, mono ? 0xc4 : 0x44], tag);
  if (delay === null) return bytes;
  const info = tag + 4 + (mono ? 17 : 32);
  bytes.set(new TextEncoder().encode(name), info);
  bytes[info + 7] = 0x0f;
  bytes.set(new TextEncoder().encode('LAME3.100'), info + 120);
  bytes.set([delay >> 4, ((delay & 15) << 4) | 4, 0x12], info + 141);
  return bytes;
}

describe('the delay of an MP3', () => {
  // Bouvigne 2003: twelve bits of delay at byte 21 of the encoder's part; 529 of the decoder are common practice.
  it('is read from its first frame, mono or not, behind a tag or not', () => {
    expect(mp3Delay(frame(576))).toBe(1105);
    expect(mp3Delay(frame(1105, { mono: true }))).toBe(1634);
    expect(mp3Delay(frame(576, { tag: 310, name: 'Xing' }))).toBe(1105);
  });

  it('is nothing where the file does not say, or is no MP3', () => {
    expect(mp3Delay(frame(null))).toBe(0);
    expect(mp3Delay(new Uint8Array(0))).toBe(0);
    expect(mp3Delay(new TextEncoder().encode('RIFF....WAVEfmt '))).toBe(0);
  });
});
