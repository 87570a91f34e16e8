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
  await page.screenshot({ path: `/tmp/look/p-song.png` });
  await bench.go('Build');
  await page.waitForTimeout(1500);
  await page.screenshot({ path: `/tmp/look/p-build-lost.png` });
  const t = Date.now();
  await bench.bringIn(...['bench-left-1','bench-left-2','bench-right-1','bench-right-2','bench-plate-start','bench-plate-end'].map((n) => `public/demo/${n}.mp4`));
  await page.waitForTimeout(3000);
  await page.screenshot({ path: `/tmp/look/p-back1.png` });
  await bench.settled();
  console.log('settled', Date.now() - t);
  await page.waitForTimeout(1000);
  await page.screenshot({ path: `/tmp/look/p-back2.png` });
  console.log(bench.errors);
} catch (error) {
  console.log(error);
}
process.exit(0);
