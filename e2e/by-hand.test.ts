import type { Page } from 'playwright-core';
import { describe, expect } from 'vitest';
import type { Moment } from '@/core/model/records';
import { yuvToRgba } from '@/core/picture/planes';
import { psnr } from '@/core/picture/psnr';
import { areaOf } from '@/core/shapes/draw';
import type { ShapeKey } from '@/core/shapes/keyed';
import { phone, type BenchPage } from './support/bench-page';
import { decode, demo } from './support/ffmpeg';
import { demoFilm } from './support/films';
import { Fingers } from './support/fingers';
import { referenceOf, storedShot } from './support/rebuild';
import { test } from './support/test';

type Place = [x: number, y: number];

/** The moment of a name as the page keeps it. */
async function kept(bench: BenchPage, name: string): Promise<Moment> {
  const all = (await bench.records()).filter((one) => one.kind === 'moment') as Moment[];
  const found = all.find((one) => one.name === name);
  if (!found) throw new Error(`There is no ${name}.`);
  return found;
}

/** Where shares of the picture lie on the screen, once it is in sight. */
async function onPicture(page: Page): Promise<(share: Place) => Place> {
  const canvas = page.locator('canvas[data-frame]');
  await canvas.scrollIntoViewIfNeeded();
  const box = await canvas.boundingBox();
  if (!box) throw new Error('There is no picture.');
  return ([x, y]) => [box.x + x * box.width, box.y + y * box.height];
}
const middleOf = async (page: Page, selector: string): Promise<Place> => {
  const box = await page.locator(selector).boundingBox();
  if (!box) throw new Error(`${selector} is not in sight.`);
  return [box.x + box.width / 2, box.y + box.height / 2];
};
const round = (middle: Place, radius: number): Place[] =>
  Array.from({ length: 25 }, (_, step) => [
    middle[0] + radius * Math.cos((2 * Math.PI * step) / 24),
    middle[1] + radius * Math.sin((2 * Math.PI * step) / 24),
  ]);

