import { readFile } from 'node:fs/promises';
import { describe, expect } from 'vitest';
import { mapPoint } from '@/core/geometry/affine';
import type { Size } from '@/core/geometry/size';
import { matrixAt, mediaIn, secondsAt } from '@/core/picture/node';
import type { YuvImage } from '@/core/picture/planes';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import { phone, type BenchPage, type Opening } from './support/bench-page';
import { filmed, filmPerson, perSecond, personIn } from './support/composite';
import { decode, ffmpeg } from './support/ffmpeg';
import { Fingers } from './support/fingers';
import { fingerOf, keysOf } from './support/hands';
import { storedShot } from './support/rebuild';
import { seeded } from './support/seeds';
import { test } from './support/test';

/**
 * Two halves beside each other, a person in each: the second is the first one's film in a mirror, some pictures later.
 * So low that the parts in which heads are looked for are no multiple of four wide.
 */
const both = { width: 2 * filmed.width, height: filmed.height - 8 };
const later = 30;

/** Two moments of one take. */
const film = seeded(async (store, project) => {
  await setProject(store, project, { ...both, rate: { num: perSecond, den: 1 }, megabits: 12 });
  await laySeconds(store, project);
  const ramp = await addMoment(store, project, 'speed-ramp', 1, 4);
  await setMoment(store, project, ramp, 'Place', { name: 'The ramp', lands: 2 });
  const whip = await addMoment(store, project, 'split-screen', 5, 8);
  await setMoment(store, project, whip, 'Place', { name: 'The split', lands: 6 });
});

function filmBoth(path: string, alone: string): void {
  filmPerson(alone, 9);
  const pair = `[0]split[one][two];[two]hflip,trim=start_frame=${later},setpts=PTS-STARTPTS[other];[one][other]hstack,crop=${both.width}:${both.height}:0:0,format=yuv420p`;
  ffmpeg('-i', alone, '-filter_complex', pair, '-t', '7', '-c:v', 'libx264', '-crf', '16', path);
}

/** The middle of each person's face in a picture, in pixels: as the outline's first points, which lie round the head, say. */
function facesIn(picture: number): { hidden: [number, number]; shown: [number, number] } {
  const middle = (at: number): [number, number] => {
    const head = personIn(at).slice(0, 20);
    const mean = (axis: 0 | 1) => head.reduce((sum, point) => sum + point[axis], 0) / head.length;
    return [mean(0) * filmed.width, mean(1) * filmed.height + 8];
  };
  const [x, y] = middle(picture + later);
  return { hidden: middle(picture), shown: [2 * filmed.width - x, y] };
}

/** How much detail there is round a point: how far pixels lie from the mean of their neighbours, in codes. */
function detailAt({ width, y }: YuvImage, [cx, cy]: [number, number], reach = 14): number {
  let [sum, count] = [0, 0];
  for (let row = Math.round(cy) - reach; row <= cy + reach; row++)
    for (let column = Math.round(cx) - reach; column <= cx + reach; column++) {
      const at = row * width + column;
      sum += Math.abs(4 * y[at] - y[at - 2] - y[at + 2] - y[at - 2 * width] - y[at + 2 * width]) / 4;
      count++;
    }
  return sum / count;
}

/** A phone on which somebody alone passes in the first moment. */
async function openPass(open: (how: Opening) => Promise<BenchPage>, path: string): Promise<BenchPage> {
  filmPerson(path, 6);
  const bench = await open({ seed: await film, at: 'station=build', size: phone });
  await bench.bringIn(path);
  await bench.settled();
  await bench.choose('Take for the pass', 'Run');
  await bench.settled();
  return bench;
}

