import { describe, expect } from 'vitest';
import type { YuvImage } from '@/core/picture/planes';
import { frameOfTime } from '@/core/time/rate';
import { palms } from '../demo/set/scenes';
import { decode, demo } from './support/ffmpeg';
import { demoFilm } from './support/films';
import { storedShot } from './support/rebuild';
import { test } from './support/test';

const pixels = (name: string) => decode(demo(`${name}.mp4`), 1280, 720);

/** codes of luma by which a performer differs from the empty set at least, and a picture from another that shows the same at most */
const [standsOut, agrees] = [30, 20];

/** How many pixels of a performer a take has, and how many of them a picture does not show. */
function lost(shown: YuvImage, take: YuvImage, plate: YuvImage): [number, number] {
  let [count, gone] = [0, 0];
  take.y.forEach((luma, pixel) => {
    if (Math.abs(luma - plate.y[pixel]) < standsOut) return;
    count++;
    if (Math.abs(luma - shown.y[pixel]) > agrees) gone++;
  });
  return [count, gone];
}

describe('the demo’s clone, whose two palms meet and push each other to and fro', () => {
  test('says on which frame they touch, moves the join for those frames alone, and cuts neither', async ({
    open,
    file,
  }) => {
    const bench = await open({
      seed: demoFilm(),
      keep: ['proxies', 'stills', 'originals'],
      at: 'station=build',
    });
    await bench.settled();
    const { start, end, rate, anchors } = await storedShot(bench, 'Meets a copy');
    const meets = start + frameOfTime(rate, palms.left);
    expect(anchors.lands + frameOfTime(rate, palms.right)).toBe(meets);

    // They touch when they touch: to the frame.
    await bench.found('clone.contact');
    const touch = Number(/frame (\d+)/.exec((await bench.finding('clone.contact').textContent()) ?? '')?.[1]);
    expect(Math.abs(touch - meets)).toBeLessThanOrEqual(1);

    // The join moves while a palm is where the other one is at another time, and is still before and after.
    await bench.found('clone.moves');
    const told = /from frame (\d+) to (\d+)/.exec((await bench.finding('clone.moves').textContent()) ?? '');
    const [first, last] = [Number(told?.[1]), Number(told?.[2])];
    const leaves = meets + frameOfTime(rate, palms.pushes + 0.5);
    expect(first).toBeGreaterThanOrEqual(meets - 10);
    expect(first).toBeLessThanOrEqual(meets + 4);
    expect(last).toBeGreaterThan(meets + frameOfTime(rate, palms.pushes / 2));
    expect(last).toBeLessThanOrEqual(leaves + 3);
    for (const wrong of ['clone.crossing', 'clone.cuts', 'clone.loses', 'clone.join-shows'])
      expect(await bench.finding(wrong).count(), wrong).toBe(0);

    // Rendered: every frame shows all of both.
    await bench.go('Hand over');
    await bench.type('Bits a second', '40');
    await bench.render(file('shot.mov'));
    const shown = decode(file('shot.mov'), 1280, 720);
    const [plate, left, right] = [
      pixels('bench-plate-start')[5],
      pixels('bench-left-1'),
      pixels('bench-right-1'),
    ];
    const shares: number[] = [];
    for (let frame = meets - 12; frame < Math.min(end, leaves + 3); frame++)
      for (const [take, from] of [
        [left, start],
        [right, anchors.lands],
      ] as const) {
        const [count, gone] = lost(shown[frame - start], take[frame - from], plate);
        shares.push(gone / count);
      }
    console.info(`Of a performer at most ${(100 * Math.max(...shares)).toFixed(2)} % are lost in a frame.`);
    expect(Math.max(...shares)).toBeLessThan(0.01);
  });
});
