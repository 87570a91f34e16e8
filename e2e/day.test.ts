import { describe, expect } from 'vitest';
import { phone, type BenchPage, type Station } from './support/bench-page';
import { FilmSet } from './support/film-set';
import { Fingers } from './support/fingers';
import { seeded } from './support/seeds';
import { test } from './support/test';

const sideways = { width: phone.height, height: phone.width };

/** What is at the middle of the large button: itself, unless something lies over it. */
const uncovered = (bench: BenchPage, name: RegExp) =>
  bench.page.getByRole('button', { name }).evaluate((button) => {
    const { x, y, width, height } = button.getBoundingClientRect();
    const top = document.elementFromPoint(x + width / 2, y + height / 2);
    return y >= 0 && y + height <= innerHeight && x + width <= innerWidth && button.contains(top);
  });

/** Whether what the watch says is wholly on the screen. */
const inSight = (bench: BenchPage) =>
  bench.page.getByTestId('watch-says').evaluate((says) => {
    const { top, bottom } = says.getBoundingClientRect();
    return top >= 0 && bottom <= innerHeight;
  });

describe('a day with a phone alone', () => {
  test('goes from a new project to a struck set, upright and sideways, by touch', async ({ open }) => {
    const bench = await open({ seed: await seeded(), size: phone, at: 'station=song' });
    const set = new FilmSet(bench);
    const { page } = bench;
    const tap = (name: string | RegExp) =>
      page
        .getByRole('button', { name, ...(typeof name === 'string' ? { exact: true } : {}) })
        .first()
        .tap();
    const go = async (station: Station) => {
      await page.getByRole('navigation', { name: 'Stations' }).getByRole('button', { name: station }).tap();
      await bench.arrived();
    };
    const turn = async (size: { width: number; height: number }) => {
      await page.setViewportSize(size);
      await bench.settled();
    };

    // The plan: a moment by a finger over the ribbon, a setup, an order.
    await tap('Work without a song');
    const ribbon = page.locator('[data-ribbon]').first();
    await ribbon.waitFor();
    const box = await ribbon.boundingBox();
    const [x, y] = [(box?.x ?? 0) + 30, (box?.y ?? 0) + 40];
    const fingers = await Fingers.on(page);
    await fingers.swipe([x, y], [x + 170, y + 2]);
    await page.locator('[data-moment]').first().waitFor();
    await go('Plan');
    await page.getByRole('tab', { name: 'Room' }).tap();
    await tap(/^Add .*setup/i);
    await page.getByRole('tab', { name: 'Order' }).tap();
    const lines = page.locator('[data-knot]');
    await lines.first().waitFor();
    expect(await lines.count()).toBe(4);
    // The detail opens under the line that was tapped, and the line stays under the finger.
    for (const index of [0, 2]) {
      const line = lines.nth(index).getByRole('button').first();
      await line.scrollIntoViewIfNeeded();
      const before = await line.boundingBox();
      await line.tap();
      await lines.nth(index).locator('[data-detail]').waitFor();
      const after = await line.boundingBox();
      expect(Math.abs((after?.y ?? 0) - (before?.y ?? 999))).toBeLessThan(2);
    }
    expect(await page.locator('[data-detail]').count()).toBe(1);

    // The set: upright first, then sideways; the camera stays open from shot to shot.
    await go('Shoot');
    await page.locator('[data-row$="/first plate"]').tap();
    await page.locator('[data-row$="/first plate"] ~ [data-detail]').waitFor();
    await page.getByRole('tab', { name: 'Camera' }).tap();
    await tap('Practice camera');
    await page.getByRole('group', { name: 'What goes wrong' }).waitFor();
    const record = async (seconds: number, during?: () => Promise<void>) => {
      const before = (await set.logs()).length;
      await tap(/^Record take/);
      await set.ran(seconds);
      expect(await uncovered(bench, /^Stop take/)).toBe(true);
      expect(await inSight(bench)).toBe(true);
      await during?.();
      await tap(/^Stop take/);
      await page.getByRole('button', { name: /^Record take/ }).waitFor();
      expect(await set.logs()).toHaveLength(before + 1);
    };
    expect(await uncovered(bench, /^Record take/)).toBe(true);
    await record(2);
    await set.told('fine');
    // Rating a take makes the shot's title longer; the button beside it stays under the thumb.
    const next = page.getByRole('button', { name: 'Next shot' });
    const before = await next.boundingBox();
    await tap(/: Good$/);
    await page.getByRole('combobox', { name: 'Shot' }).getByText('done').waitFor();
    expect(await next.boundingBox()).toEqual(before);
    await tap('Next shot');
    await tap('Fill the screen');
    await page.getByRole('button', { name: 'Leave full screen' }).waitFor();
    expect(await uncovered(bench, /^Record take/)).toBe(true);
    // Leaving in the middle of a take is asked about, also by the browser's own way back.
    await record(2, async () => {
      await page.evaluate('history.back()');
      await page.getByRole('alertdialog').waitFor();
      await tap('Go on filming');
      await page.getByRole('alertdialog').waitFor({ state: 'detached' });
    });
    await tap(/: Good$/);
    await turn(sideways);
    expect(await uncovered(bench, /^Record take/)).toBe(true);
    await tap('Next shot');
    await record(2);
    await tap(/: Good$/);
    await tap('Leave full screen');
    expect(await uncovered(bench, /^Record take/)).toBe(true);
    expect(await inSight(bench)).toBe(true);
    await turn(phone);
    await tap('Next shot');
    await record(2);
    await tap(/: Good$/);
    await bench.settled();
    const logs = await set.logs();
    expect(logs.map(({ rating }) => rating)).toEqual(['good', 'good', 'good', 'good']);
    expect(new Set(logs.map(({ shot }) => shot)).size).toBe(4);
    expect(logs.every(({ take }) => take !== null)).toBe(true);

    // Takes of two seconds are not taken for whole ones without a word; then the set is struck.
    await page.getByRole('tab', { name: 'Board' }).tap();
    await bench.found('shoot.short');
    await tap('This set may be struck');
    await tap('Strike it all the same');
    await page.getByTestId('struck').waitFor();
    expect(await bench.overflow()).toBe(0);
  });

  test('leaves a take alone that another window films, and says so', async ({ open }) => {
    const set = await FilmSet.open(open);
    await set.choose('/left');
    await set.camera();
    const other = new FilmSet(await set.bench.another());
    await set.page.getByRole('button', { name: /^Record take/ }).click();
    await set.ran(1);
    const told = other.page.getByTestId('elsewhere');
    await told.waitFor();
    expect(await told.innerText()).toMatch(/Take 1 runs in another window/);
    for (const name of [/^Stop take/, 'Remove this take'])
      expect(await other.page.getByRole('button', { name }).count()).toBe(0);
    await other.page.keyboard.press('r');
    await set.ran(2);
    await set.page.getByRole('button', { name: /^Stop take/ }).click();
    await told.waitFor({ state: 'detached' });
    await other.page.getByRole('button', { name: 'Remove this take' }).waitFor();
    expect(await set.logs()).toHaveLength(1);
  });

  test('begins what sounds on the press itself, and ends it with the take', async ({ open }) => {
    const set = await FilmSet.open(open);
    const { page } = set;
    // What was being pressed when a sound was asked for: a browser that waits for a press gives none without.
    await page.evaluate(`{
      const Own = AudioContext;
      globalThis.asked = [];
      globalThis.outs = [];
      globalThis.AudioContext = class extends Own {
        constructor() {
          super();
          outs.push(this);
          asked.push(globalThis.event?.type ?? 'nothing');
        }
      };
    }`);
    const asked = () => page.evaluate<string[]>('asked');
    await set.choose('/left');
    await page.getByRole('button', { name: /^Slate take/ }).tap();
    const begin = page.getByRole('button', { name: /^Begin take/ });
    await begin.waitFor();
    await page.getByRole('button', { name: 'Hold the pose' }).tap();
    await page.getByRole('timer').waitFor();
    expect(await asked()).toEqual(['click']);
    await page.getByRole('button', { name: 'Enough' }).tap();
    await begin.tap();
    await page.waitForFunction(() => document.querySelector('[data-bar]')?.getAttribute('data-bar'));
    expect(await asked()).toEqual(['click', 'click']);
    expect(await page.evaluate('outs[1].state')).toBe('running');
    await page.getByRole('button', { name: /^Stop/ }).tap();
    await page.getByRole('button', { name: /^Slate take/ }).waitFor();
    await expect.poll(() => page.evaluate('outs[1].state')).toBe('closed');
  });
});
