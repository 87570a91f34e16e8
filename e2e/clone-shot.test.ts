import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { describeFrame, type Layer } from '@/core/picture/layers';
import { paintFrame, psnr } from '@/core/picture/paint';
import { yuvToRgba } from '@/core/picture/planes';
import { frameOfTime } from '@/core/time/rate';
import { pictureAt } from '@/core/footage/steady';
import { songBeats } from '../demo/song/score';
import { BenchPage } from './support/bench-page';
import { openBrowser } from './support/browser';
import { decode, demo, probe } from './support/ffmpeg';
import { rebuild } from './support/rebuild';
import { startServer } from './support/server';

const rate = { num: 24000, den: 1001 };
const size = { width: 1280, height: 720 };

describe('the whole job, on the encoded files of the demo', () => {
  let browser: Browser;
  let server: Awaited<ReturnType<typeof startServer>>;
  let bench: BenchPage;
  const folder = mkdtempSync(join(tmpdir(), 'ribbon-'));
  const file = (name: string) => join(folder, name);

  beforeAll(async () => {
    server = await startServer(4391);
    browser = await openBrowser();
    bench = await BenchPage.open(browser, server.url);
    await bench.ownProject();
  });
  afterAll(async () => {
    await bench?.close();
    await browser?.close();
    await server?.stop();
  });

  it('finds the beats of the song', async () => {
    await bench.bringIn(demo('left-hand-thread.opus'));
    await bench.page.getByText(/beats, sure/).waitFor({ timeout: 180_000 });
    const grid = await bench.grid();
    const truth = songBeats();
    const near = truth.filter((time) => grid.beats.some((beat) => Math.abs(beat - time) < 0.07)).length;
    expect(near / truth.length).toBeGreaterThan(0.97);
    expect(Math.abs(grid.beats[grid.firstDownbeat] - truth[0])).toBeLessThan(0.07);
    expect(grid.beatsPerBar).toBe(4);
  });

  it('finds the bumped take and the light change, and nothing in the good takes', async () => {
    const takes = ['bench-plate-start', 'bench-left-1', 'bench-left-2', 'bench-right-1', 'bench-right-2'];
    await bench.bringIn(...takes.map((name) => demo(`${name}.mp4`)));
    await bench.go('Match');
    await bench.finding('take.light').waitFor({ timeout: 400_000 });
    await bench.settled();
    const open = bench.page.locator('[data-severity=stop], [data-severity=fix]');
    const texts = await open.allInnerTexts();
    expect(texts).toHaveLength(2);
    expect(texts.join()).toMatch(/Bench left 2 moved \d\.\d px to the right at 0:05\.2/);
    expect(texts.join()).toMatch(/Bench right 2 is 0\.3\d stop .* darker/);
    expect(await bench.finding('take.still').count()).toBe(3);
  });

  it('builds the clone from the bumped and the dark take, steadied and matched', async () => {
    const { page } = bench;
    await page.locator('[data-pair="Bench left 2 with Bench right 2"]').click();
    await page.getByRole('button', { name: 'Steady it' }).click();
    await page.getByRole('button', { name: 'Match it to the plate' }).click();
    await bench.finding('take.steadied').waitFor();
    await bench.finding('take.matched').waitFor();
    await page.getByRole('button', { name: 'Use this pair' }).click();
    await page.getByTestId('sentence').waitFor();
    await bench.settled();
    await expectJoin();
    await expectFinding('clone.lands');
  });

  it('keeps the performer that is tapped, drags the join, and takes it back', async () => {
    const { page } = bench;
    await page.getByRole('button', { name: 'Right', exact: true }).click();
    const picture = await page.getByTestId('tap').boundingBox();
    if (!picture) throw new Error('The stage shows no picture.');
    await page.mouse.click(picture.x + picture.width * 0.63, picture.y + picture.height * 0.62);
    await page.getByText('Right is tapped.').waitFor();
    await bench.settled();
    await expectJoin();
    await page.getByRole('button', { name: 'Join', exact: true }).click();
    const point = page.locator('[data-seam-point]').first();
    const before = await point.getAttribute('cx');
    await point.focus();
    await page.keyboard.press('Shift+ArrowRight');
    await page.getByRole('button', { name: 'Solve the join again' }).waitFor();
    await expectJoin();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect.poll(() => point.getAttribute('cx'), { timeout: 60_000 }).toBe(before);
    await page.getByRole('button', { name: /^Redo/ }).click();
    await page.getByRole('button', { name: 'Solve the join again' }).waitFor();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await bench.settled();
  });

  it('survives a reload in the middle, steps frame by frame and shows the difference', async () => {
    const { page } = bench;
    await page.reload();
    await page.getByTestId('sentence').waitFor();
    await page.getByRole('button', { name: 'To the landing' }).click();
    const lands = Number(/frame (\d+)/.exec(await page.getByTestId('frame').innerText())?.[1]);
    await expect
      .poll(() => page.locator('canvas').getAttribute('data-frame'), { timeout: 60_000 })
      .toBe(String(lands));
    await page.getByRole('button', { name: 'One frame on' }).click();
    await expect
      .poll(() => page.locator('canvas').getAttribute('data-frame'), { timeout: 60_000 })
      .toBe(String(lands + 1));
    await page.getByRole('button', { name: 'Difference' }).click();
    await page.waitForTimeout(500);
    expect(await page.locator('main [role=alert]').count()).toBe(0);
  });

  it('renders at a fixed high rate of bits, goes on after a reload, and saves every file', async () => {
    const { page } = bench;
    await bench.go('Deliver');
    await page.getByRole('spinbutton', { name: 'Bits a second' }).click();
    await page.getByRole('textbox', { name: 'Bits a second' }).fill('40');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Render the shot' }).click();
    await page.getByRole('progressbar').waitFor();
    await page.reload();
    await page.locator('[data-render=done]').waitFor({ timeout: 400_000 });
    await (await bench.save('Save')).saveAs(file('shot.mov'));
    await (await bench.save('Timeline (OpenTimelineIO)')).saveAs(file('shot.otio'));
    await (await bench.save('Keyframes (CSV)')).saveAs(file('keyframes.csv'));
    await page.getByRole('button', { name: 'Keyframes to print' }).click();
    await page.getByRole('columnheader', { name: 'Timecode in the film' }).first().waitFor();
    await page.getByRole('button', { name: 'Back' }).click();
  });

  it('has the frames, size, rate, length and tags that were asked for', async () => {
    const shot = await storedShot();
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
  });

  it('shows what the reference painter paints from the same planes, and the copy on its frame', async () => {
    const shot = await storedShot();
    const sources = new Map(
      shot.media.map(({ id, name, times }) => [
        id,
        { pictures: decode(demo(name), 1280, 720), times: Float64Array.from(times) },
      ]),
    );
    const rendered = decode(file('shot.mov'), 1280, 720);
    const painted = (layers: Layer[], frame: number) => {
      const items = describeFrame(layers, frame);
      const pictures = items.map((item) => {
        const source = sources.get(item.media);
        if (!source) throw new Error('A source is missing.');
        return yuvToRgba(source.pictures[pictureAt(source.times, item.time)]);
      });
      return paintFrame(items, pictures, size);
    };
    for (const frame of [shot.start + 3, shot.lands, shot.lands + 40, shot.end - 1]) {
      const given = yuvToRgba(rendered[frame - shot.start]);
      expect(psnr(given, painted(shot.layers, frame)), `frame ${frame}`).toBeGreaterThan(35);
    }
    // The beat rounds to one frame: before it the copy is away, on it the copy is there.
    const beat = songBeats()[36];
    expect(Math.abs(shot.lands - frameOfTime(rate, beat))).toBeLessThanOrEqual(1);
    expect(shot.lands).toBe(frameOfTime(rate, shot.beatTime));
    const suit = (frame: number) => {
      const { data } = yuvToRgba(rendered[frame - shot.start]);
      const at = (440 * 1280 + 812) * 4;
      return data[at + 2] - data[at];
    };
    expect(suit(shot.lands - 1)).toBeLessThan(20);
    expect(suit(shot.lands)).toBeGreaterThan(40);
  });

  it('keeps the colour of a flat patch within 3 codes a channel', () => {
    const mean = (image: ReturnType<typeof yuvToRgba>) => {
      const sums = [0, 0, 0];
      for (let y = 20; y < 80; y++) {
        for (let x = 700; x < 760; x++)
          for (let c = 0; c < 3; c++) sums[c] += image.data[(y * 1280 + x) * 4 + c] / 3600;
      }
      return sums;
    };
    const plate = mean(yuvToRgba(decode(demo('bench-plate-start.mp4'), 1280, 720)[5]));
    const given = mean(yuvToRgba(decode(file('shot.mov'), 1280, 720)[80]));
    plate.forEach((value, channel) => expect(Math.abs(value - given[channel])).toBeLessThanOrEqual(3));
  });

  it('hands over a timeline and numbers that say the same', async () => {
    const shot = await storedShot();
    const timeline = JSON.parse(readFileSync(file('shot.otio'), 'utf8'));
    expect(timeline.OTIO_SCHEMA).toBe('Timeline.1');
    expect(timeline.tracks.markers[0].marked_range.start_time.value).toBe(shot.lands - shot.start);
    const csv = readFileSync(file('keyframes.csv'), 'utf8');
    expect(csv).toContain(`${shot.lands},${shot.lands - shot.start},`);
    expect(csv).toMatch(/mask point 1, across/);
    expect(csv).toMatch(/move sideways/);
  });

  it('writes WebM as well, chosen with the keyboard alone', async () => {
    const { page } = bench;
    await page.getByRole('combobox', { name: 'Kind of file' }).focus();
    await page.keyboard.press('Enter');
    await page.getByRole('option', { name: /WebM/ }).waitFor();
    // The list takes keys once it has settled; a key too early would choose another kind.
    const webmOption = page.locator('[role=option][data-highlighted]', { hasText: 'WebM' });
    for (let tries = 0; tries < 20 && (await webmOption.count()) === 0; tries++) {
      await page.keyboard.press('End');
      await page.waitForTimeout(100);
    }
    await page.keyboard.press('Enter');
    await page.getByRole('combobox', { name: 'Kind of file' }).filter({ hasText: 'WebM' }).waitFor();
    await page.getByRole('button', { name: 'Render the shot' }).focus();
    await page.keyboard.press('Enter');
    const done = page.locator('[data-render=done]').filter({ hasText: '.webm' });
    await done.waitFor({ timeout: 400_000 });
    const download = page.waitForEvent('download');
    await done.getByRole('button', { name: 'Save', exact: true }).press('Enter');
    await (await download).saveAs(file('shot.webm'));
    const shot = await storedShot();
    const video = probe(file('shot.webm'), 'v:0');
    expect(video.codec_name).toBe('vp9');
    expect(Number(video.nb_read_frames)).toBe(shot.end - shot.start);
    expect([video.color_range, video.color_space]).toEqual(['tv', 'bt709']);
    expect(probe(file('shot.webm'), 'a:0').codec_name).toBe('opus');
    const [first, last] = [0, shot.end - shot.start - 1].map((at) => [
      yuvToRgba(decode(file('shot.webm'), 1280, 720)[at]),
      yuvToRgba(decode(file('shot.mov'), 1280, 720)[at]),
    ]);
    for (const [webm, mov] of [first, last]) expect(psnr(webm, mov)).toBeGreaterThan(32);
  });

  async function expectFinding(code: string) {
    await bench.finding(code).waitFor({ timeout: 120_000 });
  }

  /** The join is judged, and hardly visible: a just noticeable difference is 2.3 (Mahy 1994), of still pictures. */
  async function expectJoin() {
    const judged = bench.page.locator(
      '[data-finding="clone.join-hidden"], [data-finding="clone.join-shows"]',
    );
    await judged.waitFor({ timeout: 120_000 });
    expect(Number(/ΔE (\d+\.\d)/.exec(await judged.innerText())?.[1])).toBeLessThan(3);
  }

  type Shot = {
    start: number;
    lands: number;
    end: number;
    beatTime: number;
    layers: Layer[];
    media: { id: string; name: string; times: number[] }[];
  };

  /** What the page would render, built from its store by the same functions outside the browser. */
  async function storedShot(): Promise<Shot> {
    const raw = (await bench.page.evaluate(`(async () => {
      const open = indexedDB.open('fickle-ribbon');
      await new Promise((done) => (open.onsuccess = done));
      const all = async (name) => {
        const get = open.result.transaction(name).objectStore(name).getAll();
        await new Promise((done) => (get.onsuccess = done));
        return get.result.filter((one) => location.search.includes(one.project));
      };
      const plain = (value) => JSON.parse(JSON.stringify(value, (_, one) => (ArrayBuffer.isView(one) ? [...one] : one)));
      return plain({ records: await all('records'), measures: await all('measures'), media: await all('media') });
    })()`)) as { records: never[]; measures: never[]; media: { id: string; name: string }[] };
    return rebuild(raw);
  }
});
