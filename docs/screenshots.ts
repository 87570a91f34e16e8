/** Takes the pictures in docs/screenshots from the demo project: `npm run screenshots` after a build. */
import 'fake-indexeddb/auto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { BenchPage, desktop, phone } from '../e2e/support/bench-page';
import { openBrowser } from '../e2e/support/browser';
import { filmStance } from '../e2e/support/figure/film-stance';
import { reaching, standing, standingAt } from '../e2e/support/figure/stance';
import { FilmSet } from '../e2e/support/film-set';
import { startServer } from '../e2e/support/server';

const server = await startServer();
const browser = await openBrowser();
const bench = await BenchPage.open(browser, server.url, { offline: true });
const { page } = bench;
const shoot = async (name: string, of: Page = page) => {
  await of.mouse.move(2, 400);
  await of.evaluate('document.activeElement?.blur()');
  await of.waitForTimeout(2000);
  await of.locator('[data-sonner-toast]').first().waitFor({ state: 'detached' });
  await of.screenshot({ path: `docs/screenshots/${name}.png` });
};

await page.locator('[data-moment]').first().waitFor({ timeout: 120_000 });
await bench.settled();
await page.locator('[data-ribbon]').first().focus();
for (let beat = 0; beat < 42; beat++) await page.keyboard.press('ArrowRight');
await shoot('song');
await bench.go('Plan');
for (const [part, name] of [
  ['Moments', 'plan-moments'],
  ['Room', 'plan-room'],
  ['Order', 'plan-order'],
] as const) {
  await page.getByRole('tab', { name: part, exact: true }).click();
  await shoot(name);
}
await bench.go('Match');
await shoot('match');
await page.getByRole('tab', { name: 'Cuts' }).click();
await bench.choose('In which parts of them', 'where both move more than usual');
await bench.press('Find the frames');
await page.locator('[data-motion]:not([data-motion="0"])').waitFor();
await shoot('match-cuts');
await page.getByRole('tab', { name: 'Pairs' }).click();
await bench.go('Build');
await page.getByRole('button', { name: 'To the landing' }).click();
for (let frame = 0; frame < 70; frame++) await page.keyboard.press('.');
await page.getByRole('button', { name: 'Join', exact: true }).click();
await shoot('build');
await page.getByRole('button', { name: 'Joined', exact: true }).click();

/** A moment of the demo, so many frames after its landing. */
const show = async (moment: string, later: number) => {
  await bench.choose('Moment', moment);
  await page.getByRole('button', { name: 'To the landing' }).click();
  for (let frame = 0; frame < Math.abs(later); frame++) await page.keyboard.press(later < 0 ? ',' : '.');
};
await show('Four hands', 0);
await bench.press('Keys by hand');
await bench.choose('What of it changes', 'size');
await bench.press('Set a key here');
for (let frame = 0; frame < 12; frame++) await page.keyboard.press('.');
await bench.press('Set a key here');
await bench.type('Value of the key', '125');
await bench.settled();
await shoot('build-split');
await bench.press('Keys by hand');
await bench.undo(3);
await show('Wheel pose', -4);
await shoot('build-freeze');
await show('Gone and back', -42);
await page.keyboard.press('n');
await shoot('build-night');
await page.keyboard.press('n');
await bench.choose('Moment', 'Meets a copy');
await bench.go('Hand over');
await page.getByRole('button', { name: 'Render the shot' }).click();
await page.locator('[data-render=done]').waitFor({ timeout: 400_000 });
await shoot('deliver');

await page.setViewportSize(phone);
for (const [station, name] of [
  ['Song', 'song-phone'],
  ['Build', 'build-phone'],
] as const) {
  await bench.go(station);
  if (station === 'Build') await show('Powder falls', 12);
  await shoot(name);
}

// A few takes of the demo's first setup, in front of the practice camera, at night.
const set = new FilmSet(bench);
await page.keyboard.press('n');
await bench.go('Shoot');
await set.choose('/first plate');
await set.camera();
await set.record(3);
await set.rate('Good');
await set.told('fine');
await set.choose('/left');
await set.camera();
await set.record(1.5, async () => {
  await set.fault('A little bump');
  await set.told('watch.moved');
});
await set.rate('No');
await set.fault('A little bump');
await set.told('fine');
await set.record(3);
await set.rate('Good');
await set.choose('/right');
await set.camera();
await set.record(3);
await set.rate('Good');
await page.getByRole('button', { name: 'Over the seam', exact: true }).click();
await set.told('watch.crossing');
const top = () => page.getByLabel('Viewfinder').evaluate((video) => video.scrollIntoView());
await top();
await shoot('shoot-camera-phone');
await set.fault('Over the seam');
await set.choose('/right');
await shoot('shoot-phone');
await page.getByRole('button', { name: /^Slate take/ }).click();
await page.getByRole('button', { name: /^Begin take/ }).waitFor();
await shoot('shoot-slate-phone');
await page.getByRole('button', { name: 'Back', exact: true }).click();
await set.part('Practice');
await page.getByRole('button', { name: 'Begin a round' }).click();
for (let found = false; !found;) {
  await page.getByRole('button', { name: 'Film it again' }).click({ timeout: 60_000 });
  found = (await page.locator('[data-step=told] [data-finding]').count()) > 0;
  if (!found) await page.getByRole('button', { name: /Next take|How it went/ }).click();
}
await shoot('shoot-practice-phone');
await page.setViewportSize(desktop);
await page.keyboard.press('n');
await set.choose('/left');
await shoot('shoot');
await bench.close();
await browser.close();

// A modelled figure stands before a camera of the demo's set, a little otherwise than in an earlier take.
const place = mkdtempSync(join(tmpdir(), 'screenshots-'));
const [earlier, now] = [join(place, 'right-take-three.mp4'), join(place, 'camera.mjpeg')];
const how = {
  plate: 'public/demo/bench-plate-start.mp4',
  camera: { at: [0, 1.1, 4.6], tall: 1.9 },
  size: { width: 1280, height: 720 },
  seconds: 4,
} as const;
filmStance(earlier, standingAt(reaching, [-0.5, 0, 0]), how, '-c:v', 'libx264', '-crf', '16');
const lower = { ...standing, elbowRight: [0.4, 1.3, 0.05], wristRight: [0.6, 1.22, 0.12] } as const;
filmStance(now, standingAt(lower, [-0.36, 0, 0]), how, '-c:v', 'mjpeg', '-q:v', '2');
const filming = await openBrowser(
  '--use-fake-device-for-media-stream',
  '--use-fake-ui-for-media-stream',
  `--use-file-for-fake-video-capture=${now}`,
);
const posed = await FilmSet.open((opening) => BenchPage.open(filming, server.url, opening));
await posed.bench.bringIn(earlier);
await posed.bench.settled();
await posed.choose('/right');
await posed.part('Camera');
await posed.page.getByRole('button', { name: 'Open the camera' }).click();
await posed.page.getByRole('button', { name: 'Stand as before' }).click();
await posed.bench.choose('Earlier picture', 'Right take three');
await posed.page.getByTestId('pose-words').filter({ hasText: /cm/ }).waitFor();
await posed.page.setViewportSize({ width: phone.height, height: phone.width });
await posed.page.getByRole('button', { name: 'Leave full screen' }).waitFor();
await posed.page.getByTestId('pose-words').filter({ hasText: /cm/ }).waitFor();
await shoot('shoot-pose-wide', posed.page);
await posed.bench.close();
await filming.close();
rmSync(place, { recursive: true });
await server.stop();
