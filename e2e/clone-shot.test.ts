import { readFileSync } from 'node:fs';
import { describe, expect } from 'vitest';
import { psnr } from '@/core/picture/psnr';
import { yuvToRgba, type YuvImage } from '@/core/picture/planes';
import { frameOfTime } from '@/core/time/rate';
import { songBeats } from '../demo/song/score';
import type { BenchPage } from './support/bench-page';
import { decode, demo, probe } from './support/ffmpeg';
import { ruled } from './support/film-set';
import { demoFilm } from './support/films';
import { referenceOf, storedShot } from './support/rebuild';
import { seeded } from './support/seeds';
import { test } from './support/test';

const rate = { num: 24000, den: 1001 };
const size = { width: 1280, height: 720 };

/** The join is judged, and hardly visible: a just noticeable difference is 2.3 (Mahy 1994), of still pictures. */
async function expectJoin(bench: BenchPage) {
  await bench.settled();
  const judged = bench.page.locator('[data-finding="clone.join-hidden"], [data-finding="clone.join-shows"]');
  await judged.waitFor({ state: 'attached' });
  expect(Number(/ΔE (\d+\.\d)/.exec((await judged.textContent()) ?? '')?.[1])).toBeLessThan(3);
}

/** Mean codes of a flat patch of the wall. */
const wall = (picture: YuvImage) => {
  const { data } = yuvToRgba(picture);
  const sums = [0, 0, 0];
  for (let y = 20; y < 80; y++)
    for (let x = 700; x < 760; x++)
      for (let channel = 0; channel < 3; channel++)
        sums[channel] += data[(y * 1280 + x) * 4 + channel] / 3600;
  return sums;
};

describe('the whole job, on the encoded files of the demo', () => {
  test('leads from a song, a plate, a bumped and a dark take to a shot whose copy is on its frame', async ({
    open,
    file,
  }) => {
    const bench = await open({ seed: await seeded(), at: 'station=song' });
    const { page } = bench;

    // The song: its beats are found.
    await bench.bringIn(demo('left-hand-thread.opus'));
    await page.getByText(/beats, sure/).waitFor();
    const grid = await bench.grid();
    const truth = songBeats();
    const near = truth.filter((time) => grid.beats.some((beat) => Math.abs(beat - time) < 0.07)).length;
    expect(near / truth.length).toBeGreaterThan(0.97);
    expect(Math.abs(grid.beats[grid.firstDownbeat] - truth[0])).toBeLessThan(0.07);
    expect(grid.beatsPerBar).toBe(4);

    // The takes: what is wrong with them is found, and mended.
    await bench.bringIn(
      ...['bench-plate-start', 'bench-left-2', 'bench-right-2'].map((name) => demo(`${name}.mp4`)),
    );
    await bench.go('Match');
    await bench.settled();
    const texts = await page.locator('[data-severity=stop], [data-severity=fix]').allInnerTexts();
    expect(texts).toHaveLength(2);
    expect(texts.join()).toMatch(
      /Bench left 2 moved \d\.\d px to the right, turned 0\.\d\d° clockwise at 0:05\.2/,
    );
    expect(texts.join()).toMatch(/Bench right 2 is 0\.3\d stop .* darker/);
    await bench.press('Steady it');
    await bench.press('Match it to the plate');
    await bench.found('take.steadied');
    await bench.found('take.matched');

    // The moment: joined, rendered, and handed over.
    await bench.press('Use this pair');
    await page.getByTestId('sentence').waitFor();
    await expectJoin(bench);
    await bench.found('clone.lands');
    bench.landed();
    await bench.go('Hand over');
    await bench.type('Bits a second', '40');
    await bench.press('Render the shot');
    await page.getByRole('progressbar').waitFor();
    await page.reload();
    await page.locator('[data-render=done]').waitFor();
    await (await bench.save('Save')).saveAs(file('shot.mov'));
    await (await bench.save('Timeline (OpenTimelineIO)')).saveAs(file('shot.otio'));
    await (await bench.save('Keyframes (CSV)')).saveAs(file('keyframes.csv'));
    await bench.press('Keyframes to print');
    await page.getByRole('columnheader', { name: 'Timecode in the film' }).first().waitFor();

    // The file has the frames, size, rate, length and tags that were asked for.
    const shot = await storedShot(bench);
    const frames = shot.end - shot.start;
    const video = probe(file('shot.mov'), 'v:0');
    expect(Number(video.nb_read_frames)).toBe(frames);
    expect([video.width, video.height]).toEqual([1280, 720]);
    expect(video.r_frame_rate).toBe('24000/1001');
    expect(Number(video.duration)).toBeCloseTo((frames * 1001) / 24000, 2);
    expect([video.color_range, video.color_space, video.color_primaries, video.color_transfer]).toEqual([
      'tv',
      'bt709',
      'bt709',
      'bt709',
    ]);
    const sound = probe(file('shot.mov'), 'a:0');
    expect(sound.codec_name).toBe('pcm_s16le');
    expect(Number(sound.duration)).toBeCloseTo((frames * 1001) / 24000, 2);

    // It shows what the reference painter paints from the same planes.
    const reference = referenceOf(shot, size, size, demo);
    const rendered = decode(file('shot.mov'), 1280, 720);
    for (const frame of [shot.start + 3, shot.lands, shot.lands + 40, shot.end - 1]) {
      const given = yuvToRgba(rendered[frame - shot.start]);
      expect(psnr(given, reference(frame)), `frame ${frame}`).toBeGreaterThan(35);
    }
    // The beat rounds to one frame: before it the copy is away, on it the copy is there.
    expect(Math.abs(shot.lands - frameOfTime(rate, truth[36]))).toBeLessThanOrEqual(1);
    expect(shot.lands).toBe(frameOfTime(rate, shot.beatTime));
    const suit = (frame: number) => {
      const { data } = yuvToRgba(rendered[frame - shot.start]);
      const at = (440 * 1280 + 812) * 4;
      return data[at + 2] - data[at];
    };
    expect(suit(shot.lands - 1)).toBeLessThan(20);
    expect(suit(shot.lands)).toBeGreaterThan(40);
    // A flat patch keeps its colour within 3 codes a channel.
    const plate = wall(decode(demo('bench-plate-start.mp4'), 1280, 720)[5]);
    wall(rendered[80]).forEach((value, channel) =>
      expect(Math.abs(value - plate[channel])).toBeLessThanOrEqual(3),
    );

    // Timeline and numbers say the same.
    const timeline = JSON.parse(readFileSync(file('shot.otio'), 'utf8'));
    expect(timeline.OTIO_SCHEMA).toBe('Timeline.1');
    expect(timeline.tracks.markers[0].marked_range.start_time.value).toBe(shot.lands - shot.start);
    const csv = readFileSync(file('keyframes.csv'), 'utf8');
    expect(csv).toContain(`${shot.lands},${shot.lands - shot.start},`);
    expect(csv).toMatch(/mask point 1, across/);
    expect(csv).toMatch(/move sideways/);
  });
});

