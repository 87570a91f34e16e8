/** Memory that a take of ten minutes in 1920 × 1080 costs above an idle page, from bringing it in to its last measure and to somebody cut out of ten seconds of it: `npm run bench:memory`, or `MINUTES=1 npm run bench:memory` for what is done to seconds of it alone. */
import 'fake-indexeddb/auto';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { BenchPage } from '../e2e/support/bench-page';
import { openProfile } from '../e2e/support/browser';
import { ffmpeg } from '../e2e/support/ffmpeg';
import { portrait } from '../e2e/support/photographs';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { laySeconds } from '@/store/commands/song';
import { seeded } from '../e2e/support/seeds';
import { startServer } from '../e2e/support/server';

/** megabytes */
const most = 700;
/** of the take */
const minutes = Number(process.env.MINUTES ?? 10);
const name = `${minutes === 10 ? 'ten' : minutes} minutes of somebody`;
const file = `.cache/${name.replaceAll(' ', '-')}.mp4`;

/** Films minutes of a test picture in which something always moves, before which somebody goes to and fro. */
function film(): void {
  if (existsSync(file)) return;
  mkdirSync('.cache', { recursive: true });
  ffmpeg(
    ...['-f', 'lavfi', '-i', `testsrc2=size=1920x1080:rate=24000/1001:duration=${60 * minutes}`],
    ...['-loop', '1', '-framerate', '24000/1001', '-i', portrait()],
    ...['-filter_complex', "[1]scale=800:800[one];[0][one]overlay=x='500+400*sin(t)':y=280:shortest=1"],
    ...['-c:v', 'libx264', '-preset', 'ultrafast', '-g', '48', '-pix_fmt', 'yuv420p', file],
  );
}

/** The kernel's answer about a process, or nothing where it ended meanwhile. */
function told(process: string, file: string): string {
  try {
    return readFileSync(`/proc/${process}/${file}`, 'utf8');
  } catch {
    return '';
  }
}

/** This process's children, their children and so on. */
function descendants(): string[] {
  const all = readdirSync('/proc').filter((name) => /^\d+$/.test(name));
  const parentOf = new Map(all.map((one) => [one, /^PPid:\s+(\d+)/m.exec(told(one, 'status'))?.[1]]));
  const found = [String(process.pid)];
  for (const parent of found) found.push(...all.filter((one) => parentOf.get(one) === parent));
  return found.slice(1);
}

/** Megabytes of the browser that runs here, each page that several of its processes share counted in parts (proportional set size). */
function held(): number {
  const kilobytes = descendants()
    .filter((one) => told(one, 'cmdline').includes('chromium'))
    .map((one) => Number(/^Pss:\s+(\d+)/m.exec(told(one, 'smaps_rollup'))?.[1] ?? 0));
  return kilobytes.reduce((sum, one) => sum + one, 0) / 1024;
}

film();
const server = await startServer();
const profile = mkdtempSync(join(tmpdir(), 'ribbon-memory-'));
const browser = await openProfile(profile);
const bench = await BenchPage.openIn(browser, server.url, {
  seed: await seeded(async (store, project) => {
    await laySeconds(store, project);
    const id = await addMoment(store, project, 'ghost-trail', 1, 11);
    await setMoment(store, project, id, 'Place', { name: 'The trail', lands: 9 });
  }),
  at: 'station=match',
});
await bench.settled();
await sleep(3000);
const idle = held();
let [peak, over] = [idle, false];
const watching = (async () => {
  while (!over) {
    peak = Math.max(peak, held());
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
const measured = peak - idle;
console.info(
  `An idle page holds ${idle.toFixed(0)} MB; at most ${measured.toFixed(0)} MB more while ${minutes} minutes are brought in and measured, in ${seconds.toFixed(0)} s.`,
);
peak = idle;
await bench.go('Build');
await bench.choose('Take for the take of the movement', name);
await bench.page.locator('[data-bench=settled]').waitFor({ timeout: 3_600_000 });
const cutSeconds = (performance.now() - began) / 1000 - seconds;
over = true;
await watching;
const cut = peak - idle;
const above = Math.max(measured, cut);
console.info(
  `At most ${cut.toFixed(0)} MB more while somebody is cut out of ten seconds of them, in ${cutSeconds.toFixed(0)} s (${most} MB are allowed).`,
);
await browser.close();
rmSync(profile, { recursive: true });
await server.stop();
if (above > most) process.exitCode = 1;
