import { describe, expect } from 'vitest';
import { FreePathPass, smoothPath } from '@/core/footage/free-path';
import { unpackPlacements } from '@/core/geometry/placement';
import type { YuvImage } from '@/core/picture/planes';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import { filmed, perSecond } from './support/composite';
import { decode, ffmpeg } from './support/ffmpeg';
import { coffee } from './support/photographs';
import { seeded } from './support/seeds';
import { test } from './support/test';

/** Two panels side by side over seconds 1 to 5, both there at once. */
const film = seeded(async (store, project) => {
  await setProject(store, project, { ...filmed, rate: { num: perSecond, den: 1 }, megabits: 12 });
  await laySeconds(store, project);
  const id = await addMoment(store, project, 'split-screen', 1, 5);
  await setMoment(store, project, id, 'Place', { name: 'Side by side', lands: 1.5 });
  await setMoment(store, project, id, 'Cut', { 'settings.panels': 2 });
});

/** Films a table, along which a camera goes that is held in a hand; nothing in it is as dark as black. */
function filmFromHand(path: string, quality: number): void {
  const hand = (...waves: [number, number][]) =>
    waves.map(([size, pace]) => `${size}*sin(${pace}*t+${pace})`).join('+');
  const x = `100+12*t+2*(${hand([2.2, 37], [1.6, 23.3], [1.2, 61])})`;
  const y = `120+2*(${hand([1.8, 41], [1.5, 27.1], [1.1, 55])})`;
  ffmpeg(
    ...['-i', coffee()],
    ...[
      '-vf',
      // The photograph is read and enlarged once.
      `scale=1200:800,loop=loop=-1:size=1,setpts=N/${perSecond}/TB,fps=${perSecond},crop=960:540:x='${x}':y='${y}',scale=480:270,noise=alls=4:allf=t,format=yuv420p,lutyuv=y=70+val*0.7`,
    ],
    ...['-t', '6', '-c:v', 'libx264', '-crf', `${quality}`, path],
  );
}

/** How far corners jump from picture to picture in the columns of a panel, in 95 % of the pictures. */
function shakeIn(pictures: readonly YuvImage[], from: number, until: number): number {
  const pass = new FreePathPass();
  const size = { width: until - from, height: filmed.height };
  pictures.forEach(({ width, y }, index) => {
    const data = new Uint8Array(size.width * size.height);
    for (let row = 0; row < size.height; row++)
      data.set(y.subarray(row * width + from, row * width + until), row * size.width);
    pass.push({ luma: { ...size, data }, seconds: index / perSecond });
  });
  const { placements, times } = pass.finish();
  return smoothPath(unpackPlacements(placements), times, size, 0).shakes.before;
}

describe('a take that was filmed from the hand', () => {
  test('is smoothed on its way by one number, and shows no edge', async ({ open, file }) => {
    // Two files: the same one brought in twice is one take.
    filmFromHand(file('hand.mp4'), 16);
    filmFromHand(file('other.mp4'), 17);
    const bench = await open({ seed: await film, at: 'station=build' });
    await bench.bringIn(file('hand.mp4'), file('other.mp4'));
    await bench.settled();
    await bench.choose('Take for the first panel', 'Hand');
    await bench.choose('Take for the second panel', 'Other');
    await bench.settled();
    await bench.type('Smoothing of Hand', '40');
    await bench.settled();
    await bench.found('smooth.done');
    console.info(await bench.finding('smooth.done').textContent());
    await bench.go('Hand over');
    await bench.render(file('split.mov'));
    const shown = decode(file('split.mov'), filmed.width, filmed.height).slice(perSecond);
    const [left, right] = [shakeIn(shown, 4, 232), shakeIn(shown, 248, 476)];
    console.info(
      `Corners jump by ${left.toFixed(2)} px in the smoothed panel, by ${right.toFixed(2)} in the other.`,
    );
    expect(left).toBeLessThan(right / 3);
    // Nothing black comes in at the rim.
    const rim = shown.flatMap(({ y, width }) =>
      Array.from({ length: filmed.height }, (_, row) => y[row * width + 2]),
    );
    expect(Math.min(...rim)).toBeGreaterThan(50);

    await bench.go('Build');
    await bench.page.reload();
    await bench.settled();
    await bench.found('smooth.done');
    await bench.undo();
    await bench.settled();
    expect(await bench.finding('smooth.done').count()).toBe(0);
  });
});
