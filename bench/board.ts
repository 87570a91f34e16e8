/**
 * What the pair board costs the page with 150 takes of each role: how long no picture is drawn while it opens, while
 * it is ranked anew and while it is scrolled, and how long ranking takes beside it: `npm run bench:board` after a build.
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
/** milliseconds without a picture: a tenth of a second is felt as at once. @see Nielsen, Usability Engineering (1993), section 5.5 */
const most = 100;

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
/** Longest time between two pictures of the page while something is done, in milliseconds. */
async function longestGap(act: () => Promise<void>): Promise<number> {
  await page.evaluate(watch);
  await act();
  return page.evaluate(
    '(() => { const most = Math.max(...window.gaps); window.gaps = null; return most; })()',
  );
}
const crossings = page.locator('[data-pair]');
const opens = await longestGap(async () => {
  await bench.go('Match');
  await crossings.first().waitFor();
  await bench.settled();
});
const begun = performance.now();
let ranked = 0;
const weighs = await longestGap(async () => {
  await bench.choose('How much it counts: coming near each other', 'much');
  await bench.settled();
  ranked = performance.now() - begun;
});
const scrolls = await longestGap(async () => {
  await crossings.first().hover();
  for (const by of [400, -400])
    for (let step = 0; step < 30; step++) {
      await page.mouse.wheel(0, by);
      await page.waitForTimeout(30);
    }
});
let failed = 0;
for (const [what, value, allowed] of [
  ['while it opens', opens, Infinity],
  ['while it is ranked anew', weighs, most],
  ['while it is scrolled', scrolls, most],
] as const) {
  if (value > allowed) failed++;
  console.log(
    `${value <= allowed ? 'ok ' : 'NOT'} ${each} × ${each} takes, longest time without a picture ${what}: ${value.toFixed(0)} ms` +
      (Number.isFinite(allowed) ? ` (allowed ${allowed})` : ''),
  );
}
console.log(`From the choice to the new order: ${ranked.toFixed(0)} ms, beside the page.`);
await browser.close();
await server.stop();
process.exit(failed > 0 ? 1 : 0);
