import type { Locator } from 'playwright-core';
import { describe, expect } from 'vitest';
import type { Moment, Project } from '@/core/model/records';
import { addSetup } from '@/store/commands/plan';
import { createMoment } from '@/store/commands/moments';
import { laySeconds } from '@/store/commands/song';
import { phone, type BenchPage } from './support/bench-page';
import { demoFilm, songFilm } from './support/films';
import { Fingers } from './support/fingers';
import { seeded } from './support/seeds';
import { test } from './support/test';

const project = async (bench: BenchPage) =>
  (await bench.records()).find((one): one is Project & typeof one => one.kind === 'project');
const moment = async (bench: BenchPage) =>
  (await bench.records()).find((one): one is Moment & typeof one => one.kind === 'moment' && one.alive);
const middleOf = async (one: Locator): Promise<[number, number]> => {
  const box = await one.boundingBox();
  if (!box) throw new Error('It is not on the screen.');
  return [box.x + box.width / 2, box.y + box.height / 2];
};
/** A project with a ruler of seconds and one clone on it. */
const ruledClone = () =>
  seeded(async (store, id) => {
    await laySeconds(store, id);
    await createMoment(store, id, 0, 8);
  });

describe('numbers under the hand', () => {
  test('commit only what was changed, and give the focus back', async ({ open }) => {
    const bench = await open({ seed: songFilm(), at: 'station=song' });
    const { page } = bench;
    const before = await bench.grid();
    const tempo = bench.number('Tempo');
    // Pressed and left: by another press, by Enter, by Escape.
    await tempo.click();
    await page.getByRole('heading', { level: 1 }).click();
    for (const key of ['Enter', 'Escape']) {
      await tempo.click();
      await page.keyboard.press(key);
      expect(await tempo.evaluate((one) => one === document.activeElement)).toBe(true);
    }
    await bench.settled();
    // A found grid follows the song; one set by hand is regular.
    expect(await bench.grid()).toEqual(before);
    await bench.type('Tempo', '100,5');
    await bench.settled();
    expect((await bench.grid()).beats).not.toEqual(before.beats);
    await expect.poll(() => tempo.innerText()).toBe('100.5 beats/min');
    expect(await tempo.evaluate((one) => one === document.activeElement)).toBe(true);
  });

  test('take both decimal signs and thousands, and show what was understood', async ({ open }) => {
    const bench = await open({ seed: await ruledClone(), at: 'station=deliver' });
    const { page } = bench;
    await bench.type('Width', '1,920');
    await expect.poll(async () => (await project(bench))?.width).toBe(1920);
    await bench.type('Bits a second', '12,5');
    await expect.poll(async () => (await project(bench))?.megabits).toBe(12.5);
    await bench.go('Build');
    const end = bench.number('Ends on');
    await end.focus();
    await page.keyboard.press('Enter');
    await page.keyboard.type('3.4');
    expect(await page.locator('[data-understood]').innerText()).toBe('bar 3, beat 4');
    await page.keyboard.press('Enter');
    // Bars of five seconds: the fourth second of the third bar.
    await expect.poll(async () => (await moment(bench))?.end).toBe(13);
    await end.focus();
    await page.keyboard.press('Enter');
    await page.keyboard.type('soon');
    expect(await page.locator('[data-understood]').innerText()).toMatch(/stays as it is/);
    await page.keyboard.press('Enter');
    await bench.settled();
    expect((await moment(bench))?.end).toBe(13);
  });

  test('let the page scroll past them, follow a finger across, and forget what the system cancels', async ({
    open,
  }) => {
    const seed = await seeded(async (store, id) => {
      await laySeconds(store, id);
      await createMoment(store, id, 0, 8);
      await addSetup(store, id);
    });
    const bench = await open({ seed, size: phone, at: 'station=plan&part=room' });
    const fingers = await Fingers.on(bench.page);
    const setup = async () => (await bench.records()).find((one) => one.kind === 'setup');
    const lens = bench.number('Focal length');
    await lens.scrollIntoViewIfNeeded();
    const before = await setup();
    const [x, y] = await middleOf(lens);
    await fingers.swipe([x, y], [x + 3, y - 200]);
    await expect.poll(async () => (await middleOf(lens))[1]).not.toBe(y);
    await lens.scrollIntoViewIfNeeded();
    const [atX, atY] = await middleOf(lens);
    await fingers.swipe([atX, atY], [atX + 60, atY + 2], 'touchCancel');
    await bench.settled();
    expect(await setup()).toEqual(before);
    await fingers.swipe([atX, atY], [atX + 40, atY + 2]);
    await expect
      .poll(async () => ((await setup()) as { focal?: number } | undefined)?.focal)
      .toBeGreaterThan(24);
    // A phone brings the keyboard of digits for what is a number.
    await fingers.tap(await middleOf(lens));
    expect(await bench.page.locator('input[inputmode=decimal]').count()).toBe(1);
  });
});

