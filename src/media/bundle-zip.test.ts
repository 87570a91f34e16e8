import { BlobWriter, TextReader, ZipWriter } from '@zip.js/zip.js';
import { describe, expect, it } from 'vitest';
import { unpackBundle } from './bundle-zip';

async function zipOf(name: string): Promise<Blob> {
  const zip = new ZipWriter(new BlobWriter('application/zip'));
  await zip.add(name, new TextReader('x'));
  return zip.close();
}

describe('a carried file', () => {
  it.each(['../outside.txt', '/etc/outside', 'media/../../outside', 'C:\\outside.txt'])(
    'is refused by the name of what would lie outside of it: %s',
    async (name) => {
      const refused = unpackBundle(await zipOf(name), () => undefined);
      await expect(refused).rejects.toMatchObject({
        code: 'bundle.hostile',
        message: expect.stringContaining(`“${name}”`),
      });
    },
  );

  it('is refused as broken off where it is no zip', async () => {
    await expect(unpackBundle(new Blob(['no zip']), () => undefined)).rejects.toMatchObject({
      code: 'bundle.truncated',
    });
  });
});
