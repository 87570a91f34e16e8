import { BenchPage } from './support/bench-page';
import { openBrowser } from './support/browser';
import { startServer } from './support/server';
const server = await startServer(4399);
const browser = await openBrowser();
const bench = await BenchPage.open(browser, server.url);
const { page } = bench;
page.on('console', (m) => { if (m.type() === 'error') console.log('console', m.text().slice(0, 300)); });
page.on('pageerror', (e) => console.log('pageerror', e.message.slice(0, 500)));
await page.locator('[data-moment]').first().waitFor({ timeout: 120000 });
await bench.settled();
await page.waitForTimeout(1500);
await page.screenshot({ path: '/tmp/p-song.png' });
await bench.go('Plan');
for (const part of ['Room', 'Take along']) {
  await page.getByRole('button', { name: part, exact: true }).click();
  await page.waitForTimeout(900);
  await page.screenshot({ path: `/tmp/p-${part.replace(' ', '')}.png` });
}
await page.getByRole('button', { name: 'Call sheet' }).click();
await page.waitForTimeout(500);
await page.screenshot({ path: '/tmp/p-call.png' });
await page.getByRole('button', { name: 'Room and zones' }).click(); await page.waitForTimeout(700); await page.screenshot({ path: '/tmp/p-zones.png' }); await page.getByRole('button', { name: 'Back' }).click(); await page.setViewportSize({ width: 390, height: 844 }); for (const part of ['Moments', 'Room', 'Order', 'Numbers']) { await page.getByRole('button', { name: part, exact: true }).click(); await page.waitForTimeout(700); await page.screenshot({ path: '/tmp/ph-' + part + '.png' }); } await bench.close(); await browser.close(); await server.stop();
