import 'fake-indexeddb/auto';
import { openBrowser } from '../e2e/support/browser';
import { startServer } from '../e2e/support/server';
import { BenchPage, phone } from '../e2e/support/bench-page';
import { demoFilm } from '../e2e/support/films';
try {
  const server = await startServer();
  const browser = await openBrowser();
  const seed = demoFilm();
  const bench = await BenchPage.open(browser, server.url, { seed, size: phone });
  const { page } = bench;
  await page.waitForTimeout(1500);
  await page.screenshot({ path: `/tmp/look/p-lost.png` });
  const buttons = await page.getByRole('button').allInnerTexts();
  console.log(buttons.join('|'));
  await page.keyboard.press('Control+k');
  await page.waitForTimeout(800);
  await page.screenshot({ path: `/tmp/look/p-actions.png` });
  await page.keyboard.press('Escape');
  await bench.go('Build');
  await page.waitForTimeout(1500);
  await page.screenshot({ path: `/tmp/look/p-build-lost.png` });
  await page.context().close();
  // the demo cannot be fetched
  const context = await browser.newContext({ viewport: phone, serviceWorkers: 'block' });
  const p2 = await context.newPage();
  await p2.route('**/demo/**', (r) => r.abort());
  await p2.goto(server.url);
  await p2.waitForTimeout(4000);
  await p2.screenshot({ path: `/tmp/look/p-nodemo.png` });
  console.log(bench.errors);
} catch (error) {
  console.log(error);
}
process.exit(0);
