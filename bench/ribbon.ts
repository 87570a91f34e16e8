/**
 * Frames a second while a moment is dragged on the ribbon of a 15-minute song with 200 moments, as a share of what an
 * empty page reaches in the same run: `npm run bench:ribbon` after a build.
 */
import 'fake-indexeddb/auto';
import { BenchPage } from '../e2e/support/bench-page';
import { openBrowser } from '../e2e/support/browser';
import { seeded } from '../e2e/support/seeds';
import { startServer } from '../e2e/support/server';
import { change } from '@/store/change';
import { newMoment } from '@/store/commands/moments';
import type { Store } from '@/store/db';
import { layLongSong } from './long-song';

const wanted = 0.9;
const seconds = 900;
const steps = 90;

/** Two hundred moments on a song of fifteen minutes, measured. */
async function fill(store: Store, project: string): Promise<void> {
  const song = await layLongSong(store, project, seconds);
  const moments = Array.from({ length: 200 }, (_, index) =>
    newMoment(project, 'clone', index * 8, index * 8 + 6, `Moment ${index}`),
  );
  await change(
    store,
    project,
    'Long',
    [song, ...moments].map((create) => ({ create })),
  );
}

/** Frames that the page draws while the pointer moves ${steps} times, a move a frame. */
const counting = `(() => {
  let frames = 0;
  const start = performance.now();
  const tick = () => { frames++; window.ribbonFrames = (1000 * frames) / (performance.now() - start); window.ribbonTimer = requestAnimationFrame(tick); };
  cancelAnimationFrame(window.ribbonTimer);
  window.ribbonTimer = requestAnimationFrame(tick);
})()`;

const server = await startServer();
const browser = await openBrowser();
const bench = await BenchPage.open(browser, server.url, { seed: await seeded(fill), at: 'station=song' });
const { page } = bench;
await bench.settled();
const patch = await page.locator('[data-moment] .patch').nth(3).boundingBox();
if (!patch) throw new Error('The moment is not on the ribbon.');

const measure = async (on: typeof page, x: number, y: number) => {
  await on.mouse.move(x, y);
  await on.mouse.down();
  await on.evaluate(counting);
  for (let step = 1; step <= steps; step++) {
    await on.mouse.move(x + step * 3, y);
    await on.evaluate('new Promise((done) => requestAnimationFrame(() => done()))');
  }
  const rate = Number(await on.evaluate('window.ribbonFrames'));
  await on.mouse.up();
  return rate;
};
const ribbon = await measure(page, patch.x + 20, patch.y + patch.height / 2);
const empty = await bench.context.newPage();
await empty.goto('about:blank');
const blank = await measure(empty, 200, 200);
const share = ribbon / blank;
console.log(
  `ribbon ${ribbon.toFixed(1)}, empty page ${blank.toFixed(1)} frames a second: ${share.toFixed(2)} (wanted ${wanted})`,
);
await browser.close();
await server.stop();
process.exitCode = share >= wanted ? 0 : 1;
