import { describe, expect } from 'vitest';
import { phone } from './support/bench-page';
import { mediaIn, secondsAt } from '@/core/picture/node';
import { demoFilm } from './support/films';
import { storedShot } from './support/rebuild';
import { test } from './support/test';

describe('all takes of a project', () => {
  test('are searched, filtered, put in order by what was measured, and sorted many at once', async ({
    open,
  }) => {
    const bench = await open({ seed: demoFilm(), at: 'station=match' });
    const { page } = bench;
    await page.getByRole('tab', { name: 'All takes' }).click();
    await bench.arrived();
    const names = () =>
      page
        .locator('[data-sheet] [data-take]')
        .evaluateAll((all) => all.map((one) => one.getAttribute('data-take')));
    const count = async () => Number(await page.locator('[data-sheet]').getAttribute('data-sheet'));
    const all = await count();
    await expect.poll(async () => (await names()).length).toBe(all);
    // Planted in the demo: the second left take is bumped, the second right one darker.
    await bench.choose('In which order', 'the camera that moved most first');
    expect((await names())[0]).toBe('Bench left 2');
    await bench.choose('In which order', 'the light that is off most first');
    expect((await names())[0]).toBe('Bench right 2');
    await bench.choose('In which order', 'the longest first');
    expect((await names())[0]).toMatch(/^Bench (left|right) [12]$/);
    await bench.choose('Which takes', 'those with something to put right');
    await expect.poll(names).toEqual(expect.arrayContaining(['Bench left 2', 'Bench right 2']));
    expect(await names()).not.toContain('Bench left 1');
    await bench.choose('Which takes', 'all takes');
    const words = page.getByRole('searchbox', { name: 'Words in a take’s name' });
    await words.fill('2 BENCH');
    await expect.poll(async () => (await names()).sort()).toEqual(['Bench left 2', 'Bench right 2']);
    await bench.choose('What all of these are', 'not used');
    const slots = async () =>
      (await bench.records()).flatMap((one) =>
        one.kind === 'take' && / 2$/.test(one.name) ? [one.slot] : [],
      );
    expect(await slots()).toEqual(['none', 'none']);
    await bench.undo();
    expect((await slots()).sort()).toEqual(['left', 'right']);
    await words.fill('nothing like it');
    await page.getByText('No take is like that.').waitFor();
    await words.fill('');
    await expect.poll(count).toBe(all);
    expect(await bench.audit()).toEqual([]);
    await page.setViewportSize(phone);
    await page.reload();
    await bench.arrived();
    await expect.poll(count).toBe(all);
    expect(await bench.overflow()).toBe(0);
    // A board that is wider than a phone moves within its own frame.
    await words.fill('2 bench');
    await bench.choose('What all of these are', 'right');
    await page.getByRole('tab', { name: 'Pairs' }).click();
    await expect.poll(() => page.locator('[data-pair]').count()).toBeGreaterThanOrEqual(3);
    expect(await bench.overflow()).toBe(0);
  });

  test('are ranked in pairs by what counts, which is said, changed, and kept', async ({ open }) => {
    const bench = await open({ seed: demoFilm(), keep: ['proxies'], at: 'station=match' });
    const { page } = bench;
    const said = async (pair: string) =>
      (await page.locator(`[data-pair="${pair}"]`).getAttribute('title')) ?? '';
    const score = async (pair: string) => Number(/: (\d+) of 100/.exec(await said(pair))?.[1] ?? NaN);
    const [good, moved, dark] = [
      'Bench left 1 with Bench right 1',
      'Bench left 2 with Bench right 1',
      'Bench left 1 with Bench right 2',
    ];
    await expect
      .poll(() => said(good))
      .toMatch(/of 100; camera \d+, light \d+, join \d+, apart \d+, near \d+/);
    const before = [await score(good), await score(moved), await score(dark)];
    expect(before[0]).toBeGreaterThan(Math.max(before[1], before[2]));
    // Both come in from the side and then stand: a press on the curve shows the pair at that second.
    await expect
      .poll(() => page.locator('[data-still="Bench left 1"]').textContent())
      .toMatch(
        /^Bench left 1 stands still from .* It (starts to move|comes to rest) at [\d.]+ s \((on|\d+ ms (before|after)) bar \d+, beat/,
      );
    await bench.choose('How much it counts: A camera that stands', 'not at all');
    await expect.poll(() => score(moved)).toBeGreaterThan(before[1] + 5);
    await bench.choose('How much it counts: the same light', 'more than all else');
    await expect.poll(() => score(dark)).toBeLessThan(before[2] - 5);
    await page.reload();
    await bench.arrived();
    await expect.poll(() => score(dark)).toBeLessThan(before[2] - 5);
    await bench.undo(2);
    await expect.poll(async () => [await score(good), await score(moved), await score(dark)]).toEqual(before);
    // Where it is best a little later, it is used so on a press: the first shows so much further than the second.
    await bench.choose('How much it counts: coming near each other', 'more than all else');
    const shifted = page.locator('[data-pair][title*="best"]');
    await expect.poll(() => shifted.count()).toBeGreaterThan(0);
    const title = (await shifted.first().getAttribute('title')) ?? '';
    console.info(title);
    const [, seconds, way] = /best ([\d.]+) s (later|earlier)/.exec(title) ?? [];
    await shifted.first().click();
    const use = page.getByRole('button', { name: /^Use it with/ });
    expect(await use.textContent()).toContain(`${seconds} s ${way}`);
    await use.click();
    await bench.arrived();
    await bench.settled();
    const { tree, end } = await storedShot(bench);
    const [left, right] = ['left', 'right'].map((slot) => {
      const node = mediaIn(tree).find(({ id }) => id === slot);
      return node ? secondsAt(node, end - 1) : NaN;
    });
    const further = left - right;
    expect(further).toBeCloseTo(way === 'later' ? Number(seconds) : -Number(seconds), 1);
  });
});
