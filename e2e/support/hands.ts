import type { Locator } from 'playwright-core';
import type { BenchPage } from './bench-page';

/** Somebody who works with one kind of thing alone: keys, or a finger. */
export type Hands = {
  /** presses a button, a tab, an option or a link */
  press: (what: Locator) => Promise<void>;
  /** writes into a quantity of a sentence */
  write: (what: Locator, text: string) => Promise<void>;
};

/** More stops than a page has. */
const stops = 160;

/** Tab alone leads to it, or to something in it. */
async function tabTo({ page }: BenchPage, what: Locator): Promise<void> {
  await what.waitFor();
  const there = () => what.evaluate((element) => element.contains(document.activeElement));
  for (let stop = 0; stop < stops; stop++) {
    if (await there()) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab does not lead to ${what.toString()}.`);
}

/** A choice among several has one stop: arrows go on from there. */
async function arrowTo({ page }: BenchPage, what: Locator): Promise<void> {
  const there = () => what.evaluate((element) => element === document.activeElement);
  for (let step = 0; step < 12 && !(await there()); step++) await page.keyboard.press('ArrowRight');
}

export const keysOf = (bench: BenchPage): Hands => ({
  press: async (what) => {
    const among = what.locator('xpath=ancestor::*[@role="group" or @role="tablist"][1]');
    const roving = (await what.getAttribute('tabindex')) === '-1';
    if (roving) {
      await tabTo(bench, among);
      await arrowTo(bench, what);
    } else await tabTo(bench, what);
    await bench.page.keyboard.press('Enter');
  },
  write: async (what, text) => {
    await tabTo(bench, what);
    await bench.page.keyboard.press('Enter');
    await bench.page.keyboard.type(text);
    await bench.page.keyboard.press('Enter');
  },
});

/** A finger's target on the glass, in CSS pixels. @see WCAG 2.2, 2.5.5 */
const fingertip = 44;

export const fingerOf = (bench: BenchPage): Hands => ({
  press: async (what) => {
    await what.scrollIntoViewIfNeeded();
    const box = await what.boundingBox();
    if (!box || Math.max(box.width, box.height) < fingertip || box.height < fingertip - 0.5)
      throw new Error(`${what.toString()} is ${box?.width} × ${box?.height} pixels.`);
    await what.tap();
  },
  write: async (what, text) => {
    await what.scrollIntoViewIfNeeded();
    await what.tap();
    // The keyboard on the glass ends with its own Done.
    await bench.page.keyboard.type(text);
    await bench.page.keyboard.press('Enter');
  },
});
