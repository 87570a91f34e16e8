import { describe, expect } from 'vitest';
import type { BenchPage } from './support/bench-page';
import { ffmpeg } from './support/ffmpeg';
import { planned } from './support/film-set';
import { test } from './support/test';

const many = 20;
const size = 'size=640x360:rate=24:duration=2';

const takes = async (bench: BenchPage) =>
  (await bench.records()).flatMap((one) => (one.kind === 'take' && one.alive ? [one] : []));
/** The keys of what was measured so far. */
const measured = async (bench: BenchPage) =>
  ((await bench.rows('measures')) as { key: string }[]).map(({ key }) => key);

describe('a card of twenty takes', () => {
  test('can be cancelled, and goes on after a reload in its middle with no take lost or twice', async ({
    open,
    file,
  }) => {
    const files = Array.from({ length: many }, (_, index) => file(`roll-${index + 1}.mp4`));
    // Twenty pictures that differ: a pattern with another hue and grain of its own each time.
    for (const [index, path] of files.entries())
      ffmpeg(
        ...[
          '-f',
          'lavfi',
          '-i',
          `testsrc2=${size}`,
          '-vf',
          `hue=h=${index * 18},noise=alls=4:all_seed=${index}`,
        ],
        ...['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-preset', 'ultrafast', path],
      );
    const bench = await open({ seed: await planned(), at: 'station=match' });
    const { page } = bench;
    const arriving = page.getByText(/^Bringing in roll-\d+\.mp4 \(\d+ of 20\)$/);

    // Cancelled while they are brought in: what is in stays in, the rest is not there.
    await bench.bringIn(...files);
    await expect.poll(async () => (await takes(bench)).length).toBeGreaterThan(1);
    await arriving.locator('..').getByRole('button', { name: 'Cancel' }).click();
    await arriving.waitFor({ state: 'detached' });
    const first = (await takes(bench)).length;
    expect(first).toBeGreaterThan(1);
    expect(first).toBeLessThan(many);

    // All of them again; the page is lost while they come in, and says which are missing.
    await bench.bringIn(...files);
    await expect.poll(async () => (await takes(bench)).length).toBeGreaterThan(first + 1);
    await page.reload();
    await bench.arrived();
    const lost = page.getByText(/^The page was closed before .* in\. Bring (it|them) in again\.$/);
    await lost.first().waitFor();
    expect((await takes(bench)).length).toBeLessThan(many);
    await bench.bringIn(...files);
    await expect.poll(async () => (await takes(bench)).length).toBe(many);

    // Measuring is cancelled in its middle: that piece waits with a word, the others go on.
    const cancel = page.getByRole('progressbar').locator('..').getByRole('button', { name: 'Cancel' });
    const stopped = page.locator('[data-halted]');
    // A piece that ended in the moment of the press is done, and the next one is cancelled.
    await expect
      .poll(async () => {
        if ((await stopped.count()) === 0) await cancel.click();
        return stopped.count();
      })
      .toBeGreaterThan(0);
    expect(await stopped.first().innerText()).toContain('cancelled.');

    // A reload in the middle of it: what was measured stays, the rest is done without being asked for.
    await expect.poll(async () => (await measured(bench)).length).toBeGreaterThan(5);
    await page.reload();
    await bench.arrived();
    const kept = await measured(bench);
    await bench.settled();
    await stopped.first().waitFor();
    expect(await measured(bench)).toEqual(expect.arrayContaining(kept));
    for (let left = await stopped.count(); left > 0; left--) {
      await bench.press((await stopped.first().getByRole('button').first().getAttribute('aria-label')) ?? '');
      await bench.settled();
    }
    expect(await stopped.count()).toBe(0);
    const all = await takes(bench);
    expect(new Set(all.map(({ name }) => name)).size).toBe(many);
    // What was asked for again may not have begun when nothing else is under way.
    const lacking = async () => {
      const keys = await measured(bench);
      return all.flatMap(({ name, media }) =>
        ['pictures', 'camera', 'motion', 'light']
          .filter((part) => !keys.some((key) => key.startsWith(`${part}-`) && key.includes(media)))
          .map((part) => `${part} of ${name}`),
      );
    };
    await expect.poll(lacking).toEqual([]);
  });
});
