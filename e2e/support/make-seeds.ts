import 'fake-indexeddb/auto';
import { BenchPage, type Opening } from './bench-page';
import { openBrowser } from './browser';
import { demo } from './ffmpeg';
import { fetchPhotographs } from './photographs';
import { keepSeed, seeded, taken } from './seeds';
import { startServer } from './server';

/** Before any end-to-end test: photographs, and what the bench measures by itself, measured once for all that start from it. */
export default async function makeSeeds(): Promise<void> {
  fetchPhotographs();
  const server = await startServer();
  const browser = await openBrowser();
  const visit = async (how: Opening, wait: (bench: BenchPage) => Promise<unknown>) => {
    const bench = await BenchPage.open(browser, server.url, how);
    await wait(bench);
    await bench.settled();
    const seed = await taken(bench.page);
    await bench.close();
    return seed;
  };
  await keepSeed('song', async () =>
    visit({ seed: await seeded() }, async (bench) => {
      await bench.bringIn(demo('left-hand-thread.opus'));
      await bench.page.getByText(/beats, sure/).waitFor();
    }),
  );
  await keepSeed('demo', () => visit({}, (bench) => bench.page.locator('[data-moment]').nth(5).waitFor()));
  await browser.close();
  await server.stop();
}
