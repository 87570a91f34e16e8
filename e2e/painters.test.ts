import { build } from 'esbuild';
import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openBrowser } from './support/browser';

let browser: Browser;
let page: Page;

beforeAll(async () => {
  const bundle = await build({
    entryPoints: ['e2e/support/painters-page.ts'],
    bundle: true,
    write: false,
    format: 'iife',
    tsconfig: 'tsconfig.json',
  });
  browser = await openBrowser();
  page = await browser.newPage();
  await page.goto('about:blank');
  await page.addScriptTag({ content: bundle.outputFiles[0].text });
});
afterAll(() => browser.close());

const seeds = (from: number, count: number) => Array.from({ length: count }, (_, index) => from + index);
const ask = <Answer>(call: string) => page.evaluate(call) as Promise<Answer>;

describe('the graphics card', () => {
  it('paints everything that a picture can say as the reference painter does', async () => {
    const near = await ask<number[]>(`compare(${JSON.stringify(seeds(1, 60))}, false)`);
    const sorted = near.sort((one, other) => one - other);
    // Dodging by what is nearly white multiplies how the card rounds.
    expect(sorted[0]).toBeGreaterThan(44);
    // A backdrop's light is taken out of planes here, out of colours there: each cuts off elsewhere what is out of range.
    expect(sorted[2]).toBeGreaterThan(50);
  });

  it('paints a stage of half the size as the whole picture shrunk', async () => {
    const near = await ask<number[]>(`compare(${JSON.stringify(seeds(200, 40))}, true)`);
    const sorted = near.sort((one, other) => one - other);
    // Hard edges and grains fall otherwise on fewer pixels.
    expect(sorted[0]).toBeGreaterThan(14);
    expect(sorted[20]).toBeGreaterThan(24);
  });

  it('is opened again where it is lost, and nothing is to be seen of it', async () => {
    const { near, opened } = await ask<{ near: number[]; opened: number }>('afterLoss()');
    expect(Math.min(...near)).toBeGreaterThan(50);
    expect(opened).toBe(2);
  });

  // W3C Compositing and Blending Level 1, as the browser's own canvas has it; both round.
  it('blends as the browser’s own canvas does, and so does the reference painter', async () => {
    for (const { mode, card, reference } of await ask<{ mode: string; card: number; reference: number }[]>(
      'beside()',
    )) {
      expect(reference, mode).toBeLessThanOrEqual(3);
      expect(card, mode).toBeLessThanOrEqual(3);
    }
  });

  // W3C Filter Effects Module Level 1, as the browser's own canvas has it; it rounds between two of them.
  it('turns hues, saturates, brightens and softens as the browser’s own filters do', async () => {
    for (const { filter, card, reference } of await ask<
      { filter: string; card: number; reference: number }[]
    >('filtered()')) {
      expect(reference, filter).toBeGreaterThan(38);
      expect(card, filter).toBeGreaterThan(38);
    }
  });

  it('is measured beside the processor', async () => {
    const trial = await ask<{ name: string; whole: { processor: number }; rest: { card: number } }>(
      'tryPainters()',
    );
    expect(trial.name).toBeTruthy();
    expect(trial.whole.processor).toBeGreaterThan(0);
    expect(trial.rest.card).toBeGreaterThan(0);
  });
});
