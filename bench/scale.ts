/**
 * What a change costs the page's main thread in a project of 300 takes, 80 moments of all kinds, 12 setups and a song
 * of six minutes, beside the same on the demo project; how soon its ribbon shows; and what a take costs on disk:
 * `npm run bench:scale` after a build.
 */
import 'fake-indexeddb/auto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CDPSession } from 'playwright-core';
import { median } from '@/core/statistics';
import { BenchPage } from '../e2e/support/bench-page';
import { openBrowser } from '../e2e/support/browser';
import { demo, ffmpeg } from '../e2e/support/ffmpeg';
import { seeded, taken } from '../e2e/support/seeds';
import { startServer } from '../e2e/support/server';
import { fillScale } from './scale-project';

const most = { milliseconds: 50, opening: 2000, megabytes: 2 };
const rounds = Number(process.env.ROUNDS ?? 30);

/** Milliseconds that the page's main thread was busy until now. */
async function busy(session: CDPSession): Promise<number> {
  const { metrics } = await session.send('Performance.getMetrics');
  return 1000 * (metrics.find(({ name }) => name === 'TaskDuration')?.value ?? NaN);
}

/** A change: what comes before it, which does not count, and the press that makes it. */
type Change = { prepare?: (round: number) => Promise<void>; act: (round: number) => Promise<void> };

/** Busy milliseconds of a change until the page rests, without what it does anyway in that time; the median. */
async function costOf(bench: BenchPage, session: CDPSession, { prepare, act }: Change): Promise<number> {
  const rest = 600;
  const during = async (work: () => Promise<void>) => {
    const before = await busy(session);
    await work();
    await bench.page.waitForTimeout(rest);
    return (await busy(session)) - before;
  };
  const [quiet, costs]: number[][] = [[], []];
  for (let round = 0; round < rounds; round++) {
    await prepare?.(round);
    quiet.push(await during(async () => undefined));
    costs.push(await during(() => act(round)));
  }
  return median(costs) - median(quiet);
}

/** The three changes, each in its own station. */
async function changes(bench: BenchPage): Promise<Record<string, number>> {
  const { page } = bench;
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  const out: Record<string, number> = {};
  await bench.go('Plan');
  await page.getByRole('tab', { name: 'Moments' }).click();
  await bench.settled();
  out.rename = await costOf(bench, session, {
    prepare: async (round) => {
      await page
        .getByRole('button', { name: /^Name of/ })
        .first()
        .click();
      await page.keyboard.type(`Another name ${round}`);
    },
    act: () => page.keyboard.press('Enter'),
  });
  await bench.go('Shoot');
  const rate = page.locator('button.rate').first();
  await rate.waitFor();
  await bench.settled();
  out.rate = await costOf(bench, session, { act: () => rate.click() });
  await bench.go('Song');
  const patch = page.locator('[data-moment]').first();
  await patch.waitFor();
  await bench.settled();
  await patch.focus();
  out.drag = await costOf(bench, session, {
    act: (round) => page.keyboard.press(round % 2 ? 'ArrowLeft' : 'ArrowRight'),
  });
  await session.detach();
  return out;
}

/** Milliseconds from asking for the page until its ribbon is there. */
async function opening(bench: BenchPage, sign: string): Promise<number> {
  const times: number[] = [];
  for (let round = 0; round < 3; round++) {
    const begun = performance.now();
    await bench.page.reload();
    await bench.page.locator(sign).first().waitFor();
    times.push(performance.now() - begun);
  }
  return median(times);
}

/** Bytes of stills and measures that one take of a minute leaves behind, as text of the store. */
async function storedBytes(bench: BenchPage): Promise<number> {
  const path = join(mkdtempSync(join(tmpdir(), 'ribbon-scale-')), 'minute.mp4');
  ffmpeg('-stream_loop', '20', '-i', demo('bench-left-1.mp4'), '-t', '60', '-an', '-c', 'copy', path);
  await bench.bringIn(path);
  await bench.page.locator('[data-bench=working]').waitFor();
  await bench.settled();
  const seed = await taken(bench.page);
  // Three bytes are four letters in this text.
  return ['stills', 'measures', 'curves'].reduce(
    (sum, table) => sum + (seed.tables.includes(table) ? seed.rowsOf(table).length * 0.75 : 0),
    0,
  );
}

const server = await startServer();
const browser = await openBrowser();
const [large, small, empty] = [
  await seeded(fillScale, 'Large'),
  await seeded((store, project) => fillScale(store, project, 0.02), 'Small'),
  await seeded(),
];
const benches = [];
for (const seed of [large, small, empty])
  benches.push(await BenchPage.open(browser, server.url, { seed, keep: ['stills'], at: 'station=song' }));
const [big, little, none] = benches;
const opened = { big: await opening(big, '[data-moment]'), none: await opening(none, '[data-bench]') };
const [costs, beside] = [await changes(big), await changes(little)];
const bytes = await storedBytes(none);
let failed = 0;
const tell = (what: string, value: number, allowed: number, unit: string, note = '') => {
  if (value > allowed) failed++;
  console.log(
    `${value <= allowed ? 'ok ' : 'NOT'} ${what}: ${value.toFixed(1)} ${unit} (allowed ${allowed}${note})`,
  );
};
for (const what of Object.keys(costs))
  tell(
    what,
    costs[what],
    most.milliseconds,
    'ms of the main thread',
    `; a small project ${beside[what].toFixed(1)}`,
  );
tell('ribbon after the empty bench', opened.big - opened.none, most.opening, 'ms');
tell('stills and measures of a take of a minute', bytes / 1e6, most.megabytes, 'MB');
await browser.close();
await server.stop();
process.exit(failed > 0 ? 1 : 0);
