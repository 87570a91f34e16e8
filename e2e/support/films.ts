import type { BenchPage, Opening } from './bench-page';
import { demo } from './ffmpeg';
import { kept, seeded, taken, type Seed } from './seeds';

type Open = (how?: Opening) => Promise<BenchPage>;

/** A project of one's own with the demo's song, its beats and sections found by the bench. */
export const songFilm = (open: Open): Promise<Seed> =>
  kept('song', async () => {
    const bench = await open({ seed: await seeded() });
    await bench.bringIn(demo('left-hand-thread.opus'));
    await bench.page.getByText(/beats, sure/).waitFor();
    await bench.settled();
    return taken(bench.page);
  });

/** The demo as it is once all of it was measured after the first visit. */
export const demoFilm = (open: Open): Promise<Seed> =>
  kept('demo', async () => {
    const bench = await open();
    await bench.page.locator('[data-moment]').nth(5).waitFor();
    await bench.settled();
    return taken(bench.page);
  });