describe('the demo’s clone', () => {
  const built = { keep: ['proxies', 'stills'] as const, at: 'station=build' };

  test('finds the bumped take and the light change at the first visit, nothing in the good takes, and mends all', async ({
    open,
  }) => {
    const bench = await open({ seed: demoFilm(), keep: ['proxies', 'stills'], at: 'station=match' });
    await bench.settled();
    const wrong = bench.page.locator('[data-severity=stop], [data-severity=fix]');
    // Two of the clone's takes, and one each of the powder and the landing; the other faults are no take's own.
    await expect.poll(() => wrong.count()).toBe(4);
    const texts = await wrong.allInnerTexts();
    for (const planted of [
      /Bench left 2 moved/,
      /Bench right 2 is 0\.3\d stop .* darker/,
      /Powder falls is 0\.3\d stop .* darker/,
      /Leap down moved \d\.\d px .* at 0:01\.1/,
    ])
      expect(texts.join()).toMatch(planted);
    // All others stand: two good takes and the dark one, the plate at the end, powder, pose, tin and jump.
    expect(await bench.finding('take.still').count()).toBe(8);
    // Each fix makes its finding go, and brings no other.
    for (let left = texts.length - 1; left >= 0; left--) {
      await wrong.first().getByRole('button').first().click();
      await expect.poll(() => wrong.count()).toBe(left);
      await bench.settled();
      expect(await wrong.count()).toBe(left);
    }
    for (const code of ['take.steadied', 'take.matched'])
      expect(await bench.finding(code).count(), code).toBe(2);
  });

  test('keeps the performer that is tapped, drags the join by keys, and takes it back', async ({ open }) => {
    const bench = await open({ seed: demoFilm(), ...built });
    const { page } = bench;
    await bench.press('To the landing');
    await bench.press('Right');
    const picture = await page.getByTestId('tap').boundingBox();
    if (!picture) throw new Error('The stage shows no picture.');
    await page.mouse.click(picture.x + picture.width * 0.63, picture.y + picture.height * 0.62);
    await page.getByText('Right is tapped.').waitFor();
    await expectJoin(bench);
    await bench.press('Join');
    const point = page.locator('[data-seam-point]').first();
    const before = await point.getAttribute('cx');
    await point.focus();
    await page.keyboard.press('Shift+ArrowRight');
    await page.getByRole('button', { name: 'Solve the join again' }).waitFor();
    // A join that stands by hand cannot part two palms that push each other to and fro, and says so.
    await bench.found('clone.crossing');
    await bench.undo();
    expect(await point.getAttribute('cx')).toBe(before);
    await expectJoin(bench);
    expect(await bench.finding('clone.crossing').count()).toBe(0);
    await page.getByRole('button', { name: /^Redo/ }).click();
    await page.getByRole('button', { name: 'Solve the join again' }).waitFor();
  });

  test('survives a reload in the middle, steps frame by frame and shows the difference', async ({ open }) => {
    const bench = await open({ seed: demoFilm(), ...built });
    const { page } = bench;
    await page.reload();
    await page.getByTestId('sentence').waitFor();
    await bench.press('To the landing');
    const lands = Number(/frame (\d+)/.exec(await page.getByTestId('frame').innerText())?.[1]);
    const canvas = page.locator('canvas');
    await expect.poll(() => canvas.getAttribute('data-frame')).toBe(String(lands));
    await bench.press('+ 1 frame');
    await expect.poll(() => canvas.getAttribute('data-frame')).toBe(String(lands + 1));
    const joined = await canvas.getAttribute('data-drawn');
    await bench.press('Difference');
    await expect.poll(() => canvas.getAttribute('data-drawn')).not.toBe(joined);
    expect(await page.locator('main [role=alert]').count()).toBe(0);
  });

  test('takes keys that are pressed faster than a list opens and moves, every time', async ({ open }) => {
    const bench = await open({ seed: await seeded(ruled), at: 'station=deliver' });
    const { page } = bench;
    const kind = page.getByRole('combobox', { name: 'Kind of file' });
    for (let round = 0; round < 6; round++)
      for (const [name, key] of [
        ['WebM', 'End'],
        ['MOV', 'Home'],
      ] as const) {
        await kind.focus();
        await Promise.all(['Enter', key, 'Enter'].map((one) => page.keyboard.press(one)));
        await kind.filter({ hasText: name }).waitFor();
        await bench.settled();
      }
  });

  test('writes MOV and WebM, chosen with the keyboard alone', async ({ open, file }) => {
    const keep = ['originals', 'proxies', 'stills'] as const;
    const bench = await open({ seed: demoFilm(), keep, at: 'station=deliver' });
    const { page } = bench;
    const kind = page.getByRole('combobox', { name: 'Kind of file' });
    for (const [name, key] of [
      ['WebM', 'End'],
      ['MOV', 'ArrowUp'],
    ] as const) {
      // Pressed faster than the list opens: the keys wait for it.
      await kind.focus();
      await page.keyboard.press('Enter');
      await page.keyboard.press(key);
      await page.keyboard.press('Enter');
      await kind.filter({ hasText: name }).waitFor();
      await page.getByRole('button', { name: 'Render the shot' }).focus();
      await page.keyboard.press('Enter');
      const done = page.locator('[data-render=done]').filter({ hasText: `.${name.toLowerCase()}` });
      await done.waitFor({ timeout: 400_000 });
      const download = page.waitForEvent('download');
      await done.getByRole('button', { name: 'Save', exact: true }).press('Enter');
      await (await download).saveAs(file(name));
    }
    const shot = await storedShot(bench);
    const video = probe(file('WebM'), 'v:0');
    expect(video.codec_name).toBe('vp9');
    expect(Number(video.nb_read_frames)).toBe(shot.end - shot.start);
    expect([video.color_range, video.color_space]).toEqual(['tv', 'bt709']);
    expect(probe(file('WebM'), 'a:0').codec_name).toBe('opus');
    const [webm, mov] = ['WebM', 'MOV'].map((name) => decode(file(name), 1280, 720));
    for (const at of [0, shot.end - shot.start - 1])
      expect(psnr(yuvToRgba(webm[at]), yuvToRgba(mov[at]))).toBeGreaterThan(32);
  });
});