describe('keys', () => {
  test('act at their own station alone, never under a dialog or a list, nor with Alt or Ctrl held', async ({
    open,
  }) => {
    const bench = await open({ seed: songFilm(), at: 'station=song' });
    const { page } = bench;
    const before = await bench.grid();
    const heading = page.getByRole('heading', { level: 1 });
    const same = async () => {
      await bench.settled();
      expect(await bench.grid()).toEqual(before);
    };
    for (const key of ['Alt+h', 'Control+Alt+h', 'Control+Shift+h']) await page.keyboard.press(key);
    await same();
    // Under the list of actions, and while something is chosen from a menu.
    await page.keyboard.press('Control+k');
    await page.getByRole('dialog').waitFor();
    await page.keyboard.press('Tab');
    await page.keyboard.press('d');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'My film' }).click();
    await page.getByRole('menu').waitFor();
    await page.keyboard.press('d');
    await page.keyboard.press('Escape');
    await page.getByRole('menu').waitFor({ state: 'detached' });
    await same();
    // From stations that do not show the beats.
    for (const station of ['Plan', 'Match', 'Build'] as const) {
      await bench.go(station);
      for (const key of ['h', 'd', 's', 'm', 'f', 't']) await page.keyboard.press(key);
    }
    await same();
    await bench.go('Song');
    await heading.click();
    await page.keyboard.press('d');
    await expect.poll(async () => (await bench.grid()).beats.length).toBeGreaterThan(before.beats.length);
    // Undo and redo, each by the keys that people know.
    await page.keyboard.press('Control+z');
    await expect.poll(async () => (await bench.grid()).beats.length).toBe(before.beats.length);
    await page.keyboard.press('Control+Shift+z');
    await expect.poll(async () => (await bench.grid()).beats.length).toBeGreaterThan(before.beats.length);
  });

  test('of digits begin to type on a number; what has the focus keeps it', async ({ open }) => {
    const bench = await open({ seed: songFilm(), at: 'station=song' });
    const { page } = bench;
    const tempo = bench.number('Tempo');
    await tempo.focus();
    await page.keyboard.press('9');
    await page.keyboard.press('6');
    await page.keyboard.press('Enter');
    await expect.poll(() => tempo.innerText()).toBe('96.0 beats/min');
    expect(page.url()).not.toMatch(/station=(build|deliver)/);
    await page.keyboard.press('Control+z');
    await expect.poll(() => tempo.innerText()).not.toBe('96.0 beats/min');
  });

  test('are listed where they act, in a list that is searched and chosen from with the arrows', async ({
    open,
  }) => {
    const bench = await open({ seed: songFilm(), at: 'station=song' });
    const { page } = bench;
    await page.keyboard.press('?');
    const list = page.getByRole('listbox');
    await list.waitFor();
    const options = page.getByRole('option');
    expect(await page.getByRole('group').allTextContents()).toHaveLength(3);
    expect(await options.filter({ hasText: 'Half the tempo' }).count()).toBe(1);
    expect(await options.filter({ hasText: 'The last take is good' }).count()).toBe(0);
    await page.keyboard.type('go to plan');
    await expect.poll(() => options.count()).toBe(1);
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { level: 1, name: 'What must be filmed, and how?' }).waitFor();
    await page.keyboard.press('?');
    await list.waitFor();
    expect(await options.filter({ hasText: 'Half the tempo' }).count()).toBe(0);
    expect(await options.filter({ hasText: 'centimetres and inches' }).count()).toBe(1);
  });
});

