import { describe, expect } from 'vitest';
import type { YuvImage } from '@/core/picture/planes';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import type { BenchPage } from './support/bench-page';
import { filmed, perSecond } from './support/composite';
import { decode } from './support/ffmpeg';
import { keysOf } from './support/hands';
import { seeded } from './support/seeds';
import { filmThrown, photographTable } from './support/shadows';
import { test } from './support/test';

/** the part of the picture that the patch covers, in pixels: left, top, right, bottom */
const patch = [300, 60, 400, 200] as const;
const shares = [
  [patch[0], patch[1]],
  [patch[2], patch[1]],
  [patch[2], patch[3]],
  [patch[0], patch[3]],
].map(([x, y]): [number, number] => [x / filmed.width, y / filmed.height]);

/** A patch that is held over seconds 1 to 4 of a take that runs. */
const film = seeded(async (store, project) => {
  await setProject(store, project, { ...filmed, rate: { num: perSecond, den: 1 }, megabits: 12 });
  await laySeconds(store, project);
  const id = await addMoment(store, project, 'cover-swap', 1, 4);
  await setMoment(store, project, id, 'Place', { name: 'Cup', lands: 3, 'settings.patch': shares });
});

/** How much the luma of a part of a picture changes from one to the next: the deviation of one, in codes. */
function grainIn(pictures: readonly YuvImage[], [left, top, right, bottom]: readonly number[]): number {
  let [squares, count] = [0, 0];
  for (let picture = 1; picture < pictures.length; picture++)
    for (let y = top; y < bottom; y++)
      for (let x = left; x < right; x++, count++) {
        const at = y * filmed.width + x;
        squares += (pictures[picture].y[at] - pictures[picture - 1].y[at]) ** 2;
      }
  return Math.sqrt(squares / count / 2);
}

describe('a patch that is held over a take that runs', () => {
  test('has grain like what runs beside it, whether it was filmed or photographed, until it is left as it is', async ({
    open,
    file,
  }) => {
    filmThrown(file('swap.mp4'), { who: 'left', grain: 16 });
    filmThrown(file('table.mp4'), { grain: 16 });
    photographTable(file('photo.png'));
    const bench = await open({ seed: await film, at: 'station=match' });
    const { page } = bench;
    await bench.bringIn(file('swap.mp4'), file('table.mp4'));
    await bench.bringIn(file('photo.png'));
    await bench.settled();
    await bench.go('Build');
    await bench.choose('Take for the take of the swap', 'Swap');

    const kept = async (name: string) => {
      await bench.go('Hand over');
      await bench.type('Bits a second', '40');
      await bench.render(file(`${name}.mov`));
      await page.getByRole('button', { name: /^Remove .*mov$/ }).click();
      await page.locator('[data-render]').waitFor({ state: 'detached' });
      await bench.go('Build');
      const pictures = decode(file(`${name}.mov`), filmed.width, filmed.height).slice(2, 2 * perSecond - 4);
      const inner = [patch[0] + 12, patch[1] + 12, patch[2] - 12, patch[3] - 12];
      const beside = [inner[0] - 130, inner[1], inner[2] - 130, inner[3]];
      return { held: grainIn(pictures, inner), runs: grainIn(pictures, beside) };
    };
    const told = async (bench: BenchPage, code: string) =>
      (await bench.finding(code).allTextContents()).join('\n');
    for (const take of ['Table', 'Photo']) {
      await bench.choose('Take for the patch', take);
      await bench.settled();
      expect(await told(bench, 'grain.evened')).toMatch(
        new RegExp(`^Fine Patch: ${take} is held beside what runs: grain like that of Swap, \\d+\\.\\d codes`),
      );
      const { held, runs } = await kept(take);
      console.info(`${take}: grain of ${held.toFixed(2)} codes in the patch, ${runs.toFixed(2)} beside it.`);
      expect(Math.abs(held / runs - 1)).toBeLessThan(0.2);
    }
    await bench.unfold('fine');
    await keysOf(bench).press(page.getByRole('button', { name: 'Leave it as it is' }));
    await bench.found('grain.stands');
    await page.reload();
    await bench.arrived();
    expect(await told(bench, 'grain.stands')).toMatch(/^Watch Patch: Photo is held while the grain of Swap/);
    const left = await kept('left');
    console.info(
      `Left: grain of ${left.held.toFixed(2)} codes in the patch, ${left.runs.toFixed(2)} beside it.`,
    );
    expect(left.held).toBeLessThan(0.3 * left.runs);
    await bench.press('Lay grain over it');
    await bench.settled();
    expect(await bench.finding('grain.stands').count()).toBe(0);
  });
});
