import { writeFileSync } from 'node:fs';
import { describe, expect } from 'vitest';
import { psnr } from '@/core/picture/psnr';
import { resizeYuv, yuvToRgba, type YuvKind } from '@/core/picture/planes';
import { ruled } from './support/film-set';
import { decode, demo, ffmpeg } from './support/ffmpeg';
import { unpack } from './support/packed';
import { seeded, taken } from './support/seeds';
import { test } from './support/test';

const small = { width: 640, height: 360 };

/** The demo's take in other codes of the same light, tagged so. */
function recoded(path: string, { matrix, fullRange }: YuvKind): void {
  const space = matrix === 'bt601' ? 'smpte170m' : 'bt709';
  const range = fullRange ? 'full' : 'limited';
  const filter = `scale=in_color_matrix=bt709:in_range=limited:out_color_matrix=${space}:out_range=${range},format=yuv420p`;
  const tags = ['-colorspace', space, '-color_range', fullRange ? 'pc' : 'tv', '-color_primaries', space];
  ffmpeg(
    '-i',
    demo('bench-left-1.mp4'),
    '-frames:v',
    '12',
    '-an',
    '-vf',
    filter,
    ...tags,
    '-crf',
    '10',
    path,
  );
}

const kinds = [
  { matrix: 'bt709', fullRange: true },
  { matrix: 'bt601', fullRange: false },
  { matrix: 'bt601', fullRange: true },
] as const;

describe('what the stage shows', () => {
  test('is the light of the files, whatever their matrix and range', async ({ open, file }) => {
    const bench = await open({ seed: await seeded(ruled), at: 'station=match' });
    const names = kinds.map(({ matrix, fullRange }) => `${matrix} ${fullRange ? 'full' : 'limited'}.mp4`);
    kinds.forEach((kind, index) => recoded(file(names[index]), kind));
    await bench.bringIn(...names.map(file));
    await bench.page.locator('[data-take] img').nth(2).waitFor();
    await bench.settled();
    const { rowsOf } = await taken(bench.page);
    const media = unpack(rowsOf('media')) as { id: string; name: string }[];
    const proxies = unpack(rowsOf('proxies')) as { id: string; blob: Blob }[];
    for (const [index, kind] of kinds.entries()) {
      const id = media.find(({ name }) => name === names[index])?.id;
      const proxy = proxies.find((one) => one.id === id);
      writeFileSync(file('proxy.mp4'), Buffer.from((await proxy?.blob.arrayBuffer()) as ArrayBuffer));
      const shown = decode(file('proxy.mp4'), small.width, small.height);
      const filmed = decode(file(names[index]), 1280, 720, kind);
      expect(shown).toHaveLength(12);
      for (const at of [0, 11])
        expect(
          psnr(yuvToRgba(shown[at]), yuvToRgba(resizeYuv(filmed[at], small))),
          names[index],
        ).toBeGreaterThan(36);
    }
  });
});