describe('drags', () => {
  test('on the song make and move moments as far as the hand goes, and nothing where it hardly does', async ({
    open,
  }) => {
    const bench = await open({ seed: songFilm(), at: 'station=song' });
    const { page } = bench;
    const ribbon = page.locator('[data-ribbon]');
    const box = await ribbon.boundingBox();
    if (!box) throw new Error('There is no ribbon.');
    const patches = page.locator('[data-moment]');
    const drag = async (from: [number, number], to: [number, number], end = () => page.mouse.up()) => {
      await page.mouse.move(...from);
      await page.mouse.down();
      for (let step = 1; step <= 5; step++)
        await page.mouse.move(
          from[0] + ((to[0] - from[0]) * step) / 5,
          from[1] + ((to[1] - from[1]) * step) / 5,
        );
      await end();
    };
    const y = box.y + 60;
    await drag([box.x + 200, y], [box.x + 204, y]);
    await bench.settled();
    expect(await patches.count()).toBe(0);
    await drag([box.x + 200, y], [box.x + 420, y]);
    await expect.poll(() => patches.count()).toBe(1);
    const made = await moment(bench);
    if (!made) throw new Error('No moment was made.');
    // Held anywhere, it goes as far as the hand does: half a beat and less of it stays where it was.
    const grid = await bench.grid();
    const beat = (220 / Math.round(made.end - made.start)) | 0;
    const body = page.locator('[data-moment] .patch').first();
    const [x, middle] = await middleOf(body);
    await drag([x + 7, middle], [x + 7 + beat * 0.4, middle]);
    await bench.settled();
    expect((await moment(bench))?.start).toBe(made.start);
    await drag([x + 7, middle], [x + 7 + beat * 1.1, middle]);
    await expect.poll(async () => (await moment(bench))?.start).toBe(made.start + 1);
    expect(await bench.grid()).toEqual(grid);
  });

  test('that the system cancels leave no moment; a finger up and down scrolls, across makes one', async ({
    open,
  }) => {
    const bench = await open({ seed: songFilm(), size: phone, at: 'station=song' });
    const { page } = bench;
    const fingers = await Fingers.on(page);
    const [x, y] = await middleOf(page.locator('[data-ribbon]'));
    const top = Math.min(y, 300);
    await fingers.swipe([x - 60, top], [x + 60, top + 2], 'touchCancel');
    await fingers.swipe([x, top + 100], [x + 2, top - 60]);
    await bench.settled();
    expect(await page.locator('[data-moment]').count()).toBe(0);
    await page
      .locator('main')
      .evaluate((main) => main.querySelectorAll('*').forEach((one) => (one.scrollTop = 0)));
    await fingers.swipe([x - 60, top], [x + 60, top + 2]);
    await expect.poll(() => page.locator('[data-moment]').count()).toBe(1);
  });

  test('look at the stage closely: a point of the join still moves by itself, and the page still scrolls', async ({
    open,
  }) => {
    const bench = await open({ seed: demoFilm(), keep: ['proxies', 'stills'], at: 'station=build' });
    const { page } = bench;
    await bench.settled();
    const picture = page.locator('canvas[data-frame]');
    const width = async () => (await picture.boundingBox())?.width ?? 0;
    await bench.press('Join');
    const whole = await width();
    await bench.press('Closer');
    await expect.poll(width).toBeGreaterThan(1.4 * whole);
    const point = page.locator('[data-seam-point]').first();
    const [left] = await middleOf(picture);
    const [x, y] = await middleOf(point);
    const stage = await page.locator('canvas[data-frame]').locator('xpath=../..').boundingBox();
    const inSight =
      stage && x > stage.x && x < stage.x + stage.width && y > stage.y && y < stage.y + stage.height;
    if (inSight) {
      await page.mouse.move(x, y);
      await page.mouse.down();
      await page.mouse.move(x + 40, y + 4, { steps: 6 });
      await page.mouse.up();
      await expect.poll(async () => Math.round((await middleOf(point))[0])).toBe(Math.round(x + 40));
    }
    expect((await middleOf(picture))[0]).toBeCloseTo(left, 0);
    await bench.press('The whole picture');
    await expect.poll(width).toBeCloseTo(whole, 0);

    const small = await open({
      seed: demoFilm(),
      keep: ['proxies', 'stills'],
      size: phone,
      at: 'station=build',
    });
    await small.settled();
    const canvas = small.page.locator('canvas[data-frame]');
    const [cx, cy] = await middleOf(canvas);
    const fingers = await Fingers.on(small.page);
    await fingers.swipe([cx, cy], [cx, cy - 120]);
    await expect.poll(async () => (await middleOf(canvas))[1]).toBeLessThan(cy - 40);
  });

  test('and keys shape the join and say whom to keep; a tap beside a point spoils nothing', async ({
    open,
  }) => {
    const bench = await open({ seed: demoFilm(), keep: ['proxies', 'stills'], at: 'station=build' });
    const { page } = bench;
    await bench.settled();
    const clone = async () =>
      (await bench.records()).find(
        (one): one is Moment & typeof one =>
          one.kind === 'moment' && one.alive && one.name === 'Meets a copy',
      );
    const seam = async () => ((await clone())?.settings as { seam?: [number, number][] | null }).seam ?? null;
    await bench.press('Join');
    const points = page.locator('[data-seam-point]');
    await points.first().focus();
    await page.keyboard.press('+');
    await expect.poll(async () => (await seam())?.length ?? 0).toBeGreaterThan(3);
    const drawn = await seam();
    await bench.settled();
    const count = await points.count();
    const [x, y] = await middleOf(points.first());
    await page.mouse.click(x + 15, y + 8);
    await page.mouse.click(x + 60, y + 80);
    await bench.settled();
    expect(await seam()).toEqual(drawn);
    await points.nth(1).focus();
    await page.keyboard.press('Delete');
    await expect.poll(async () => (await seam())?.length).toBe((drawn?.length ?? 0) - 1);
    await bench.settled();
    expect(await points.count()).toBe(count - 1);
    // Whom to keep, by keys alone, and let go again.
    await bench.press('Left');
    await page.getByRole('button', { name: 'Left', exact: true }).focus();
    await page.keyboard.press('e');
    await page.keyboard.press('w');
    const pad = page.getByTestId('tap');
    await page.getByRole('button', { name: 'Join', exact: true }).focus();
    for (let press = 0; press < 20; press++) {
      if (await pad.evaluate((one) => one === document.activeElement)) break;
      await page.keyboard.press('Tab');
    }
    for (const key of ['Shift+ArrowLeft', 'ArrowLeft', 'ArrowUp', 'Enter']) await page.keyboard.press(key);
    await expect.poll(async () => (await clone())?.slots?.left.taps?.length).toBe(1);
    const [tap] = (await clone())?.slots?.left.taps ?? [];
    expect(tap.at[0]).toBeCloseTo(0.43, 6);
    expect(tap.at[1]).toBeCloseTo(0.49, 6);
    await page.keyboard.press('Enter');
    await expect.poll(async () => (await clone())?.slots?.left.taps?.length).toBe(0);
    expect((await seam())?.length).toBe((drawn?.length ?? 0) - 1);
  });
});

