import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { describe, expect } from 'vitest';
import { psnr } from '@/core/picture/psnr';
import { yuvToRgba } from '@/core/picture/planes';
import { createMoment, setMoment } from '@/store/commands/moments';
import { addSetup } from '@/store/commands/plan';
import { linkTake, rateLog, startLog, stopLog } from '@/store/commands/shoot';
import { laySeconds } from '@/store/commands/song';
import type { Store } from '@/store/db';
import { planOf } from '@/store/plan';
import { readSnapshot } from '@/store/snapshot';
import { ownLocks } from '@/workers/__tests__/locks';
import { importFiles } from '@/workers/import-files';
import { decode, demo, ffmpeg, probe } from './support/ffmpeg';
import { seeded } from './support/seeds';
import { test } from './support/test';

const size = { width: 480, height: 270 };

/** Brings a file in as the logged and linked take of a shot. */
async function film(store: Store, project: string, setup: number, shot: string, path: string) {
  const snapshot = await readSnapshot(store, project);
  const board = snapshot && planOf(snapshot).boards[setup];
  const row = board?.rows.find(({ id }) => id.endsWith(shot));
  if (!board || !row) throw new Error(`There is no shot ${shot}.`);
  const log = await startLog(store, project, board.setup, row.id, { variation: '' });
  await stopLog(store, log, 6);
  await rateLog(store, log, 'good');
  const told = probe(path, 'v:0');
  const video = { codec: 'avc', size, turned: 0 as const, rate: 24000 / 1001 };
  const probed = { duration: Number(told.file_duration), video, audio: null };
  const file = new File([readFileSync(path)], basename(path), { type: 'video/mp4' });
  const [{ record }] = await importFiles(store, project, [file], {
    open: () => ({ api: { probeFile: async () => probed } as never, end: () => undefined }),
    locks: ownLocks(),
  });
  const after = await readSnapshot(store, project);
  const filmed = after && planOf(after).boards[setup];
  if (!filmed || !record) throw new Error(`${path} was not taken in.`);
  await linkTake(store, project, filmed, [{ log: log.id, take: record }]);
}

describe('two setups, each with its own plate and takes', () => {
  test('become two clones, each joined on its own plate and rendered from its own takes', async ({
    open,
    file,
  }) => {
    // The second place is the first one in a mirror and darker, with the sides of the takes exchanged.
    const places = [
      ['scale=480:270', ['plate-start', 'left-1', 'right-1']],
      ['scale=480:270,hflip,eq=brightness=-0.08', ['plate-end', 'right-1', 'left-1']],
    ] as const;
    const paths = places.map(([look, takes], setup) =>
      takes.map((take, index) => {
        const path = file(`${setup} ${['first plate', 'left', 'right'][index]}.mp4`);
        ffmpeg('-i', demo(`bench-${take}.mp4`), '-t', '5', '-an', '-vf', look, '-crf', '14', path);
        return path;
      }),
    );
    const seed = await seeded(async (store, project) => {
      await laySeconds(store, project);
      await addSetup(store, project);
      await addSetup(store, project);
      const moments = [await createMoment(store, project, 0, 4), await createMoment(store, project, 6, 10)];
      const snapshot = await readSnapshot(store, project);
      for (const [setup, moment] of moments.entries())
        await setMoment(store, project, moment, 'Where', { setup: snapshot?.setups[setup].id });
      for (const [setup, [plate, left, right]] of paths.entries()) {
        await film(store, project, setup, '/first plate', plate);
        await film(store, project, setup, '/left', left);
        await film(store, project, setup, '/right', right);
      }
    });
    const bench = await open({ seed, keep: ['originals'], at: 'station=plan&part=needs' });
    const { page } = bench;
    await expect.poll(() => page.locator('[data-plan]').count()).toBe(2);
    await bench.settled();
    await bench.go('Match');
    for (const setup of [0, 1]) {
      if (setup === 1) {
        await bench.go('Match');
        await page.getByRole('combobox', { name: 'Moment' }).click();
        await page.getByRole('option', { name: 'Meets a copy 2' }).click();
      }
      await page.getByText('3 of other setups, with their own moments').waitFor();
      // Takes of the other setup are not offered for this moment.
      await expect.poll(() => page.locator('[data-pair]').count()).toBe(1);
      await page.getByRole('button', { name: /^Use this pair in/ }).click();
      await page.getByTestId('sentence').waitFor();
      await bench.settled();
      await page.locator('[data-finding^="clone.join"]').waitFor({ state: 'attached' });
      expect(await page.getByRole('combobox', { name: 'Clean plate' }).innerText()).toMatch(
        new RegExp(`Clean plate, take 1, ${['First setup', 'Setup 2'][setup]}`),
      );
      await bench.go('Hand over');
      await bench.press('Render the shot');
      await page.locator('[data-render=done]').nth(0).waitFor();
      await bench.settled();
      await (await bench.save('Save')).saveAs(file(`${setup}.mov`));
      const rendered = decode(file(`${setup}.mov`), size.width, size.height);
      expect(rendered).toHaveLength(96);
      const [own, other] = [setup, 1 - setup].map((place) =>
        decode(paths[place][1], size.width, size.height),
      );
      const shown = yuvToRgba(rendered[10]);
      expect(psnr(shown, yuvToRgba(own[10]))).toBeGreaterThan(30);
      expect(psnr(shown, yuvToRgba(other[10]))).toBeLessThan(25);
    }
  });
});
