import { describe, expect } from 'vitest';
import type { SeamMeasure } from '@/core/model/measures';
import type { RgbaImage } from '@/core/picture/image';
import { yuvToRgba } from '@/core/picture/planes';
import { createMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import type { Measure } from '@/store/db';
import type { BenchPage } from './support/bench-page';
import { decode } from './support/ffmpeg';
import { referenceOf, storedShot } from './support/rebuild';
import { seeded } from './support/seeds';
import { test } from './support/test';
import { columnOf, filmWalkers, shownOf, size, wide, type Walker } from './support/walkers';

const pictures = 110;
const red: Walker = { rgb: [200, 40, 40], from: 40, to: 190, top: 120 };
const green: Walker = { rgb: [30, 160, 60], from: 200, to: 30, top: 140 };
const blue: Walker = { rgb: [40, 60, 210], from: 400, to: 560, top: 120 };
const yellow: Walker = { rgb: [220, 200, 30], from: 560, to: 410, top: 140 };
/** The same, but for walking on into the others' place. */
const astray: Walker = { ...yellow, to: -485 };

/** Taps somebody on the stage where they stand in a take's picture. */
async function tap(bench: BenchPage, walker: Walker, picture: number): Promise<void> {
  const stage = bench.page.getByTestId('tap');
  const box = await stage.boundingBox();
  if (!box) throw new Error('There is no stage.');
  const [x, y] = [columnOf(walker, picture, pictures) + 22, walker.top + 75];
  await stage.click({ position: { x: (x / size.width) * box.width, y: (y / size.height) * box.height } });
}

/** Two who walk over the same ground, the one behind the other, but never in the same place at once. */
const behind: Walker = { ...red, to: 330 };
const ahead: Walker = { ...blue, from: 240, to: 580 };

describe.each([
  { name: 'stay on their side', left: [red, green], right: [blue, yellow] },
  { name: 'walk into the others’ place', left: [red, green], right: [blue, astray] },
  { name: 'follow one another', left: [behind, green], right: [ahead, yellow] },
])('two walkers a side that cross and $name', ({ left, right }) => {
  test('are kept whole, as a look at every third frame says', async ({ open, file }) => {
    const films = { 'plate.mp4': [], 'left.mp4': left, 'right.mp4': right };
    Object.entries(films).forEach(([name, walkers], index) =>
      filmWalkers(file(name), walkers, pictures, index + 1),
    );
    const seed = await seeded(async (store, project) => {
      await setProject(store, project, size);
      await laySeconds(store, project);
      await createMoment(store, project, 0, 4);
    });
    const bench = await open({ seed, at: 'station=match' });
    const { page } = bench;
    await bench.bringIn(...Object.keys(films).map(file));
    await page.locator('[data-take] img').nth(2).waitFor();
    await bench.settled();
    await page.getByRole('button', { name: /^Use this pair in/ }).click();
    await page.getByTestId('sentence').waitFor();
    await bench.settled();
    const shot = await storedShot(bench);
    await bench.press('Left');
    for (const walker of left) await tap(bench, walker, 0);
    await bench.press('Right');
    for (const walker of right) await tap(bench, walker, 0);
    await page.getByText('Left: 2 are tapped. Right: 2 are tapped.').waitFor();
    await bench.settled();
    const measures = (await bench.rows('measures')) as Measure[];
    const seam = measures.find(({ value }) => value.method === 'seam-7')?.value as { seam: SeamMeasure };
    expect(seam.seam.found).toEqual([true, true]);
    // A join that stays is enough where all stay on their side.
    expect(seam.seam.moves.length > 0).toBe(!right.includes(blue) || right.includes(astray));
    expect(await bench.finding('clone.moves').count()).toBe(seam.seam.moves.length > 0 ? 1 : 0);
    // Where two of both sides come nearest is known from their columns.
    const gaps = Array.from({ length: shot.end - shot.lands }, (_, later) =>
      Math.min(
        ...left.flatMap((one) =>
          right.map((other) => {
            const a = columnOf(one, shot.lands - shot.start + later, pictures);
            const b = columnOf(other, later, pictures);
            return Math.max(0, Math.abs(a - b) - wide);
          }),
        ),
      ),
    );
    const { contact } = seam.seam;
    if (!contact) throw new Error('Nobody was found to come near to anybody.');
    expect(Math.abs(contact.apart * size.width - Math.min(...gaps))).toBeLessThan(5);
    // Within a frame: no later and no earlier one is clearly nearer than the one that was found.
    const around = [-1, 0, 1].map((by) => gaps[contact.frame - shot.lands + by] ?? Infinity);
    expect(Math.min(...around) - Math.min(...gaps)).toBeLessThan(5);
    // Where no join parts them, both are cut out, one behind the other; a join that is drawn by hand is left as it is.
    expect(await page.locator('[data-severity=stop]').count()).toBe(0);
    const cross = right.includes(astray);
    expect(await bench.finding('clone.crossed').count()).toBe(cross ? 1 : 0);
    const render = page.getByRole('button', { name: 'Render the shot' });
    if (cross) {
      await bench.press('Join');
      await page.locator('[data-seam-point]').first().focus();
      await page.keyboard.press('Shift+ArrowRight');
      await bench.found('clone.crossing');
      await bench.settled();
      expect(await page.locator('[data-severity=stop]').count()).toBeGreaterThan(0);
      await bench.go('Hand over');
      expect(await render.isDisabled()).toBe(true);
      await bench.undo();
      await bench.settled();
    } else await bench.go('Hand over');
    await render.click();
    await page.locator('[data-render=done]').waitFor();
    await (await bench.save('Save')).saveAs(file('film.mov'));
    const film = decode(file('film.mov'), size.width, size.height);
    expect(film).toHaveLength(shot.end - shot.start);
    const columns = (walkers: readonly Walker[], picture: number) =>
      walkers.map((walker) => columnOf(walker, picture, pictures));
    /** The least of anybody that shows in a frame, but for what others hide who are before them. */
    const leastOf = (shown: RgbaImage, frame: number, front: 'left' | 'right') => {
      const lefts = columns(left, frame - shot.start);
      const rights = columns(right, frame - shot.lands);
      const of = (walkers: readonly Walker[], own: number[], others: number[]) =>
        walkers.map((walker, index) =>
          shownOf(shown, walker, own[index], [...own.slice(index + 1), ...others]),
        );
      return Math.min(
        ...of(left, lefts, front === 'right' ? rights : []),
        ...of(right, rights, front === 'left' ? lefts : []),
      );
    };
    const every = (step: number) =>
      Array.from(
        { length: Math.ceil((shot.end - shot.lands) / step) },
        (_, index) => shot.lands + step * index,
      );
    const least = every(3).map((frame) => leastOf(yuvToRgba(film[frame - shot.start]), frame, 'right'));
    console.info(`Of everybody at least ${Math.min(...least).toFixed(3)} show.`);
    expect(Math.min(...least)).toBeGreaterThan(0.97);
    if (cross) {
      await bench.go('Build');
      await bench.choose('Who is in front', 'who was there first');
      await bench.settled();
      const painted = referenceOf(await storedShot(bench), size, size, file);
      for (const frame of every(20)) expect(leastOf(painted(frame), frame, 'left')).toBeGreaterThan(0.97);
      return;
    }

    const files = () =>
      page.evaluate(`(async () => {
        const names = [];
        for await (const name of (await navigator.storage.getDirectory()).keys()) names.push(name);
        return names;
      })()`);
    expect(await files()).toHaveLength(1);
    await page.getByRole('button', { name: /^Remove .*mov$/ }).click();
    await expect.poll(files).toEqual([]);
  });
});