describe('what is done by hand', () => {
  test('draws, drags and brushes a shape with a finger on a phone, frame by frame', async ({ open }) => {
    const bench = await open({ seed: demoFilm(), keep: ['proxies'], at: 'station=build', size: phone });
    const { page } = bench;
    const shape = async () => (await kept(bench, 'Powder falls')).settings as { shape?: ShapeKey[] };
    await bench.choose('Moment', 'Powder falls');
    await bench.choose('What the change follows', 'a drawn shape');
    await bench.press('Edge');
    await page.locator('canvas[data-frame]').waitFor();
    const fingers = await Fingers.on(page);

    await onPicture(page);
    const [x, y] = await middleOf(page, '[data-seam-point="2"]');
    await fingers.along(
      [
        [x, y],
        [x + 12, y + 6],
        [x + 30, y + 20],
      ],
      () => page.locator('[data-loupe]').waitFor(),
    );
    await bench.settled();
    const dragged = (await shape()).shape ?? [];
    expect(dragged.map(({ after }) => after)).toEqual([0, 20]);
    expect(await page.locator('[data-loupe]').count()).toBe(0);

    // Stepping and playing, by finger as well.
    const touch = async (name: string) => {
      const knob = page.getByRole('button', { name, exact: true });
      // A finger that comes down while the page still moves only stops it.
      await knob.scrollIntoViewIfNeeded();
      await page.evaluate('new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))');
      await knob.tap();
    };
    const canvas = page.locator('canvas[data-frame]');
    const drawnSoFar = async () => Number(await canvas.getAttribute('data-drawn'));
    // A tap that only stopped the page is made again, as a person would.
    const pause = page.getByRole('button', { name: 'Pause', exact: true });
    const plays = async () => {
      if ((await pause.count()) > 0) return 1;
      await touch('Play');
      await pause.waitFor({ timeout: 10_000 }).catch(() => undefined);
      return pause.count();
    };
    await expect.poll(plays).toBe(1);
    const begun = await drawnSoFar();
    await expect.poll(drawnSoFar).toBeGreaterThan(begun + 3);
    await touch('Pause');
    await touch('To the landing');
    for (let step = 0; step < 3; step++) await touch('+ 1 frame');
    await bench.press('Draw it anew');
    let at = await onPicture(page);
    await fingers.along(round([0.5, 0.5], 0.2).map(at), () => page.locator('[data-loupe]').waitFor());
    await bench.settled();
    const drawn = (await shape()).shape ?? [];
    expect(drawn.map(({ after }) => after)).toEqual([0, 3, 20]);
    expect(new Set(drawn.map(({ ring }) => ring.length)).size).toBe(1);
    // A circle of a fifth in both directions.
    expect(areaOf(drawn[1].ring)).toBeCloseTo(Math.PI * 0.04, 2);

    await bench.press('Brush more');
    at = await onPicture(page);
    await fingers.along(
      (
        [
          [0.6, 0.5],
          [0.7, 0.5],
          [0.85, 0.5],
        ] as Place[]
      ).map(at),
    );
    await bench.settled();
    const brushed = (await shape()).shape ?? [];
    expect(Math.max(...brushed[1].ring.map(([across]) => across))).toBeGreaterThan(0.84);
    expect(await page.getByTestId('shape-keys').innerText()).toMatch(/frames \d+, \d+, \d+/);

    // A line that goes round nothing changes nothing, and is said.
    await bench.press('Draw it anew');
    at = await onPicture(page);
    await fingers.along(
      (
        [
          [0.2, 0.5],
          [0.4, 0.5],
          [0.6, 0.5],
        ] as Place[]
      ).map(at),
    );
    await page.getByText('This line goes round nothing.').waitFor();
    expect((await shape()).shape).toEqual(brushed);
    await bench.press('Take this frame’s out');
    await bench.settled();
    expect((await shape()).shape?.map(({ after }) => after)).toEqual([0, 20]);
  });

  test('sets keys with the keyboard alone, and what is rendered moves as they say', async ({
    open,
    file,
  }) => {
    const bench = await open({
      seed: demoFilm(),
      keep: ['proxies', 'stills', 'originals'],
      at: 'station=build',
    });
    const { page } = bench;
    const press = async (...keys: string[]) => {
      for (const key of keys) await page.keyboard.press(key);
      await bench.settled();
    };
    await bench.choose('Moment', 'The tin');
    await page.getByRole('button', { name: 'Keys by hand' }).focus();
    await press('Enter');
    await bench.press('To the landing');
    // Where the picture stands, a key; ten frames on it is moved with the arrows.
    await page.getByRole('button', { name: 'Set a key here' }).focus();
    await press('Enter');
    for (let step = 0; step < 10; step++) await press('.');
    await page.locator('[data-move]').focus();
    await press('Shift+ArrowRight', 'Shift+ArrowRight', 'ArrowDown');
    const moved = (await kept(bench, 'The tin')).keys?.whole;
    expect(moved?.across.map(({ by, value }) => [by, value])).toEqual([
      [0, 0],
      [expect.any(Number), 10],
    ]);
    expect(moved?.down.map(({ value }) => value)).toEqual([0.5]);
    await bench.found('hand.enlarged');
    await page.locator('[data-key]').last().focus();
    await press('ArrowLeft', 'ArrowUp');
    await bench.choose('How it goes on', 'follows a free curve');
    await page.locator('[data-key]').first().focus();
    await bench.choose('How it goes on', 'follows a free curve');
    await page.locator('[data-handle=leaves]').focus();
    await press('ArrowRight', 'ArrowUp');
    const bent = (await kept(bench, 'The tin')).keys?.whole.across ?? [];
    expect(bent[1].value).toBe(11);
    expect(bent[0].ease).toEqual([0.42, 0.02, 0.2, 1]);
    await bench.type('Sway of a hand', '0.5');
    await bench.settled();

    const size = { width: 640, height: 360 };
    await bench.go('Hand over');
    await bench.type('Width', String(size.width));
    await bench.type('Height', String(size.height));
    await bench.type('Bits a second', '12');
    await bench.render(file('shot.mov'));
    const shot = await storedShot(bench, 'The tin');
    const pictures = decode(file('shot.mov'), size.width, size.height);
    const reference = referenceOf(shot, { width: 1280, height: 720 }, size, demo);
    for (const frame of [shot.lands - 1, shot.lands + 5, shot.lands + 9, shot.end - 1])
      expect(
        psnr(yuvToRgba(pictures[frame - shot.start]), reference(frame)),
        `frame ${frame}`,
      ).toBeGreaterThan(32);
    expect(shot.tree.id).toBe('hand');
  });

  test('lays another version over the picture, takes it back, and carries its style to another moment', async ({
    open,
  }) => {
    const bench = await open({ seed: demoFilm(), keep: ['proxies'], at: 'station=build' });
    const { page } = bench;
    const name = 'Meets a copy';
    await bench.press('Keep this version');
    await bench.press('Keys by hand');
    await bench.choose('What of it changes', 'size');
    await bench.press('To the landing');
    await bench.press('Set a key here');
    await bench.settled();
    await bench.type('Value of the key', '150');
    await bench.settled();
    await bench.choose('Over the picture', 'version A');
    await page.locator('[data-second]:not([data-second="0"])').waitFor();
    const line = page.locator('[data-wipe]');
    const before = await line.boundingBox();
    await line.focus();
    await page.keyboard.press('Shift+ArrowRight');
    const after = await line.boundingBox();
    const canvas = await page.locator('canvas[data-frame]').boundingBox();
    expect((after?.x ?? 0) - (before?.x ?? 0)).toBeCloseTo(0.1 * (canvas?.width ?? 0), 0);
    await bench.choose('Over the picture', 'edges and outlines');
    await page.locator('[data-outlines]').waitFor();
    expect(Number(await page.locator('[data-outlines]').getAttribute('data-outlines'))).toBeGreaterThan(1);

    await bench.press('Save as a style');
    await bench.settled();
    await bench.press('Build it so: as version A');
    await bench.settled();
    expect((await kept(bench, name)).keys?.whole?.size).toBeUndefined();
    await bench.undo();
    expect((await kept(bench, name)).keys?.whole.size[0].value).toBe(150);
    await page.getByRole('button', { name: 'Build it so: as version A' }).click();
    await bench.settled();
    await bench.choose('Style', name);
    expect((await kept(bench, name)).keys?.whole.size[0].value).toBe(150);
    expect(await bench.audit()).toEqual([]);
  });
});
