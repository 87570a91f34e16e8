/** Takes the pictures in docs/screenshots from the demo project: `npm run screenshots` after a build. */
import type { Page } from 'playwright-core';
import { BenchPage } from '../e2e/support/bench-page';
import { openBrowser } from '../e2e/support/browser';
import { startServer } from '../e2e/support/server';

const server = await startServer(4395);
const browser = await openBrowser();
const bench = await BenchPage.open(browser, server.url);
const { page } = bench;
const desktop = { width: 1280, height: 800 };
const phone = { width: 390, height: 844 };
const shoot = async (name: string, of: Page = page) => {
  await of.mouse.move(2, 400);
  await of.evaluate('document.activeElement?.blur()');
  await of.waitForTimeout(2000);
  await of.screenshot({ path: `docs/screenshots/${name}.png` });
};

await page.locator('[data-moment]').first().waitFor({ timeout: 120_000 });
await bench.settled();
await page.locator('[data-ribbon]').first().focus();
for (let beat = 0; beat < 42; beat++) await page.keyboard.press('ArrowRight');
await shoot('song');
await page.keyboard.press('n');
await page.getByRole('button', { name: 'Look closely' }).click();
await shoot('song-close-night');
await page.getByRole('button', { name: 'Look closely' }).click();
await page.keyboard.press('n');
await page.getByRole('button', { name: 'Beats and frames' }).click();
await shoot('song-frames');
await page.getByRole('button', { name: 'Beats and frames' }).click();
await bench.go('Plan');
for (const [part, name] of [
  ['Moments', 'plan-moments'],
  ['Room', 'plan-room'],
  ['Numbers', 'plan-numbers'],
  ['Order', 'plan-order'],
] as const) {
  await page.getByRole('button', { name: part, exact: true }).click();
  await shoot(name);
}
await page.getByRole('button', { name: 'Take along' }).click();
await page.getByRole('button', { name: 'Call sheet' }).click();
await shoot('plan-call');
await page.getByRole('button', { name: 'Back' }).click();
await bench.go('Match');
await shoot('match');
await bench.go('Build');
await page.getByRole('button', { name: 'To the landing' }).click();
for (let frame = 0; frame < 70; frame++) await page.keyboard.press('.');
await page.getByRole('button', { name: 'Join', exact: true }).click();
await shoot('build');
await page.getByRole('button', { name: 'Joined', exact: true }).click();
await page.keyboard.press('n');
await shoot('build-night');
await page.keyboard.press('n');
await bench.go('Deliver');
await page.getByRole('button', { name: 'Render the shot' }).click();
await page.locator('[data-render=done]').waitFor({ timeout: 400_000 });
await shoot('deliver');
await page.getByRole('button', { name: 'Keyframes to print' }).click();
await shoot('sheet');
await page.getByRole('button', { name: 'Back' }).click();

await page.setViewportSize(phone);
for (const [station, name] of [
  ['Song', 'song-phone'],
  ['Plan', 'plan-phone'],
  ['Match', 'match-phone'],
  ['Build', 'build-phone'],
] as const) {
  await bench.go(station);
  if (station === 'Plan') await page.getByRole('button', { name: 'Room', exact: true }).click();
  await shoot(name);
}
await page.setViewportSize(desktop);
await bench.close();
await browser.close();
await server.stop();
