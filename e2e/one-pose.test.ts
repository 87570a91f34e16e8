import { describe, expect } from 'vitest';
import { addMoment } from '@/store/commands/plan';
import { laySeconds } from '@/store/commands/song';
import { fillOf } from '@/core/model/slots';
import { phone } from './support/bench-page';
import { ffmpeg } from './support/ffmpeg';
import { coffee, portrait } from './support/photographs';
import { seeded } from './support/seeds';
import { test } from './support/test';

/**
 * Films somebody who comes in and stands in a place of a photograph, with noise, really encoded.
 * @param way their left edge, of the seconds t
 * @param tint of their clothes
 */
function standing(path: string, way: string, tint: number): void {
  ffmpeg(
    ...['-loop', '1', '-framerate', '25', '-t', '4', '-i', coffee()],
    ...['-loop', '1', '-framerate', '25', '-t', '4', '-i', portrait(), '-filter_complex'],
    `[0]scale=480:320,crop=480:270[place];[1]crop=300:400:80:0,scale=150:200,hue=h=${tint}[one];[place][one]overlay=x='${way}':y=70,noise=alls=4:allf=t,format=yuv420p`,
    ...['-c:v', 'libx264', '-crf', '18', path],
  );
}

describe('the pair board of a change of clothes', () => {
  test('ranks takes by who stands as before, and uses them so', async ({ open, file }) => {
    standing(file('grey.mp4'), 'min(150,-100+200*t)', 0);
    standing(file('green.mp4'), 'min(150,-100+200*max(0,t-0.6))', 120);
    standing(file('aside.mp4'), 'max(220,500-200*t)', 200);
    ffmpeg(
      ...['-loop', '1', '-framerate', '25', '-t', '1', '-i', coffee(), '-vf'],
      ...['scale=480:320,crop=480:270,noise=alls=4:allf=t,format=yuv420p', '-c:v', 'libx264', '-crf', '18'],
      file('plate.mp4'),
    );
    const seed = await seeded(async (store, project) => {
      await laySeconds(store, project);
      await addMoment(store, project, 'masked-reveal', 2, 6);
    });
    const bench = await open({ seed, at: 'station=match' });
    const { page } = bench;
    await bench.bringIn(...['plate', 'grey', 'green', 'aside'].map((name) => file(`${name}.mp4`)));
    await page.locator('[data-take="Aside"] img').first().waitFor();
    await bench.settled();
    const said = async (pair: string) =>
      (await page.locator(`[data-pair="${pair}"]`).getAttribute('title')) ?? '';
    const pose = async (pair: string) => Number(/pose (\d+)/.exec(await said(pair))?.[1] ?? NaN);
    await expect.poll(() => pose('Grey with Green')).toBeGreaterThan(80);
    expect(await pose('Grey with Aside')).toBeLessThan(60);
    // What says that two stand apart says nothing here, and nobody is a pair with themselves.
    expect(await said('Grey with Green')).not.toMatch(/apart|join|near/);
    expect(await page.locator('[data-pair="Grey with Grey"]').count()).toBe(0);
    await bench.choose('How much it counts: one pose of who stands there', 'not at all');
    await expect
      .poll(async () => Math.abs((await score('Grey with Aside')) - (await score('Grey with Green'))))
      .toBeLessThan(8);
    // Where nothing counts any more, what usually does is shown and counts.
    await bench.choose('How much it counts: A camera that stands', 'not at all');
    await bench.choose('How much it counts: the same light', 'not at all');
    await expect.poll(() => score('Grey with Green')).toBeGreaterThan(80);
    await page.getByText('one pose of who stands there').waitFor();
    await bench.undo(3);
    async function score(pair: string): Promise<number> {
      return Number(/: (\d+) of 100/.exec(await said(pair))?.[1] ?? NaN);
    }
    await expect.poll(() => score('Grey with Green')).toBeGreaterThan((await score('Grey with Aside')) + 10);
    await page.locator('[data-pair="Grey with Green"]').click();
    await page.getByRole('button', { name: /^Use this pair/ }).click();
    await bench.arrived();
    const [grey, green] = await Promise.all(
      ['Grey', 'Green'].map(async (name) =>
        (await bench.records()).find((one) => one.kind === 'take' && one.name === name),
      ),
    );
    await expect
      .poll(async () => {
        const moment = (await bench.records()).find((one) => one.kind === 'moment');
        if (moment?.kind !== 'moment') return null;
        return ['before', 'after'].map((slot) => fillOf(moment, slot).take);
      })
      .toEqual([grey?.id, green?.id]);
    await bench.go('Match');
    await page.setViewportSize(phone);
    await page.locator('[data-pair]').first().waitFor();
    expect(await bench.overflow()).toBe(0);
    expect(await bench.audit()).toEqual([]);
  });
});
