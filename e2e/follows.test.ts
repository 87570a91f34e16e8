import { describe, expect } from 'vitest';
import type { YuvImage } from '@/core/picture/planes';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import { filmed, filmPerson, perSecond, personIn } from './support/composite';
import { decode, ffmpeg } from './support/ffmpeg';
import { coffee, portrait } from './support/photographs';
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

/** A tin that is pushed over a photographed table, in pixels of the frame; it lies so far to the right with each picture. */
const tin = { left: 100, top: 120, side: 56, step: 2 };

/** Films the tin, or the table without it. */
function filmTable(path: string, seconds: number, isThere: boolean): void {
  const loop = (still: string) => ['-loop', '1', '-framerate', `${perSecond}`, '-i', still];
  const pushed = `[ground];[1]scale=${tin.side}:${tin.side}[tin];[ground][tin]overlay=x='${tin.left}+${tin.step}*n':y=${tin.top}`;
  ffmpeg(
    ...loop(coffee()),
    ...(isThere ? loop(portrait()) : []),
    '-filter_complex',
    `[0]crop=480:270:60:60${isThere ? pushed : ''},noise=alls=4:allf=t,format=yuv420p`,
    ...['-t', `${seconds}`, '-c:v', 'libx264', '-crf', '16', path],
  );
}

/** The patch round the tin as it lies on its first picture. */
const patch = [
  [tin.left - 12, tin.top - 12],
  [tin.left + tin.side + 12, tin.top - 12],
  [tin.left + tin.side + 12, tin.top + tin.side + 12],
  [tin.left - 12, tin.top + tin.side + 12],
].map(([x, y]): [number, number] => [x / filmed.width, y / filmed.height]);

/** A patch that hides the tin over seconds 1 to 5, until second 3. */
const covered = seeded(async (store, project) => {
  await setProject(store, project, { ...filmed, rate: { num: perSecond, den: 1 }, megabits: 8 });
  await laySeconds(store, project);
  const id = await addMoment(store, project, 'cover-swap', 1, 5);
  await setMoment(store, project, id, 'Place', { name: 'The tin', lands: 3, 'settings.patch': patch });
});

describe('a patch of a cover swap', () => {
  test('goes along with an object that is pushed, and hides it until its beat', async ({ open, file }) => {
    filmTable(file('pushed.mp4'), 5, true);
    filmTable(file('table.mp4'), 5, false);
    const bench = await open({ seed: await covered, at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('pushed.mp4'), file('table.mp4'));
    await bench.settled();
    await bench.choose('Take for the take of the swap', 'Pushed');
    await bench.choose('Take for the patch', 'Table');
    await bench.settled();
    // Under a patch that stands, the tin is pushed away.
    await bench.found('cover.somebody');
    await bench.press('The swap');
    await bench.settled();
    const box = await page.getByTestId('tap').boundingBox();
    if (!box) throw new Error('The picture cannot be tapped.');
    await page.mouse.click(
      box.x + ((tin.left + tin.side / 2) / filmed.width) * box.width,
      box.y + ((tin.top + tin.side / 2) / filmed.height) * box.height,
    );
    await bench.found('cover.follows');
    expect(await bench.finding('cover.somebody').count()).toBe(0);
    const { start } = await storedShot(bench);
    await bench.go('Hand over');
    await bench.render(file('swap.mov'));
    const [swap, table] = ['swap.mov', 'table.mp4'].map((name) =>
      decode(file(name), filmed.width, filmed.height),
    );
    /** mean difference in luma from the empty table where the tin lies in a picture of the take */
    const differs = (picture: number): number => {
      let sum = 0;
      const left = tin.left + tin.step * picture;
      for (let y = tin.top; y < tin.top + tin.side; y++)
        for (let x = left; x < left + tin.side; x++)
          sum += Math.abs(swap[picture].y[y * filmed.width + x] - table[0].y[y * filmed.width + x]);
      return sum / tin.side ** 2;
    };
    const lands = 3 * perSecond - start;
    const hidden = [0, 12, 30, lands - 2].map(differs);
    const shows = differs(lands + 14);
    console.info(
      `Off the empty table where the tin is: ${hidden.map((one) => one.toFixed(1)).join(', ')}; once the patch is gone ${shows.toFixed(1)}.`,
    );
    // The files' colours are read as BT.601 and delivered as BT.709, which moves luma by some codes.
    for (const off of hidden) expect(off).toBeLessThan(9);
    // The patch goes over twelve frames.
    expect(shows).toBeGreaterThan(25);
  });
});
