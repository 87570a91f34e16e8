import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BenchPage } from './support/bench-page';
import { openBrowser } from './support/browser';
import { demo, ffmpeg } from './support/ffmpeg';
import { startServer } from './support/server';

const folder = mkdtempSync(join(tmpdir(), 'ribbon-bad-'));
const file = (name: string) => join(folder, name);

/** The same movie with a track header that asks for a quarter turn. @see ISO/IEC 14496-12, 8.3.2 (tkhd, version 0) */
function turned(movie: Buffer, height: number): Buffer {
  const matrix = movie.indexOf('tkhd') + 44;
  const quarter = [0, 0x10000, 0, -0x10000, 0, 0, height * 0x10000, 0, 0x40000000];
  quarter.forEach((value, index) => movie.writeInt32BE(value, matrix + 4 * index));
  return movie;
}

describe('files that cannot be used as they are', () => {
  let browser: Browser;
  let server: Awaited<ReturnType<typeof startServer>>;
  let bench: BenchPage;

  beforeAll(async () => {
    const left = demo('bench-left-1.mp4');
    const short = ['-t', '1.5', '-an'];
    writeFileSync(file('letter.mp4'), 'Dear bench, this is a letter.');
    writeFileSync(file('empty.mp4'), '');
    ffmpeg('-i', left, ...short, '-c', 'copy', file('whole.mp4'));
    writeFileSync(file('no-index.mp4'), readFileSync(file('whole.mp4')).subarray(0, 90_000));
    const early = readFileSync(left);
    writeFileSync(file('cut-off left.mp4'), early.subarray(0, Math.floor(early.length * 0.4)));
    ffmpeg(
      '-i',
      left,
      ...short,
      '-c:v',
      'libx265',
      '-x265-params',
      'log-level=none',
      '-tag:v',
      'hvc1',
      file('hevc.mp4'),
    );
    ffmpeg('-f', 'lavfi', '-i', 'sine=440:d=2', '-c:a', 'aac', file('only-sound.mp4'));
    ffmpeg('-f', 'lavfi', '-i', 'anullsrc=r=48000:cl=stereo', '-t', '4', file('silence.wav'));
    ffmpeg('-i', left, ...short, '-vf', 'scale=640:360', file('small left.mp4'));
    writeFileSync(file('turned left.mp4'), turned(readFileSync(file('whole.mp4')), 720));
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      'testsrc2=s=1280x720:r=24000/1001:d=1.5',
      '-pix_fmt',
      'yuv420p',
      file('elsewhere left.mp4'),
    );
    ffmpeg(
      ...[
        '-i',
        left,
        '-t',
        '2',
        '-an',
        '-vf',
        "select='not(mod(n,3))+lt(n,20)'",
        '-fps_mode',
        'vfr',
        '-enc_time_base',
        '1/24000',
      ],
      file('uneven right.mp4'),
    );
    server = await startServer(4392);
    browser = await openBrowser();
    bench = await BenchPage.open(browser, server.url);
    await bench.ownProject();
  });
  afterAll(async () => {
    await bench?.close();
    await browser?.close();
    await server?.stop();
  });

  it('says that a silent song is silent, and still lets the tempo be set', async () => {
    await bench.bringIn(file('silence.wav'));
    await bench.finding('song.silent').waitFor({ timeout: 120_000 });
    await bench.page.getByRole('spinbutton', { name: 'Tempo' }).press('ArrowUp');
    await bench.page.getByText(/beats, set by hand/).waitFor();
  });

  it.each([
    ['letter.mp4', 'media.not-media', /neither sound nor video/],
    ['empty.mp4', 'media.empty', /empty/],
    ['no-index.mp4', 'media.truncated', /breaks off/],
    ['hevc.mp4', 'media.codec', /cannot decode HEVC/],
    ['only-sound.mp4', 'media.no-pictures', /no pictures/],
  ])('%s gets a finding that says what to do, and takes nothing away', async (name, code, words) => {
    await bench.go('Match');
    await bench.bringIn(file(name));
    const finding = bench.finding(code).filter({ hasText: name });
    await finding.waitFor({ timeout: 60_000 });
    expect(await finding.innerText()).toMatch(words);
    await finding.getByRole('button', { name: 'Take it off the list' }).click();
    await finding.waitFor({ state: 'detached' });
    await bench.go('Song');
    await bench.page.getByText(/beats, set by hand/).waitFor();
  });

  it('finds sizes, turned files, other places, broken ends and uneven rates', async () => {
    await bench.go('Match');
    const names = [
      'small left.mp4',
      'turned left.mp4',
      'elsewhere left.mp4',
      'cut-off left.mp4',
      'uneven right.mp4',
    ];
    await bench.bringIn(demo('bench-plate-start.mp4'), ...names.map(file));
    await bench.page.locator('[data-take="Uneven right"]').waitFor({ timeout: 120_000 });
    await bench.settled();
    const saying = (code: string, take: string) =>
      bench.finding(code).filter({ hasText: take }).first().waitFor({ timeout: 120_000 });
    await saying('take.size', 'Small left');
    await saying('take.turned', 'Turned left');
    await saying('take.size', 'Turned left');
    await saying('take.other-view', 'Elsewhere left');
    await saying('take.cut-off', 'Cut off left');
    await saying('take.varying-rate', 'Uneven right');
    expect(await bench.page.locator('[data-take]').count()).toBe(6);
  });
});
