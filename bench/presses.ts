/**
 * How long the page is held up at the most by a press in Plan and Shoot, in a project of 300 takes, 80 moments and
 * 12 setups: `npm run bench:presses` after a build. A tenth of a second is what nobody notices (Nielsen 1993).
 */
import 'fake-indexeddb/auto';
import { BenchPage, desktop, phone } from '../e2e/support/bench-page';
import { openBrowser } from '../e2e/support/browser';
import { seeded } from '../e2e/support/seeds';
import { startServer } from '../e2e/support/server';
import { fillScale } from './scale-project';

const most = 100;

const server = await startServer();
const browser = await openBrowser();
const seed = await seeded((store, project) => fillScale(store, project), 'Large');
let failed = 0;
for (const size of [desktop, phone]) {
  const bench = await BenchPage.open(browser, server.url, { seed, size, at: 'station=plan' });
  const { page } = bench;
  await bench.settled();
  await page.evaluate(`globalThis.held = [];
    new PerformanceObserver((list) => held.push(...list.getEntries().map(({ duration }) => duration)))
      .observe({ type: 'longtask' })`);
  const press = async (what: string, act: () => Promise<unknown>) => {
    await page.waitForTimeout(400);
    await page.evaluate('held.length = 0');
    await act();
    await page.waitForTimeout(1500);
    const longest = Math.max(0, ...(await page.evaluate<number[]>('held')));
    if (longest > most) failed++;
    const took = longest > 0 ? `${longest.toFixed(0)} ms` : 'less than 50 ms';
    console.log(`${longest <= most ? 'ok ' : 'NOT'} ${size.width} px, ${what}: ${took} (allowed ${most})`);
  };
  const part = (name: string) => press(name, () => page.getByRole('tab', { name, exact: true }).click());
  await press('a moment', () => page.getByRole('button', { name: 'Look' }).nth(5).click());
  for (const name of ['Room', 'Numbers', 'Order']) await part(name);
  for (const at of [3, 9])
    await press('a shot in the order', () => page.locator('[data-knot]').nth(at).click());
  for (const name of ['Take along', 'Moments']) await part(name);
  await press('Shoot', () => bench.go('Shoot'));
  for (const at of [2, 5])
    await press('a shot on the board', () => page.locator('[data-row]').nth(at).click());
  await bench.close();
}
await browser.close();
await server.stop();
process.exit(failed > 0 ? 1 : 0);
