import 'fake-indexeddb/auto';
import { openBrowser } from '../e2e/support/browser';
import { startServer } from '../e2e/support/server';
import { BenchPage } from '../e2e/support/bench-page';
import { demoFilm } from '../e2e/support/films';
try {
  const server = await startServer();
  const browser = await openBrowser();
  const seed = demoFilm();
  const bench = await BenchPage.open(browser, server.url, { seed, keep: ['proxies', 'originals', 'stills'] as never });
  const { page } = bench;
  await page.waitForTimeout(1000);
  await page.screenshot({ path: `/tmp/look/d-Song.png` });
  await bench.press('Beats and frames');
  await page.waitForTimeout(1500);
  await page.screenshot({ path: `/tmp/look/d-frames.png` });
  await bench.go('Match');
  await page.waitForTimeout(2500);
  await page.screenshot({ path: `/tmp/look/d-Match.png` });
  await page.getByRole('button', { name: /^Use this pair/ }).click();
  await bench.settled();
  await page.waitForTimeout(1500);
  await page.screenshot({ path: `/tmp/look/d-Build.png` });
  console.log(bench.errors);
} catch (error) {
  console.log(error);
}
process.exit(0);
