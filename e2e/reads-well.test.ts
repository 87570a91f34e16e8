import { describe, expect } from 'vitest';
import { desktop, phone, type BenchPage, type Station } from './support/bench-page';
import { demoFilm } from './support/films';
import { test } from './support/test';

const sideways = { width: 844, height: 390 };
/** A desktop at 200 %. */
const enlarged = { width: 640, height: 400 };

/** Everything that a person can come to, and what leads there. */
async function* places(bench: BenchPage): AsyncGenerator<string> {
  const { page } = bench;
  const parts = async function* (station: Station, names: readonly string[]) {
    await bench.go(station);
    for (const name of names) {
      await page.getByRole('tab', { name, exact: true }).click();
      await bench.arrived();
      yield `${station}, ${name}`;
    }
  };
  await bench.go('Song');
  yield 'Song';
  await bench.press('Beats and frames');
  await page.locator('[data-chart] svg').first().waitFor();
  yield 'Song, beats and frames';
  await bench.press('Beats and frames');
  yield* parts('Plan', ['Moments', 'Room', 'Numbers', 'Order', 'Take along']);
  yield* parts('Shoot', ['Board', 'Camera', 'Practice', 'Carry']);
  for (const station of ['Match', 'Build', 'Hand over'] as const) {
    await bench.go(station);
    yield station;
  }
}

/** What reaches over the side of the screen, and is not in something that scrolls by itself. */
const overTheSide = `(() => {
  const scrolls = (element) => {
    for (let up = element.parentElement; up && up !== document.body; up = up.parentElement)
      if (getComputedStyle(up).overflowX !== 'visible') return true;
    return false;
  };
  const over = [...document.querySelectorAll('main *, nav *, header *')].filter((element) => {
    const { right, width } = element.getBoundingClientRect();
    return width > 0 && right > innerWidth + 1 && !scrolls(element);
  });
  return [
    ...(document.documentElement.scrollWidth > innerWidth ? ['the page slides'] : []),
    ...over.map((element) => element.outerHTML.slice(0, 120)),
  ];
})()`;

/** What a finger is to meet and is smaller than one: 44 CSS pixels. @see WCAG 2.2, 2.5.5 */
const tooSmall = `[...document.querySelectorAll(
  'main :is(button, a, summary, input, textarea, [role=combobox], [role=spinbutton], [role=tab]), nav button')]
  .filter((element) => element.checkVisibility() && !element.closest('svg') && element.type !== 'file')
  .map((element) => [(element.closest('label') ?? element).getBoundingClientRect().height, element.outerHTML.slice(0, 140)])
  .filter(([height]) => height > 0 && height < 43.5)`;

describe('every station and part of it', () => {
  for (const [name, size] of Object.entries({ desktop, phone, sideways, enlarged })) {
    const touched = name === 'phone' || name === 'sideways';
    test(`keeps to the screen, ${name}, and is free of what axe-core finds, day and night`, async ({
      open,
    }) => {
      const bench = await open({ seed: demoFilm(), size, touch: touched, at: 'station=song' });
      const found: Record<string, unknown> = {};
      const note = (place: string, what: unknown[]) => {
        if (what.length > 0) found[place] = what;
      };
      for (const theme of ['day', 'night']) {
        for await (const place of places(bench)) {
          note(`${place}, ${theme}: axe`, await bench.audit());
          note(`${place}: over the side`, (await bench.page.evaluate(overTheSide)) as string[]);
          if (touched) note(`${place}: small`, (await bench.page.evaluate(tooSmall)) as string[]);
        }
        await bench.page.getByRole('button', { name: 'Day or night (N)' }).click();
      }
      expect(found).toEqual({});
    });
  }

  test('moves nothing by itself where less motion is asked for', async ({ open }) => {
    const bench = await open({ seed: demoFilm(), at: 'station=song' });
    await bench.page.emulateMedia({ reducedMotion: 'reduce' });
    for await (const place of places(bench))
      expect(await bench.page.evaluate('document.getAnimations().length'), place).toBe(0);
  });
});

describe('every dialog', () => {
  test('is free of what axe-core finds, day and night', async ({ open }) => {
    const bench = await open({ seed: demoFilm(), at: 'station=song' });
    const { page } = bench;
    const fronts = '[role=dialog], [role=alertdialog], [role=menu], [role=listbox]';
    const dialog = page.locator(fronts).first();
    const looked = async (name: string) => {
      await dialog.waitFor();
      expect(await bench.audit(`document.querySelector('${fronts}')`), name).toEqual([]);
      await page.keyboard.press('Escape');
      await dialog.waitFor({ state: 'detached' });
    };
    for (const theme of ['day', 'night']) {
      await bench.go('Song');
      await page.keyboard.press('Control+k');
      await looked(`actions, ${theme}`);
      const menu = page.locator('button[aria-haspopup=menu]').first();
      await menu.click();
      await looked(`projects, ${theme}`);
      for (const item of ['Remove this project …', 'Removed projects …']) {
        await menu.click();
        await page.getByRole('menuitem', { name: item }).click();
        await page.getByRole('menu').waitFor({ state: 'detached' });
        await looked(`${item}, ${theme}`);
      }
      await bench.press('Remove');
      await looked(`a moment, ${theme}`);
      await page.getByRole('combobox', { name: /^Kind of/ }).click();
      await looked(`kinds, ${theme}`);
      await bench.go('Hand over');
      await page.getByRole('button', { name: /^Masks: what it means/ }).click();
      await looked(`a trade word, ${theme}`);
      await bench.go('Shoot');
      await page.getByRole('button', { name: /^Slate take/ }).click();
      await looked(`slate, ${theme}`);
      await page.keyboard.press('n');
    }
  });

  test('and every printed sheet', async ({ open }) => {
    for (const at of ['station=sheet', 'station=papers&part=call', 'station=papers&part=shots']) {
      const bench = await open({ seed: demoFilm(), at });
      expect(await bench.audit(), at).toEqual([]);
    }
  });
});