describe('where something is missing or goes wrong', () => {
  test('without a song the needle walks along the ruler, at the speed that is shown', async ({ open }) => {
    const bench = await open({ seed: await ruledClone(), at: 'station=build' });
    const { page } = bench;
    const frame = async () => Number(/frame (\d+)/.exec(await page.getByTestId('frame').innerText())?.[1]);
    expect(await frame()).toBe(0);
    await bench.press('Play');
    await expect.poll(frame).toBeGreaterThan(5);
    await bench.press('Pause');
    const stopped = await frame();
    await page.keyboard.press('.');
    await expect.poll(frame).toBe(stopped + 1);
  });

  test('a demo that cannot be fetched says so, is tried again, or is done without', async ({
    browser,
    server,
  }) => {
    const context = await browser.newContext();
    let broken = true;
    await context.route('**/demo/*.mp4', (route) => (broken ? route.abort() : route.continue()));
    const page = await context.newPage();
    await page.goto(server.url);
    await page.getByRole('alert').filter({ hasText: 'The demo could not be opened' }).waitFor();
    await page.getByRole('button', { name: 'Try once more' }).click();
    await page.getByRole('alert').filter({ hasText: 'Check the connection' }).waitFor();
    await page.getByRole('button', { name: 'Start a project of your own' }).click();
    await page.getByText('Lay a song on the bench').waitFor();
    broken = false;
    await page.keyboard.press('Control+k');
    await page.getByRole('option', { name: 'Open the demo afresh' }).click();
    await page.locator('[data-ribbon]').waitFor();
    await context.close();
  });
});