describe('somebody who did not agree to be shown', () => {
  test('is hidden by two actions in every moment that shows them, and nobody else is', async ({
    open,
    file,
  }) => {
    filmBoth(file('street.mp4'), file('alone.mp4'));
    const bench = await open({ seed: await film, at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('street.mp4'));
    await bench.settled();
    await bench.choose('Take for the pass', 'Street');
    await bench.settled();
    await bench.press('Hide somebody');
    const pad = await page.getByTestId('tap').boundingBox();
    if (!pad) throw new Error('The picture cannot be tapped.');
    const shot = await storedShot(bench, 'The ramp');
    const [layer] = mediaIn(shot.tree);
    const [x, y] = facesIn(Math.round(secondsAt(layer, shot.start) * perSecond)).hidden;
    await page.mouse.click(pad.x + (x / both.width) * pad.width, pad.y + (y / both.height) * pad.height);
    await page.getByRole('status').filter({ hasText: 'The face under the tap was found' }).waitFor();
    await bench.found('veil.hidden');
    await bench.settled();
    await bench.go('Hand over');
    await bench.render(file('ramp.mov'));
    const after = await storedShot(bench, 'The ramp');
    const [veiled] = mediaIn(after.tree);
    const [ramp, street] = ['ramp.mov', 'street.mp4'].map((name) =>
      decode(file(name), both.width, both.height),
    );
    const kept = ramp.map((picture, index) => {
      const seconds = secondsAt(veiled, after.start + index);
      const at = Math.round(seconds * perSecond);
      const { hidden, shown } = facesIn(at);
      const source = street[Math.min(street.length - 1, at)];
      return {
        hidden: detailAt(picture, hidden) / detailAt(source, hidden),
        shown: detailAt(picture, shown) / detailAt(source, shown),
      };
    });
    const most = (of: (one: (typeof kept)[number]) => number) => Math.max(...kept.map(of));
    console.info(
      `Detail of the hidden face: ${most((one) => one.hidden).toFixed(2)} of the take's at the most; of the other one's ${Math.min(...kept.map((one) => one.shown)).toFixed(2)} at the least.`,
    );
    expect(most((one) => one.hidden)).toBeLessThan(0.15);
    expect(Math.min(...kept.map((one) => one.shown))).toBeGreaterThan(0.85);
    const sheet = await readFile((await (await bench.save('Keyframes (CSV)')).path()) ?? '', 'utf8');
    expect(sheet).toContain('veil 1 over a face');

    // The other moment shows the take too.
    await bench.go('Build');
    await bench.choose('Moment', 'The split');
    await bench.choose('Take for the first panel', 'Street');
    await bench.settled();
    await bench.found('veil.hidden');
    await page.reload();
    await bench.settled();
    await bench.found('veil.hidden');
    await bench.press('Show them again: Street');
    await bench.settled();
    expect(await bench.finding('veil.hidden').count()).toBe(0);
    await bench.undo();
    await bench.found('veil.hidden');
  });

  test('is hidden by a finger on a phone, and shows again by one', async ({ open, file }) => {
    const bench = await openPass(open, file('run.mp4'));
    const { page } = bench;
    const finger = fingerOf(bench);
    await finger.press(page.getByRole('button', { name: 'Hide somebody' }));
    const pad = page.getByTestId('tap');
    const shot = await storedShot(bench, 'The ramp');
    const [layer] = mediaIn(shot.tree);
    const frame = Number(await page.locator('canvas[data-frame]').getAttribute('data-frame'));
    const head = personIn(Math.round(secondsAt(layer, frame) * perSecond)).slice(0, 20);
    const middle = (axis: 0 | 1) => head.reduce((sum, point) => sum + point[axis], 0) / head.length;
    const inFile: [number, number] = [middle(0) * filmed.width, middle(1) * filmed.height];
    const [x, y] = mapPoint(matrixAt(layer, frame), inFile);
    const box = await pad.boundingBox();
    if (!box) throw new Error('The picture cannot be tapped.');
    const fingers = await Fingers.on(page);
    const { size } = shot.tree.content as { size: Size };
    await fingers.tap([box.x + (x / size.width) * box.width, box.y + (y / size.height) * box.height]);
    await page.getByRole('status').filter({ hasText: 'The face under the tap was found' }).waitFor();
    await bench.settled();
    await bench.found('veil.hidden');
    await finger.press(page.getByRole('button', { name: 'Show them again: Run' }));
    await bench.settled();
    expect(await bench.finding('veil.hidden').count()).toBe(0);
    expect(await bench.overflow()).toBe(0);
  });

  test('is hidden by keys alone where no face is found, and that is said', async ({ open, file }) => {
    const bench = await openPass(open, file('run.mp4'));
    const { page } = bench;
    const keys = keysOf(bench);
    await keys.press(page.getByRole('button', { name: 'Hide somebody' }));
    // Above whoever passes.
    await page.getByTestId('tap').focus();
    for (let step = 0; step < 6; step++) await page.keyboard.press('Shift+ArrowUp');
    await page.keyboard.press('Enter');
    await page.getByRole('status').filter({ hasText: 'No face was found under the tap' }).waitFor();
    await bench.settled();
    await bench.found('veil.unchecked');
    expect(await bench.overflow()).toBe(0);
    expect(await bench.audit()).toEqual([]);
  });
});
