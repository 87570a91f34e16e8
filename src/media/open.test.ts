import { describe, expect, it } from 'vitest';
import { probeFile } from './open';

/** A FLAC file up to its first block: 48 kHz, one channel, 16 bits. @see RFC 9639, 8.2 (STREAMINFO) */
function flacHead(): Blob {
  const info = new Uint8Array(34);
  const view = new DataView(info.buffer);
  view.setUint16(0, 4608);
  view.setUint16(2, 4608);
  // 20 bits of rate, 3 of channels − 1, 5 of bits − 1, and the samples in all.
  view.setUint32(10, (48_000 << 12) | (0 << 9) | (15 << 4));
  view.setUint32(14, 192_000);
  return new Blob(['fLaC', new Uint8Array([0x80, 0, 0, 34]), info]);
}

describe('a file that is looked into', () => {
  // Its reader looked for the end of a sound without a block for ever.
  it('says of a FLAC that breaks off before its sound what to do', async () => {
    await expect(probeFile(flacHead())).rejects.toMatchObject({ code: 'media.truncated' });
  });

  it('says what is empty and what is no film', async () => {
    await expect(probeFile(new Blob([]))).rejects.toMatchObject({ code: 'media.empty' });
    await expect(probeFile(new Blob(['a letter']))).rejects.toMatchObject({ code: 'media.not-media' });
  });
});
