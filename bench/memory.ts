/** Memory that a take of ten minutes in 1920 × 1080 costs above an idle page, from bringing it in to its last measure: `npm run bench:memory`. */
import 'fake-indexeddb/auto';
import { existsSync, mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { setTimeout as sleep } from 'node:timers/promises';
import { BenchPage } from '../e2e/support/bench-page';
import { openBrowser } from '../e2e/support/browser';
import { ffmpeg } from '../e2e/support/ffmpeg';
import { seeded } from '../e2e/support/seeds';
import { startServer } from '../e2e/support/server';

/** megabytes */
const most = 700;
const file = '.cache/ten-minutes.mp4';

/** Films ten minutes of a test picture in which something always moves. */
function film(): void {
  if (existsSync(file)) return;
  mkdirSync('.cache', { recursive: true });
  ffmpeg(
    ...['-f', 'lavfi', '-i', 'testsrc2=size=1920x1080:rate=24000/1001:duration=600'],
    ...['-c:v', 'libx264', '-preset', 'ultrafast', '-g', '48', '-pix_fmt', 'yuv420p', file],
  );
}

/** Megabytes of all processes of a command, each page that several share counted in parts (proportional set size). */
function heldBy(command: string): number {
  let kilobytes = 0;
  for (const process of readdirSync('/proc').filter((name) => /^\d+$/.test(name)))
    try {
      if (!readFileSync(`/proc/${process}/cmdline`, 'utf8').includes(command)) continue;
      const told = readFileSync(`/proc/${process}/smaps_rollup`, 'utf8');
      kilobytes += Number(/^Pss:\s+(\d+)/m.exec(told)?.[1] ?? 0);
    } catch {
      // It ended meanwhile.
    }
  return kilobytes / 1024;
}

film();
const server = await startServer();
const browser = await openBrowser();
const bench = await BenchPage.open(browser, server.url, {
  seed: await seeded(),
  at: 'station=match',
});
await bench.settled();
await sleep(3000);
const idle = heldBy('chromium');
let [peak, over] = [idle, false];
const watching = (async () => {
  while (!over) {
    peak = Math.max(peak, heldBy('chromium'));
    await sleep(300);
  }
})();
const began = performance.now();
await bench.bringIn(file);
await bench.page
  .getByText(/Bringing in|Measuring/)
  .first()
  .waitFor();
await bench.page.locator('[data-bench=settled]').waitFor({ timeout: 3_600_000 });
const seconds = (performance.now() - began) / 1000;
over = true;
await watching;
const above = peak - idle;
console.info(
  `An idle page holds ${idle.toFixed(0)} MB; at most ${above.toFixed(0)} MB more while ten minutes are brought in and measured, in ${seconds.toFixed(0)} s (${most} MB are allowed).`,
);
await bench.close();
await browser.close();
await server.stop();
if (above > most) process.exitCode = 1;
