/**
 * What the pair board costs the page with 150 takes of each role: how smoothly it is scrolled, how long no picture is
 * drawn while it opens and while it is ranked anew, and how long ranking takes beside it: `npm run bench:board` after a build.
 */
import 'fake-indexeddb/auto';
import type { Take } from '@/core/model/records';
import { plateSlot } from '@/core/model/slots';
import { seeded as randomOf } from '@/core/random';
import { change } from '@/store/change';
import { newRecord } from '@/store/commands/projects';
import type { Store } from '@/store/db';
import { BenchPage } from '../e2e/support/bench-page';
import { openBrowser } from '../e2e/support/browser';
import { seeded } from '../e2e/support/seeds';
import { startServer } from '../e2e/support/server';
import { keepMeasured, nobody, walker } from './kept-take';

const each = 150;
/** milliseconds between two pictures within which 19 of 20 come while the board is scrolled: 20 a second. Common practice, no published source */
const most = 50;

/** A plate and takes of two roles in which somebody walks, measured and held against it. */
async function fillBoard(store: Store, project: string): Promise<void> {
  const random = randomOf(5);
  const takes = [
    'plate',
    ...Array.from({ length: 2 * each }, (_, index) => (index % 2 ? 'right' : 'left')),
  ].map((slot, order): Take => ({
    ...newRecord(project),
    kind: 'take',
    media: `media-${order}`,
    name: `${slot} ${Math.ceil(order / 2)}`,
    slot,
    order,
    steady: false,
    match: false,
  }));
  for (const [index, take] of takes.entries())
    await keepMeasured(
      store,
      take,
      index,
      takes[0].media,
      take.slot === plateSlot ? nobody : walker(random(), random()),
    );
  await change(
    store,
    project,
    'Filmed',
    takes.map((create) => ({ create })),
  );
}

const server = await startServer();
const browser = await openBrowser();
const bench = await BenchPage.open(browser, server.url, {
  seed: await seeded(fillBoard),
  at: 'station=plan',
});
const { page } = bench;
/** Says to the page to note how far apart its pictures come; in words, since what runs this would name the function within. */
const watch = `
  window.gaps = [];
  let last = performance.now();
  requestAnimationFrame(function next() {
    const now = performance.now();
    window.gaps?.push(now - last);
    last = now;
    if (window.gaps) requestAnimationFrame(next);
  });`;
/** Times between two pictures of the page while something is done, in milliseconds, rising. */
async function gapsDuring(act: () => Promise<void>): Promise<number[]> {
  await page.evaluate(watch);
  await act();
  const gaps = await page.evaluate(
    '(() => { const gaps = window.gaps; window.gaps = null; return gaps; })()',
  );
  return (gaps as number[]).sort((one, other) => one - other);
}
const crossings = page.locator('[data-pair]');
const opens = await gapsDuring(async () => {
  await bench.go('Match');
  await crossings.first().waitFor();
  await bench.settled();
});
const begun = performance.now();
let ranked = 0;
const weighs = await gapsDuring(async () => {
  await bench.choose('How much it counts: coming near each other', 'much');
  await bench.settled();
  ranked = performance.now() - begun;
});
const scrolls = await gapsDuring(async () => {
  await crossings.first().hover();
  // A notch of a wheel.
  for (const by of [100, -100])
    for (let step = 0; step < 60; step++) {
      await page.mouse.wheel(0, by);
      await page.waitForTimeout(30);
    }
});
for (const [what, gaps] of [
  ['while it opens', opens],
  ['while it is ranked anew', weighs],
] as const)
  console.log(
    `${each} × ${each} takes, longest time without a picture ${what}: ${gaps.at(-1)?.toFixed(0)} ms`,
  );
console.log(`From the choice to the new order: ${ranked.toFixed(0)} ms, beside the page.`);
const usual = scrolls[Math.floor(0.95 * scrolls.length)];
console.log(
  `${usual <= most ? 'ok ' : 'NOT'} While it is scrolled 19 of 20 pictures come within ${usual.toFixed(0)} ms (allowed ${most}), all within ${scrolls.at(-1)?.toFixed(0)} ms`,
);
await browser.close();
await server.stop();
process.exit(usual <= most ? 0 : 1);
