import { readFileSync, writeFileSync } from 'node:fs';
import { describe, expect } from 'vitest';
import { setTempo } from '@/store/commands/song';
import { ruled } from './support/film-set';
import { demo, ffmpeg } from './support/ffmpeg';
import { houses } from './support/photographs';
import { seeded } from './support/seeds';
import { test } from './support/test';

/** The same movie with a track header that asks for a quarter turn. @see ISO/IEC 14496-12, 8.3.2 (tkhd, version 0) */
function turned(movie: Buffer, height: number): Buffer {
  const matrix = movie.indexOf('tkhd') + 44;
  const quarter = [0, 0x10000, 0, -0x10000, 0, 0, height * 0x10000, 0, 0x40000000];
  quarter.forEach((value, index) => movie.writeInt32BE(value, matrix + 4 * index));
  return movie;
}

const left = demo('bench-left-1.mp4');
const short = ['-t', '1.5', '-an'];

/** Files that no bench can use, made in a folder. */
const useless: Record<string, (path: string) => void> = {
  'letter.mp4': (path) => writeFileSync(path, 'Dear bench, this is a letter.'),
  'empty.mp4': (path) => writeFileSync(path, ''),
  'no-index.mp4': (path) => {
    // The index is written last, as phones do.
    ffmpeg('-i', left, ...short, '-c', 'copy', path);
    writeFileSync(path, readFileSync(path).subarray(0, 90_000));
  },
  'hevc.mp4': (path) =>
    ffmpeg(
      ...['-i', left, ...short, '-c:v', 'libx265', '-x265-params', 'log-level=none', '-tag:v', 'hvc1', path],
    ),
  'only-sound.mp4': (path) => ffmpeg('-f', 'lavfi', '-i', 'sine=440:d=2', '-c:a', 'aac', path),
};

