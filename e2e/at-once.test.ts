import { describe, expect } from 'vitest';
import { FilmSet } from './support/film-set';
import { demoFilm } from './support/films';
import { test } from './support/test';

describe('what is done shows at once', () => {
  test('notes are kept while they are typed, and what is undone shows', async ({ open }) => {
    const set = await FilmSet.open(open);
    const { page, bench } = set;
    await set.slate(1);
    const notes = page.getByLabel('Notes');
    await notes.fill('the lamp flickered');
    const kept = async () => (await set.logs())[0].notes;
    await expect.poll(kept).toBe('the lamp flickered');
    expect(await notes.evaluate((field) => field === document.activeElement)).toBe(true);
    await bench.press('Undo (Ctrl+Z)');
    await expect.poll(() => notes.inputValue()).toBe('');
    await bench.press('Redo (Ctrl+Y)');
    await expect.poll(() => notes.inputValue()).toBe('the lamp flickered');
    await notes.fill('');
    await expect.poll(kept).toBe('');
  });

  test('the pair is used and the shot is rendered by keys, and both are in the list', async ({ open }) => {
    const bench = await open({ seed: demoFilm(), at: 'station=match' });
    const { page } = bench;
    await page.keyboard.press('Control+k');
    await page.getByRole('option', { name: 'Use Bench left 1 with Bench right 1' }).waitFor();
    await page.keyboard.press('Escape');
    await page.getByRole('dialog').waitFor({ state: 'detached' });
    await page.keyboard.press('u');
    await page.getByTestId('sentence').waitFor();
    await bench.go('Hand over');
    await page.keyboard.press('Control+k');
    await page.getByRole('option', { name: 'Render the shot' }).click();
    await page.locator('[data-render]').first().waitFor();
    // Readers hear what is begun, and no seconds that count.
    const status = page.locator('p[role=status].sr-only');
    await expect.poll(() => status.allInnerTexts().then((all) => all.join())).toMatch(/[Rr]ender/);
    expect((await status.allInnerTexts()).join()).not.toMatch(/left|\d s/);
  });
});
