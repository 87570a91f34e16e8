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
import { newRecord } from '@/store/commands/projects';
import type { Store } from '@/store/db';
import { songKey } from '@/store/snapshot';

const wanted = 0.9;
const seconds = 900;
const bpm = 120;
const steps = 90;

/** Puts a long song with its measure and moments into the store, as the bench itself would have kept them. */
/** Two hundred moments on a song of fifteen minutes, measured. */
async function fill(store: Store, project: string): Promise<void> {
  const beats = Array.from({ length: (seconds * bpm) / 60 }, (_, index) => (index * 60) / bpm);
  const song = {
    ...newRecord(project),
    kind: 'song' as const,
    media: 'long',
    confidence: 1,
    grid: { beats, beatsPerBar: 4, firstDownbeat: 0 },
  };
  const moments = Array.from({ length: 200 }, (_, index) =>
    newMoment(project, 'clone', index * 8, index * 8 + 6, `Moment ${index}`),
  );
  await change(
    store,
    project,
    'Long',
    [song, ...moments].map((create) => ({ create })),
  );
  await store.media.add({
    id: 'long',
    project,
    name: 'long.wav',
    type: 'audio/wav',
    size: 1,
    fingerprint: 'long',
    place: 'blob',
    probe: null,
    problem: null,
    created: 0,
  });
  await store.measures.put({
    key: songKey('long'),
    project,
    subject: 'long',
    value: {
      method: 'song-2',
      song: {
        duration: seconds,
        perSecond: 80,
        peaks: Float32Array.from({ length: seconds * 80 }, (_, at) => Math.abs(Math.sin(at / 7))),
        silent: false,
        levels: new Float32Array(seconds * 10),
        sections: [],
      },
      beats: {
        beats,
        downbeats: [],
        beatsPerBar: 4,
        bpm,
        confidence: 1,
        hits: beats.map((time, at) => ({ time, strength: at % 4 ? 0.6 : 1, band: 'low' as const })),
      },
    },
  });
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
