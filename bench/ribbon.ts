/**
 * Frames a second while a moment is dragged on the ribbon of a 15-minute song with 200 moments, as a share of what an
 * empty page reaches in the same run: `npm run bench:ribbon` after a build.
 */
import { BenchPage } from '../e2e/support/bench-page';
import { openBrowser } from '../e2e/support/browser';
import { startServer } from '../e2e/support/server';

const wanted = 0.9;
const seconds = 900;
const bpm = 120;
const steps = 90;

/** Puts a long song with its measure and moments into the store, as the bench itself would have kept them. */
const fill = `(async () => {
  const open = indexedDB.open('fickle-ribbon');
  await new Promise((done) => (open.onsuccess = done));
  const db = open.result;
  const project = new URLSearchParams(location.search).get('project');
  const settings = { plate: null, left: null, right: null, first: 'left', leftIn: 0, rightIn: 0, leftTap: null, rightTap: null, fade: 0, feather: 12, seam: null };
  const base = { project, created: Date.now(), changed: Date.now(), alive: true, stamps: {} };
  const beats = Array.from({ length: ${(seconds * bpm) / 60} }, (_, index) => (index * 60) / ${bpm});
  const put = db.transaction(['records', 'measures', 'media'], 'readwrite');
  put.objectStore('media').put({ id: 'long', project, name: 'long.wav', type: 'audio/wav', size: 1, fingerprint: 'long', place: 'blob', probe: null, problem: null, created: 0 });
  put.objectStore('records').put({ ...base, id: 'song', kind: 'song', media: 'long', confidence: 1, grid: { beats, beatsPerBar: 4, firstDownbeat: 0 } });
  for (let index = 0; index < 200; index++)
    put.objectStore('records').put({ ...base, id: 'moment-' + index, kind: 'moment', recipe: 'clone', name: 'Moment ' + index, start: index * 8, lands: index * 8 + 2, end: index * 8 + 6, settings });
  put.objectStore('measures').put({ key: 'song-2:long', project, subject: 'long', value: { method: 'song-2',
    song: { duration: ${seconds}, perSecond: 80, peaks: Float32Array.from({ length: ${seconds} * 80 }, (_, at) => Math.abs(Math.sin(at / 7))), silent: false, levels: new Float32Array(${seconds} * 10), sections: [] },
    beats: { beats, downbeats: [], beatsPerBar: 4, bpm: ${bpm}, confidence: 1, hits: beats.map((time, at) => ({ time, strength: at % 4 ? 0.6 : 1, band: 'low' })) } } });
  await new Promise((done) => (put.oncomplete = done));
  db.close();
})()`;

/** Frames that the page draws while the pointer moves ${steps} times, a move a frame. */
const counting = `(() => {
  let frames = 0;
  const start = performance.now();
  const tick = () => { frames++; window.ribbonFrames = (1000 * frames) / (performance.now() - start); window.ribbonTimer = requestAnimationFrame(tick); };
  cancelAnimationFrame(window.ribbonTimer);
  window.ribbonTimer = requestAnimationFrame(tick);
})()`;

const server = await startServer(4397);
const browser = await openBrowser();
const bench = await BenchPage.open(browser, server.url);
const { page } = bench;
await bench.ownProject();
await page.evaluate(fill);
await page.reload();
await page.locator('[data-moment="moment-199"]').waitFor({ state: 'attached', timeout: 60_000 });
await bench.settled();
const patch = await page.locator('[data-moment="moment-3"] .patch').first().boundingBox();
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
