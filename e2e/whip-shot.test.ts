import { readFileSync } from 'node:fs';
import { describe, expect } from 'vitest';
import type { YuvImage } from '@/core/picture/planes';
import { yuvToRgba } from '@/core/picture/planes';
import { psnr } from '@/core/picture/psnr';
import { frameOfTime } from '@/core/time/rate';
import { decode, demo, probe } from './support/ffmpeg';
import { demoFilm } from './support/films';
import { referenceOf, storedShot } from './support/rebuild';
import { test } from './support/test';

const rate = { num: 24000, den: 1001 };
const filmed = { width: 1280, height: 720 };
const size = { width: 640, height: 360 };
const name = 'Out to the yard';

/** Mean luma of the whole picture. */
const light = ({ y }: YuvImage) => y.reduce((sum, code) => sum + code, 0) / y.length;

/** The darkest column and the darkest row, as the mean luma along each: an edge that shows would be black. */
function darkestLine({ y, width, height }: YuvImage): number {
  const [columns, rows] = [new Float64Array(width), new Float64Array(height)];
  y.forEach((code, at) => {
    columns[at % width] += code / height;
    rows[Math.floor(at / width)] += code / width;
  });
  return Math.min(...columns, ...rows);
}

describe('the demo’s whip', () => {
  test('is built from two takes, played, rendered and handed over, its cut on the beat’s frame and no edge showing', async ({
    open,
    file,
  }) => {
    const bench = await open({
      seed: demoFilm(),
      keep: ['proxies', 'stills', 'originals'],
      at: 'station=build',
    });
    const { page } = bench;
    await bench.choose('Moment', name);
    // The second take is darker than the first, and not matched: the cut shows in the light of the file.
    await bench.choose('Take for the first place', 'Bench left 1');
    await bench.choose('Take for the second place', 'Bench right 2');
    await bench.found('whip.cuts');
    await bench.settled();
    expect(await page.locator('[data-severity=stop]').count()).toBe(0);
    bench.landed();
    await bench.press('To the landing');
    const shown = page.locator('canvas');
    const cut = (await page.getByTestId('frame').innerText()).match(/frame (\d+)/)?.[1] ?? '';
    await expect.poll(() => shown.getAttribute('data-frame')).toBe(cut);
    await bench.press('Play');
    await expect.poll(async () => Number(await shown.getAttribute('data-drawn'))).toBeGreaterThan(5);
    await bench.press('Pause');

    await bench.go('Hand over');
    await bench.type('Width', '640');
    await bench.type('Height', '360');
    await bench.type('Bits a second', '20');
    await bench.render(file('whip.mov'));
    await (await bench.save('Timeline (OpenTimelineIO)')).saveAs(file('whip.otio'));
    await (await bench.save('Keyframes (CSV)')).saveAs(file('whip.csv'));

    const shot = await storedShot(bench, name);
    const lands = frameOfTime(rate, shot.beatTime);
    expect([shot.lands, Number(cut)]).toEqual([lands, lands]);
    const frames = shot.end - shot.start;
    expect(Number(probe(file('whip.mov'), 'v:0').nb_read_frames)).toBe(frames);
    const rendered = decode(file('whip.mov'), size.width, size.height);

    // What the file shows is what the reference painter paints, standing and in full flight.
    const reference = referenceOf(shot, filmed, size, demo);
    for (const frame of [shot.start + 2, lands - 4, lands, shot.end - 1])
      expect(
        psnr(yuvToRgba(rendered[frame - shot.start]), reference(frame)),
        `frame ${frame}`,
      ).toBeGreaterThan(34);

    // The light falls from one frame to the next exactly once: on the frame of the beat.
    const lights = rendered.map(light);
    const falls = lights.map((value, index) => (index > 0 ? lights[index - 1] - value : 0));
    expect(falls.indexOf(Math.max(...falls))).toBe(lands - shot.start);

    // No edge: no line of any frame is darker than the darkest line of the takes themselves.
    const takes = ['bench-left-1.mp4', 'bench-right-2.mp4'].map((one) =>
      decode(demo(one), filmed.width, filmed.height),
    );
    const darkest = Math.min(...takes.map((pictures) => darkestLine(pictures[10])));
    for (const [frame, picture] of rendered.entries())
      expect(darkestLine(picture), `frame ${frame} of the shot`).toBeGreaterThan(darkest - 3);

    const timeline = JSON.parse(readFileSync(file('whip.otio'), 'utf8'));
    expect(timeline.tracks.markers[0].marked_range.start_time.value).toBe(lands - shot.start);
    const [first, second] = timeline.tracks.children.map((track: { children: unknown[] }) => track.children);
    expect(first[0].source_range.duration.value).toBe(lands - shot.start);
    expect(second[1].source_range.duration.value).toBe(shot.end - lands);
    const csv = readFileSync(file('whip.csv'), 'utf8');
    expect(csv).toMatch(
      new RegExp(`move sideways,${lands},${lands - shot.start},.*640\\.000 px,100\\.0000 %`),
    );
  });

  test('is built of one take at two of its times, hides its edges by scaling, and says what it costs', async ({
    open,
  }) => {
    const bench = await open({ seed: demoFilm(), keep: ['proxies', 'stills'], at: 'station=build' });
    const { page } = bench;
    await page.getByRole('combobox', { name: 'Moment' }).click();
    await page.getByRole('option', { name }).click();
    for (const place of ['first place', 'second place']) {
      await page.getByRole('combobox', { name: `Take for the ${place}` }).click();
      await page.getByRole('option', { name: 'Bench left 1' }).click();
    }
    await bench.type('Start of the second place take', '3');
    await bench.found('whip.cuts');
    await page.getByRole('combobox', { name: 'What fills the edges' }).click();
    await page.getByRole('option', { name: 'hidden by scaling up' }).click();
    await bench.found('whip.soft');
    await page.reload();
    await page.getByTestId('sentence').waitFor();
    await bench.settled();
    await bench.press('To the landing');
    await expect
      .poll(async () => Number(await page.locator('canvas').getAttribute('data-drawn')))
      .toBeGreaterThan(0);
    await bench.go('Match');
    await page.getByText(/takes of a built whip are not laid over each other/).waitFor();
    expect(await bench.audit()).toEqual([]);
  });
});
