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

/** The pictures of a proxy. */
async function shownOf(proxy: Blob, path: string) {
  writeFileSync(path, Buffer.from(await proxy.arrayBuffer()));
  return decode(path, small.width, small.height);
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
      const shown = await shownOf(proxies.find((one) => one.id === id)?.blob as Blob, file('proxy.mp4'));
      const filmed = decode(file(names[index]), 1280, 720, kind);
      expect(shown).toHaveLength(12);
      for (const at of [0, 11])
        expect(
          psnr(yuvToRgba(shown[at]), yuvToRgba(resizeYuv(filmed[at], small))),
          names[index],
        ).toBeGreaterThan(36);
    }
  });

  test('is ten bits’ light too; HDR and what is not 4:2:0 are refused by name, and become no take', async ({
    open,
    file,
  }) => {
    const bench = await open({ seed: await seeded(ruled), at: 'station=match' });
    const source = ['-i', demo('bench-left-1.mp4'), '-frames:v', '12', '-an'];
    const sdr = [
      '-colorspace',
      'bt709',
      '-color_primaries',
      'bt709',
      '-color_trc',
      'bt709',
      '-color_range',
      'tv',
    ];
    const hlg = ['-colorspace', 'bt2020nc', '-color_primaries', 'bt2020', '-color_trc', 'arib-std-b67'];
    const vp9 = ['-c:v', 'libvpx-vp9', '-crf', '10', '-b:v', '0', '-cpu-used', '8'];
    ffmpeg(...source, '-pix_fmt', 'yuv420p10le', '-c:v', 'libx264', '-crf', '8', ...sdr, file('ten.mp4'));
    ffmpeg(...source, '-pix_fmt', 'yuv420p10le', ...vp9, ...sdr, file('ten.webm'));
    ffmpeg(...source, '-pix_fmt', 'yuv420p10le', ...vp9, ...hlg, file('hlg.webm'));
    ffmpeg(...source, '-pix_fmt', 'yuv444p', ...vp9, ...sdr, file('fine.webm'));
    const said = async (name: string) => {
      await bench.bringIn(file(name));
      return bench.page
        .getByText(new RegExp(`^${name}: `))
        .first()
        .innerText();
    };
    expect(await said('hlg.webm')).toMatch(/HDR or wide-colour video.*Set the camera to SDR .* or convert/);
    expect(await said('fine.webm')).toMatch(/not in 4:2:0.*Set the camera to 8 bit SDR, or convert/);
    await bench.bringIn(file('ten.mp4'), file('ten.webm'));
    await bench.page.locator('[data-take] img').nth(1).waitFor();
    await bench.settled();
    const { rowsOf } = await taken(bench.page);
    const media = unpack(rowsOf('media')) as { id: string; name: string }[];
    const proxies = unpack(rowsOf('proxies')) as { id: string; blob: Blob }[];
    expect(proxies).toHaveLength(2);
    const [filmed] = decode(demo('bench-left-1.mp4'), 1280, 720);
    for (const { id, blob } of proxies) {
      const [shown] = await shownOf(blob, file('proxy.mp4'));
      expect(
        psnr(yuvToRgba(shown), yuvToRgba(resizeYuv(filmed, small))),
        media.find((one) => one.id === id)?.name,
      ).toBeGreaterThan(36);
    }
  });

  // Browsers read untagged pictures of fewer than 720 lines as BT.601; today's phones tag theirs.
  test('is read as browsers read it where a file does not say, which is said and can be set', async ({
    open,
    file,
  }) => {
    const bench = await open({ seed: await seeded(ruled), at: 'station=match' });
    // By way of a bare stream no tag of a container is left.
    const coded = ['-f', 'lavfi', '-i', 'testsrc2=s=640x360:r=24:d=0.5', '-crf', '8', '-bf', '0'];
    ffmpeg(...coded, '-pix_fmt', 'yuv420p', file('bare.h264'));
    ffmpeg('-r', '24', '-i', file('bare.h264'), '-c', 'copy', file('old.mp4'));
    await bench.bringIn(file('old.mp4'));
    await bench.page.locator('[data-take] img').first().waitFor();
    await bench.settled();
    /** How much nearer, in dB, what is shown is to the file read as BT.601 than to it read as BT.709. */
    const leaning = async () => {
      const { rowsOf } = await taken(bench.page);
      const [{ blob }] = unpack(rowsOf('proxies')) as { blob: Blob }[];
      const [shown] = await shownOf(blob, file('proxy.mp4'));
      const [old, late] = (['bt601', 'bt709'] as const).map((matrix) => {
        const [filmed] = decode(file('old.mp4'), small.width, small.height, { matrix, fullRange: false });
        return psnr(yuvToRgba(shown), yuvToRgba(filmed));
      });
      return old - late;
    };
    expect(await leaning()).toBeGreaterThan(6);
    await bench.found('take.colours-assumed');
    await bench.press('Read them the other way');
    await bench.found('take.colours-chosen');
    await bench.settled();
    expect(await leaning()).toBeLessThan(-6);
    await bench.undo();
    await bench.found('take.colours-assumed');
    await bench.settled();
    expect(await leaning()).toBeGreaterThan(6);
  });
});
