import { describe, expect } from 'vitest';
import type { YuvImage } from '@/core/picture/planes';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
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

type Part = readonly [number, number, number, number];

/** How much the luma of a part of a picture changes from one to the next: the deviation of one, in codes. */
function grainIn(pictures: readonly YuvImage[], [left, top, right, bottom]: Part): number {
  let [squares, count] = [0, 0];
  for (let picture = 1; picture < pictures.length; picture++)
    for (let y = top; y < bottom; y++)
      for (let x = left; x < right; x++, count++) {
        const at = y * filmed.width + x;
        squares += (pictures[picture].y[at] - pictures[picture - 1].y[at]) ** 2;
      }
  return Math.sqrt(squares / count / 2);
}

/** How much detail a part of the mean of some pictures has: the root of the mean square of its slopes, in codes a pixel. */
function detailIn(pictures: readonly YuvImage[], [left, top, right, bottom]: Part): number {
  const mean = new Float64Array(filmed.width * filmed.height);
  for (const { y } of pictures) for (let at = 0; at < mean.length; at++) mean[at] += y[at] / pictures.length;
  let [squares, count] = [0, 0];
  for (let y = top; y < bottom; y++)
    for (let x = left; x < right; x++, count++) {
      const at = y * filmed.width + x;
      squares += (mean[at + 1] - mean[at]) ** 2 + (mean[at + filmed.width] - mean[at]) ** 2;
    }
  return Math.sqrt(squares / count);
}

describe('a patch that is held over a take that runs', () => {
  test('is as grainy and as soft as what runs beside it, filmed or photographed, until it is left as it is', async ({
    open,
    file,
  }) => {
    const lens = { grain: 16, soft: 1.2 };
    filmThrown(file('swap.mp4'), { who: 'left', ...lens });
    filmThrown(file('table.mp4'), lens);
    photographTable(file('photo.png'));
    const bench = await open({ seed: await film, at: 'station=match' });
    const { page } = bench;
    await bench.bringIn(file('swap.mp4'), file('table.mp4'));
    await bench.bringIn(file('photo.png'));
    await bench.settled();
    await bench.go('Build');
    await bench.choose('Take for the take of the swap', 'Swap');

    const shown = (name: string) =>
      decode(file(name), filmed.width, filmed.height).slice(2, 2 * perSecond - 4);
    const inner: Part = [patch[0] + 12, patch[1] + 12, patch[2] - 12, patch[3] - 12];
    const beside: Part = [inner[0] - 130, inner[1], inner[2] - 130, inner[3]];
    // What the soft lens saw where the patch lies, of as many pictures.
    const seen = detailIn(shown('table.mp4'), inner);
    const rendered = async (name: string) => {
      await bench.go('Hand over');
      await bench.type('Bits a second', '40');
      await bench.render(file(`${name}.mov`));
      await page.getByRole('button', { name: /^Remove .*mov$/ }).click();
      await page.locator('[data-render]').waitFor({ state: 'detached' });
      await bench.go('Build');
      const pictures = shown(`${name}.mov`);
      const found = {
        grain: grainIn(pictures, inner) / grainIn(pictures, beside),
        detail: detailIn(pictures, inner) / seen,
      };
      console.info(
        `${name}: ${found.grain.toFixed(2)} of the grain, ${found.detail.toFixed(2)} of the detail.`,
      );
      return found;
    };
    const told = async (code: string) => (await bench.finding(code).allTextContents()).join('\n');
    for (const take of ['Table', 'Photo']) {
      await bench.choose('Take for the patch', take);
      await bench.settled();
      expect(await told('grain.evened')).toMatch(
        new RegExp(
          `^Fine Patch: ${take} is held beside what runs: grain like that of Swap, \\d+\\.\\d codes`,
        ),
      );
      expect(await told('softness.evened')).toMatch(
        take === 'Photo'
          ? /^Fine Patch: Photo is held beside Swap, and was sharper: softened by 1\.\d px/
          : /^$/,
      );
      const { grain, detail } = await rendered(take);
      expect(Math.abs(grain - 1)).toBeLessThan(0.2);
      // One picture of a film keeps its own grain, which counts as detail here.
      if (take === 'Photo') expect(Math.abs(detail - 1)).toBeLessThan(0.2);
    }
    await bench.unfold('fine');
    await keysOf(bench).press(page.getByRole('button', { name: 'Leave it as it is' }).first());
    await bench.found('grain.stands');
    await page.reload();
    await bench.arrived();
    expect(await told('grain.stands')).toMatch(/^Watch Patch: Photo is held while the grain of Swap/);
    expect(await told('softness.sharper')).toMatch(
      /^Watch Patch: Photo is held beside Swap, and sharper: 1\.\d px/,
    );
    const left = await rendered('left');
    expect(left.grain).toBeLessThan(0.3);
    expect(left.detail).toBeGreaterThan(1.4);
    await bench.press('Even it out');
    await bench.settled();
    for (const code of ['grain.stands', 'softness.sharper'])
      expect(await bench.finding(code).count(), code).toBe(0);
  });
});
