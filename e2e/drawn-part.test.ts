import { describe, expect } from 'vitest';
import { phone, type BenchPage } from './support/bench-page';
import { ffmpeg } from './support/ffmpeg';
import { keysOf } from './support/hands';
import { coffee, houses } from './support/photographs';
import { seeded } from './support/seeds';
import { test } from './support/test';

/** Films houses along a way, to the left of something else that hardly moves, really encoded. */
function beside(path: string, x: string, other: number): void {
  const place = `scale=1600:-2,crop=768:432:x='${x}':y=100,scale=384:216[place]`;
  const rest = `scale=1600:-2,crop=500:432:x='${other}+20*sin(3*t)':y=200,scale=250:216[rest]`;
  ffmpeg(
    ...['-loop', '1', '-framerate', '25', '-t', '2.4', '-i', houses()],
    ...['-loop', '1', '-framerate', '25', '-t', '2.4', '-i', houses(), '-filter_complex'],
    `[0]${place};[1]${rest};[place][rest]overlay=x=134:y=0,noise=alls=4:allf=t,format=yuv420p`,
    ...['-c:v', 'libx264', '-crf', '16', path],
  );
}

/** Films a place that stands with two patches that move between some seconds, one at the left and one at the right. */
function twoMovers(path: string, left: [number, number], right: [number, number]): void {
  const gone = ([from, until]: [number, number]) => `30*sin(6*clip(t-${from},0,${until - from}))`;
  ffmpeg(
    ...['-loop', '1', '-framerate', '25', '-t', '5', '-i', coffee()],
    ...['-f', 'lavfi', '-t', '5', '-i', 'color=c=0x332211:s=60x90:r=25'],
    ...['-f', 'lavfi', '-t', '5', '-i', 'color=c=0xddccbb:s=60x90:r=25', '-filter_complex'],
    `[0]scale=480:320,crop=480:270[place];[place][1]overlay=x='60+${gone(left)}':y=90[one];[one][2]overlay=x='350+${gone(right)}':y=90,noise=alls=3:allf=t,format=yuv420p`,
    ...['-c:v', 'libx264', '-crf', '18', path],
  );
}

/** Draws a part of the picture, in shares of it. */
async function draw(bench: BenchPage, [x0, y0]: number[], [x1, y1]: number[]): Promise<void> {
  const pad = bench.page.getByTestId('region');
  await pad.scrollIntoViewIfNeeded();
  const box = await pad.boundingBox();
  if (!box) throw new Error('There is nothing to draw on.');
  const { mouse } = bench.page;
  await mouse.move(box.x + x0 * box.width, box.y + y0 * box.height);
  await mouse.down();
  await mouse.move(box.x + 0.5 * (x0 + x1) * box.width, box.y + 0.5 * (y0 + y1) * box.height);
  await mouse.move(box.x + x1 * box.width, box.y + y1 * box.height);
  await mouse.up();
  const drawn = await bench.page.getByTestId('region drawn').boundingBox();
  expect((drawn?.x ?? 0) - box.x).toBeCloseTo(x0 * box.width, -1);
  expect(drawn?.height).toBeCloseTo((y1 - y0) * box.height, -1);
}

const edge = (bench: BenchPage, name: string) => bench.number(`${name} edge of the part`).innerText();

describe('a part of the picture that is drawn', () => {
  test('is where two takes have to match, whatever happens beside it', async ({ open, file }) => {
    // At 1 s of the first and 1.4 s of the second the houses stand alike.
    beside(file('one.mp4'), '20+300*t', 100);
    beside(file('two.mp4'), '320+300*(t-1.4)', 900);
    const bench = await open({ seed: await seeded(), at: 'station=match' });
    const { page } = bench;
    await bench.bringIn(file('one.mp4'), file('two.mp4'));
    await page.locator('[data-take] img').nth(1).waitFor();
    await bench.settled();
    await page.getByRole('tab', { name: 'Cuts' }).click();
    await bench.choose('First take', 'One');
    await bench.choose('Second take', 'Two');
    await bench.press('Find the frames');
    await page.locator('[data-join]').first().waitFor();
    expect(await page.getByText(/It is not seen/).count()).toBe(0);
    await bench.choose('What has to match', 'a part that I draw');
    await draw(bench, [0.02, 0.05], [0.33, 0.95]);
    await expect.poll(() => edge(bench, 'Right')).toMatch(/^3[234] %$/);
    await bench.press('Find the frames');
    await page.getByText(/It is not seen/).waitFor();
    const [a, b] = ((await page.locator('[data-join]').first().getAttribute('data-join')) ?? '')
      .split(' ')
      .map(Number);
    expect(b - a).toBe(10);
    // It outlives a reload, and is said in numbers by keys alone on a phone.
    await page.setViewportSize(phone);
    await page.reload();
    await bench.arrived();
    await expect.poll(() => edge(bench, 'Right')).toMatch(/^3[234] %$/);
    await bench.type('Lower edge of the part', '60');
    expect(await edge(bench, 'Lower')).toBe('60 %');
    await page.getByRole('button', { name: 'Find the frames' }).waitFor();
    expect(await bench.overflow()).toBe(0);
    expect(await bench.audit()).toEqual([]);
  });

  test('is where it is told when somebody stands still', async ({ open, file }) => {
    twoMovers(file('left.mp4'), [1, 2], [3, 4]);
    twoMovers(file('right.mp4'), [0.5, 1.5], [2.5, 4]);
    ffmpeg(
      ...['-loop', '1', '-framerate', '25', '-t', '1', '-i', coffee(), '-vf'],
      ...['scale=480:320,crop=480:270,noise=alls=3:allf=t,format=yuv420p', '-c:v', 'libx264', '-crf', '18'],
      file('plate.mp4'),
    );
    const bench = await open({ seed: await seeded(), at: 'station=match' });
    const { page } = bench;
    await bench.bringIn(...['plate', 'left', 'right'].map((name) => file(`${name}.mp4`)));
    await page.locator('[data-take="Right"] img').waitFor();
    await bench.settled();
    await page.locator('[data-pair="Left with Right"]').click();
    const said = (name: string) => page.locator(`[data-still="${name}"]`).textContent();
    /** The seconds at which something is said of a take. */
    const instants = async (name: string, what: string) => {
      const part = ((await said(name)) ?? '').split(' It ').find((one) => one.startsWith(what)) ?? '';
      return [...part.matchAll(/at ([\d.]+) s/g)].map(([, seconds]) => Number(seconds));
    };
    await expect.poll(() => instants('Left', 'starts to move')).toHaveLength(2);
    await bench.choose('In which part of the picture', 'a part that I draw');
    await draw(bench, [0.05, 0.1], [0.45, 0.9]);
    for (const [name, starts, stops] of [
      ['Left', 1, 2],
      ['Right', 0.5, 1.5],
    ] as const) {
      await expect.poll(() => instants(name, 'starts to move')).toEqual([expect.closeTo(starts, 0)]);
      expect(Math.abs((await instants(name, 'starts to move'))[0] - starts)).toBeLessThan(0.15);
      expect(Math.abs((await instants(name, 'comes to rest'))[0] - stops)).toBeLessThan(0.2);
    }
    // By keys alone to the other side.
    const keys = keysOf(bench);
    await keys.write(bench.number('Right edge of the part'), '95');
    await keys.write(bench.number('Left edge of the part'), '55');
    await expect.poll(async () => (await instants('Left', 'starts to move'))[0]).toBeGreaterThan(2.8);
    expect((await instants('Right', 'starts to move'))[0]).toBeGreaterThan(2.3);
  });
});
