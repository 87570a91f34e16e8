import { describe, expect } from 'vitest';
import type { YuvImage } from '@/core/picture/planes';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import { filmed, filmPerson, perSecond, personIn } from './support/composite';
import { decode } from './support/ffmpeg';
import { storedShot } from './support/rebuild';
import { seeded } from './support/seeds';
import { test } from './support/test';

/** Two panels side by side over seconds 1 to 5; the second comes on second 2. */
const film = seeded(async (store, project) => {
  await setProject(store, project, { ...filmed, rate: { num: perSecond, den: 1 }, megabits: 8 });
  await laySeconds(store, project);
  const id = await addMoment(store, project, 'split-screen', 1, 5);
  await setMoment(store, project, id, 'Place', { name: 'Side by side', lands: 2 });
  await setMoment(store, project, id, 'Cut', { 'settings.panels': 2 });
});

/** The second panel, in columns of the frame. */
const panel = { from: 244, until: 480 };
const middle = (panel.from + panel.until) / 2;

/** How many columns the picture in the panel lies to the right of where it lies in its file, by what agrees best. */
function pushIn(shown: YuvImage, file: YuvImage): number {
  let [best, least] = [0, Infinity];
  for (let by = panel.until - filmed.width; by <= panel.from; by++) {
    let sum = 0;
    for (let y = 20; y < filmed.height; y += 10)
      for (let x = panel.from + 4; x < panel.until - 4; x += 3)
        sum += Math.abs(shown.y[y * filmed.width + x] - file.y[y * filmed.width + x - by]);
    if (sum < least) [best, least] = [by, sum];
  }
  return best;
}

describe('a panel of a split screen', () => {
  test('keeps somebody who is tapped in its middle, until that is taken back', async ({ open, file }) => {
    filmPerson(file('run.mp4'), 6);
    const bench = await open({ seed: await film, at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('run.mp4'));
    await bench.settled();
    for (const which of ['first', 'second']) await bench.choose(`Take for the ${which} panel`, 'Run');
    await bench.type('Start of the second panel take', '1');
    await bench.settled();
    await bench.press('To the landing');
    const pad = await page.getByTestId('tap').boundingBox();
    if (!pad) throw new Error('The picture cannot be tapped.');
    // Between the panels nothing is followed.
    const tap = (x: number, y: number) =>
      page.mouse.click(pad.x + (x / filmed.width) * pad.width, pad.y + (y / filmed.height) * pad.height);
    await tap((filmed.width - 1) / 2, 110);
    await bench.settled();
    expect(await bench.finding('split.follows').count()).toBe(0);
    // The head of the person, who is where their outline says, half of the frame's own width further left than it shows.
    const [head] = personIn(perSecond);
    const shown = head[0] * filmed.width + 30 + middle - filmed.width / 2;
    await tap(shown, head[1] * filmed.height + 4);
    await bench.found('split.follows');
    await bench.settled();
    expect(await page.locator('[data-severity=stop], [data-severity=fix]').allInnerTexts()).toEqual([]);
    expect(await page.getByTestId('tapped here').count()).toBe(1);
    const { start } = await storedShot(bench);

    await bench.go('Hand over');
    await bench.render(file('split.mov'));
    const [split, run] = ['split.mov', 'run.mp4'].map((name) =>
      decode(file(name), filmed.width, filmed.height),
    );
    const lands = 2 * perSecond - start;
    const off = Array.from({ length: 3 * perSecond }, (_, index) => {
      const picture = perSecond + index;
      const point = personIn(picture)[0][0] * filmed.width + 30;
      return point + pushIn(split[lands + index], run[picture]) - middle;
    });
    const sizes = off.map(Math.abs).sort((one, other) => one - other);
    console.info(
      `Off the middle of the panel: ${sizes[Math.floor(sizes.length / 2)].toFixed(1)} px in half of the frames, ${sizes[sizes.length - 1].toFixed(1)} at the most.`,
    );
    expect(sizes[Math.floor(sizes.length / 2)]).toBeLessThan(4);
    // Where they turn on the spot, the picture is pushed as a hand would.
    expect(sizes[sizes.length - 1]).toBeLessThan(30);

    await bench.go('Build');
    await bench.press('Second panel: follow nothing');
    await bench.settled();
    expect(await bench.finding('split.follows').count()).toBe(0);
    await bench.undo();
    await bench.found('split.follows');
  });
});
