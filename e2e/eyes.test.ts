import { describe, expect } from 'vitest';
import { addMark, addSetup, setPart } from '@/store/commands/plan';
import { readSnapshot } from '@/store/snapshot';
import { ffmpeg } from './support/ffmpeg';
import { filmStance } from './support/figure/film-stance';
import { standing, standingAt } from './support/figure/stance';
import type { Vector } from './support/figure/vector';
import { ruled } from './support/film-set';
import { seeded } from './support/seeds';
import { test } from './support/test';

const size = { width: 640, height: 360 };
/** From the lens to where both are to stand. */
const away = 4.6;
/** A metre at a metre's distance is 1.9 times as high as the picture: the focal length over the sensor's height. */
const camera = { at: [0, 1.1, away] as Vector, tall: 1.9 };
const coded = ['-c:v', 'libx264', '-crf', '18'];

/** One clone, and the setup that the figures are filmed in: a mark for each, of which only the left one is where they stand. */
const film = seeded(async (store, project) => {
  await ruled(store, project);
  const setup = await addSetup(store, project);
  const snapshot = await readSnapshot(store, project);
  for (const { id } of snapshot?.marks ?? []) await setPart(store, project, id, 'Nobody', { alive: false });
  const sensor = { width: 36, height: 20.25 };
  await setPart(store, project, setup, 'As filmed', {
    ...{ sensor, focal: camera.tall * sensor.height, height: camera.at[1], tilt: 0 },
  });
  for (const [name, x, tall] of [
    ['crate', -0.9, 1.78],
    ['wheel', 0.9, 1.5],
  ] as const)
    await addMark(store, project, { setup, name, x, y: away, stature: tall });
});

describe('eyes of a pair', () => {
  test('are held against each other and the marks once they count, and put the level pair first', async ({
    open,
    file,
  }) => {
    const plate = file('plate.mp4');
    const scaled = `scale=${size.width}:${size.height}`;
    ffmpeg('-i', 'public/demo/bench-plate-start.mp4', '-vf', scaled, ...coded, plate);
    const filmed = (name: string, at: Vector) => {
      filmStance(file(name), standingAt(standing, at), { plate, camera, size, seconds: 2 }, ...coded);
      return file(name);
    };
    const takes = [
      filmed('left-1.mp4', [-0.9, 0, 0]),
      // On a block of 12 cm, half a metre further back, and level.
      filmed('right-1.mp4', [0.9, 0.12, 0]),
      filmed('right-2.mp4', [1, 0, -0.5]),
      filmed('right-3.mp4', [0.9, 0, 0]),
    ];
    const bench = await open({ seed: await film, at: 'station=match' });
    const { page } = bench;
    await bench.bringIn(plate, ...takes);
    await bench.settled();
    const pair = (right: string) => page.locator(`[data-pair="Left 1 with ${right}"]`);
    const people = page.locator('[data-finding^="people."]');
    const said = async (right: string) => {
      await pair(right).click();
      return (await people.allTextContents()).join('\n');
    };
    expect(await said('Right 1')).toBe('');
    await bench.choose('How much it counts: eyes at one height and bodies of one size', 'more than all else');
    await people.first().waitFor({ state: 'attached' });
    await bench.settled();
    const higher = await said('Right 1');
    expect(Math.abs(Number(/eyes (\d+) cm lower than in Right 1/.exec(higher)?.[1]) - 12)).toBeLessThan(3);
    // Half a metre further back than 4.6 m is smaller by 1 - 4.6 / 5.1: of that, the other is larger by 11 %.
    const larger = await said('Right 2');
    expect(Math.abs(Number(/a body (\d+) % larger than in Right 2/.exec(larger)?.[1]) - 11)).toBeLessThan(4);
    const level = await said('Right 3');
    expect(level).toMatch(/Fine The eyes in Left 1 and Right 3 are at one height/);
    expect(level).toMatch(/Fine Whoever stands in Left 1 stands as the mark “crate” has it/);
    // The mark says 1.50 m where somebody of 1.78 m stands: eyes 26 cm higher.
    expect(level).toMatch(
      /Watch Whoever stands in Right 3 has eyes 2[3-9] cm higher .* than the mark “wheel”/,
    );
    const score = async (right: string) =>
      Number(/(\d+) of 100/.exec((await pair(right).getAttribute('title')) ?? '')?.[1]);
    const [onBlock, back, good] = await Promise.all(['Right 1', 'Right 2', 'Right 3'].map(score));
    expect(good).toBeGreaterThan(Math.max(onBlock, back) + 10);
    // What was found is there after a reload.
    await page.reload();
    await bench.arrived();
    await people.first().waitFor({ state: 'attached' });
    expect(await said('Right 3')).toBe(level);
    expect(await page.getByText('Looking for eyes').count()).toBe(0);
  });
});