describe('files that cannot be used as they are', () => {
  test('says that a silent song is silent, and still lets the tempo be set', async ({ open, file }) => {
    const bench = await open({ seed: await seeded(), at: 'station=song' });
    ffmpeg('-f', 'lavfi', '-i', 'anullsrc=r=48000:cl=stereo', '-t', '4', file('silence.wav'));
    await bench.bringIn(file('silence.wav'));
    await bench.found('song.silent');
    await bench.number('Tempo').press('ArrowUp');
    await bench.page.getByText(/beats, set by hand/).waitFor();
  });

  test.for([
    ['letter.mp4', 'media.not-media', /neither sound nor video/],
    ['empty.mp4', 'media.empty', /empty/],
    ['no-index.mp4', 'media.truncated', /breaks off/],
    ['hevc.mp4', 'media.codec', /cannot decode HEVC/],
    ['only-sound.mp4', 'media.no-pictures', /no pictures/],
  ] as const)(
    '%s gets a finding that says what to do, and takes nothing away',
    async ([name, code, words], { open, file }) => {
      const seed = await seeded(async (store, project) => {
        await ruled(store, project);
        await setTempo(store, project, 100, 0);
      });
      const bench = await open({ seed, at: 'station=match' });
      useless[name](file(name));
      await bench.bringIn(file(name));
      const finding = bench.finding(code).filter({ hasText: name });
      await finding.waitFor();
      expect(await finding.innerText()).toMatch(words);
      await finding.getByRole('button', { name: 'Take it off the list' }).click();
      await finding.waitFor({ state: 'detached' });
      await bench.go('Song');
      await bench.page.getByText(/beats, set by hand/).waitFor();
      expect(await bench.page.locator('[data-moment]').count()).toBe(1);
    },
  );

  test('finds sizes, turned files, other places, broken ends and uneven rates', async ({ open, file }) => {
    ffmpeg('-i', left, ...short, '-c', 'copy', file('whole.mp4'));
    const early = readFileSync(left);
    writeFileSync(file('cut-off left.mp4'), early.subarray(0, Math.floor(early.length * 0.4)));
    ffmpeg('-i', left, ...short, '-vf', 'scale=640:360', file('small left.mp4'));
    writeFileSync(file('turned left.mp4'), turned(readFileSync(file('whole.mp4')), 720));
    ffmpeg(
      ...['-f', 'lavfi', '-i', 'testsrc2=s=1280x720:r=24000/1001:d=1.5', '-pix_fmt', 'yuv420p'],
      file('elsewhere left.mp4'),
    );
    ffmpeg(
      ...['-i', left, '-t', '2', '-an', '-vf', "select='not(mod(n,3))+lt(n,20)'"],
      ...['-fps_mode', 'vfr', '-enc_time_base', '1/24000', file('uneven right.mp4')],
    );
    const bench = await open({ seed: await seeded(), at: 'station=match' });
    const names = [
      'small left.mp4',
      'turned left.mp4',
      'elsewhere left.mp4',
      'cut-off left.mp4',
      'uneven right.mp4',
    ];
    await bench.bringIn(demo('bench-plate-start.mp4'), ...names.map(file));
    await bench.page.locator('[data-take="Uneven right"]').waitFor();
    await bench.settled();
    for (const [code, take] of [
      ['take.size', 'Small left'],
      ['take.turned', 'Turned left'],
      ['take.size', 'Turned left'],
      ['take.other-view', 'Elsewhere left'],
      ['take.cut-off', 'Cut off left'],
      ['take.varying-rate', 'Uneven right'],
    ])
      expect(await bench.finding(code).filter({ hasText: take }).count(), `${take}: ${code}`).toBeGreaterThan(
        0,
      );
    expect(await bench.page.locator('[data-take]').count()).toBe(6);
  });

  test('doubts a plate that none of its takes fits, leaves it out, and puts one together from them', async ({
    open,
    file,
  }) => {
    const plain = ['-color_primaries', 'unknown', '-color_trc', 'unknown', '-colorspace', 'unknown'];
    const small = ['-t', '2.5', '-an', '-vf', 'scale=640:360,setsar=1,format=yuv420p', ...plain];
    ffmpeg('-loop', '1', '-framerate', '24', '-i', houses(), ...small, file('houses.mp4'));
    for (const [name, film] of [
      ['first', 'left-1'],
      ['second', 'left-2'],
      ['third', 'right-1'],
    ])
      ffmpeg('-i', demo(`bench-${film}.mp4`), ...small, file(`${name}.mp4`));
    const bench = await open({ seed: await seeded(), at: 'station=match' });
    await bench.bringIn(...['houses', 'first', 'second', 'third'].map((name) => file(`${name}.mp4`)));
    const alone = bench.finding('take.plate-alone');
    await alone.waitFor();
    expect(await alone.innerText()).toMatch(/None of \d takes shows the place of the clean plate, Houses\./);
    await bench.settled();
    // What is said alike of all four is said of two, and of the others on asking.
    const untagged = bench.finding('take.colours-assumed');
    const seen = () => untagged.filter({ visible: true }).count();
    expect([await untagged.count(), await seen()]).toEqual([4, 2]);
    await bench.page.getByText('2 more like it').click();
    await expect.poll(seen).toBe(4);
    await alone.getByRole('button', { name: 'Leave it out' }).click();
    await bench.press('Put one together from the takes');
    const slots = async () =>
      (await bench.records()).flatMap((one) => (one.kind === 'take' ? [`${one.name}: ${one.slot}`] : []));
    await expect
      .poll(slots)
      .toEqual(expect.arrayContaining(['First: left', 'Second: left', 'Third: right', 'Houses: none']));
    expect(await alone.count()).toBe(0);
  });

  test('tells lamps on the mains by the bands that roll through a take, and nothing of one beside it', async ({
    open,
    file,
  }) => {
    // Light that swings by 15 %, as a shutter sees it that opens line by line.
    const bands =
      "geq=lum='lum(X,Y)*pow(1+0.075*cos(2*PI*(3.3*Y/H+0.33*N)),1/2.4)':cb='cb(X,Y)':cr='cr(X,Y)'";
    const half = ['-t', '4', '-an', '-vf'];
    ffmpeg('-i', left, ...half, `scale=640:360,${bands},format=yuv420p`, '-crf', '20', file('left 1.mp4'));
    for (const [from, name] of [
      [left, 'left 2.mp4'],
      [demo('bench-plate-start.mp4'), 'plate.mp4'],
    ])
      ffmpeg('-i', from, ...half, 'scale=640:360,format=yuv420p', '-crf', '20', file(name));
    const bench = await open({ seed: await seeded(), at: 'station=match' });
    await bench.bringIn(...['plate.mp4', 'left 1.mp4', 'left 2.mp4'].map(file));
    await bench.page.locator('[data-take="Left 2"]').waitFor();
    await bench.settled();
    const found = bench.finding('take.flicker');
    expect(await found.count()).toBe(1);
    const said = await found.innerText();
    expect(said).toMatch(/light of Left 1 flickers by \d+ %/);
    expect(Math.abs(Number(/by (\d+) %/.exec(said)?.[1]) - 15)).toBeLessThanOrEqual(3);
  });
});
