import { readFileSync, writeFileSync } from 'node:fs';
import { describe, expect } from 'vitest';
import type { Bundle } from '@/core/formats/bundle';
import { packBundle } from '@/media/bundle-zip';
import { demo } from './support/ffmpeg';
import { FilmSet } from './support/film-set';
import { pack } from './support/packed';
import { seedOf } from './support/seeds';
import { test } from './support/test';

/** Projects that earlier versions wrote; what each is, is said in src/store/lift.test.ts. */
const older = (name: string) =>
  JSON.parse(readFileSync(`src/store/__tests__/older/${name}.json`, 'utf8')) as never;
const bundleOf = (name: string): Bundle => older(name);

const said =
  'the performer is on the left in Bench left 1 from 0.00 s. The copy appears on bar 10, beat 1 at once, in';

describe('a project of an earlier version', () => {
  test('opens from the browser’s store with its takes where they were, and goes on', async ({ open }) => {
    const { project, records, commands } = older('stored-1') as Record<string, never>;
    const media = bundleOf('carried-1').media.map((row) => ({
      ...row,
      project,
      place: 'blob',
      problem: null,
    }));
    const rows = { records: await pack(records), commands: await pack(commands), media: await pack(media) };
    const bench = await open({ seed: { ...seedOf(project, rows), version: 2 }, at: 'station=build' });
    const sentence = bench.page.getByTestId('sentence');
    const text = async () => (await sentence.innerText()).replace(/[\s,]+/g, ' ');
    expect(await text()).toContain(said.replace(/,/g, ''));
    expect(await text()).toContain('in Bench right 1 from 1.25 s');
    expect(await text()).toContain('with Bench plate end behind them');
    expect(await bench.page.getByText('Left is tapped.').count()).toBe(1);
    await bench.type('Start of the right take', '2');
    await bench.page.getByText('2.00 s').first().waitFor();
    await bench.undo(2);
    expect(await text()).toContain('from 1.25 s');
    await bench.page.reload();
    expect(await text()).toContain('from 1.25 s');
  });

  test('opens from the first carried file there was', async ({ open, file }) => {
    const bundle = bundleOf('carried-first');
    const blobs = new Map(
      bundle.media.map(({ entry, name, type }) => [entry, new Blob([readFileSync(demo(name))], { type })]),
    );
    const zip = await packBundle(bundle, blobs, () => undefined);
    writeFileSync(file('first.zip'), Buffer.from(await zip.arrayBuffer()));
    const set = await FilmSet.open(open);
    await set.bring(file('first.zip'));
    await set.bench.go('Build');
    const { page } = set.bench;
    await page.getByTestId('sentence').waitFor();
    expect(await page.getByTestId('sentence').innerText()).toContain('Bench right 1');
  });
});
