import { describe, expect } from 'vitest';
import { phone, type BenchPage } from './support/bench-page';
import { ffmpeg } from './support/ffmpeg';
import { keysOf } from './support/hands';
import { coffee, portrait } from './support/photographs';
import { seeded } from './support/seeds';
import { test } from './support/test';

type Span = readonly [from: number, until: number];

/**
 * Films somebody before a camera that stands and was never stopped: they move between some seconds, and a song plays
 * between others. With noise, really encoded.
 */
function filmOn(path: string, seconds: number, moves: readonly Span[], plays: readonly Span[]): void {
  const gone = moves.map(([from, until]) => `clip(t-${from},0,${until - from})`).join('+');
  const loud = plays.map(([from, until]) => `between(t,${from},${until})`).join('+') || '0';
  const song = `(${loud})*(0.2*sin(2*PI*220*t)*(0.6+0.4*sin(12*t))+0.1*sin(2*PI*330*t))+0.003*random(0)`;
  ffmpeg(
    ...['-loop', '1', '-framerate', '25', '-i', coffee(), '-loop', '1', '-framerate', '25', '-i', portrait()],
    ...['-f', 'lavfi', '-i', `aevalsrc='${song}':sample_rate=48000`, '-filter_complex'],
    `[0]scale=480:320,crop=320:180[place];[1]crop=300:400:80:0,scale=90:120[one];[place][one]overlay=x='110+80*sin(1.7*(${gone}))':y=60,noise=alls=4:allf=t,format=yuv420p`,
    ...['-t', `${seconds}`, '-c:v', 'libx264', '-g', '50', '-crf', '20', '-c:a', 'aac', path],
  );
}

const partsOf = (bench: BenchPage) => bench.page.locator('[data-part]');
/** The seconds of each part. */
const spans = async (bench: BenchPage): Promise<number[][]> =>
  Promise.all(
    (await partsOf(bench).all()).map(async (one) =>
      ((await one.getAttribute('data-part')) ?? '').split(' ').map(Number),
    ),
  );
/** Each part holds what happens in it, with a second more to each side at the most. */
function expectSpans(found: readonly number[][], wanted: readonly Span[]): void {
  expect(found).toHaveLength(wanted.length);
  wanted.forEach(([from, until], index) => {
    const [begins, ends] = found[index];
    expect(from - begins).toBeGreaterThanOrEqual(-0.3);
    expect(from - begins).toBeLessThan(1.5);
    expect(ends - until).toBeGreaterThanOrEqual(-0.3);
    expect(ends - until).toBeLessThan(1.5);
  });
}

const takesIn = async (bench: BenchPage) =>
  (await bench.records()).flatMap((one) =>
    one.kind === 'take' && one.alive ? [one as unknown as { name: string; slot: string | null }] : [],
  );

/** Brings a long film in, and goes to its parts. */
async function divide(bench: BenchPage, path: string, name: string): Promise<void> {
  await bench.bringIn(path);
  await bench.page.locator(`[data-take="${name}"] img`).waitFor();
  await bench.settled();
  await bench.page
    .locator(`[data-take="${name}"]`)
    .getByRole('button', { name: 'Divide it into parts' })
    .click();
  await partsOf(bench).first().waitFor();
}

describe('a camera that was never stopped', () => {
  test('has its takes where somebody moves, which become takes of their own', async ({ open, file }) => {
    const moves = [
      [3, 9],
      [13, 21],
      [25, 33],
    ] as const;
    filmOn(file('morning.mp4'), 36, moves, []);
    const bench = await open({ seed: await seeded(), at: 'station=match' });
    const { page } = bench;
    await divide(bench, file('morning.mp4'), 'Morning');
    await page.getByText(/It is divided where something moves, .* 3 parts/).waitFor();
    expectSpans(await spans(bench), moves);
    await bench.settled();
    expect(await bench.audit()).toEqual([]);
    // A longer pause than any divides nothing; what was said outlives a reload in the middle.
    await bench.type('Seconds of a pause', '8');
    await page.getByText(/It is one part|One part/).waitFor();
    await page.reload();
    await bench.arrived();
    await page.getByText(/It is one part|One part/).waitFor();
    await bench.type('Seconds of a pause', '1.5');
    await expect.poll(() => partsOf(bench).count()).toBe(3);
    await page.getByRole('button', { name: 'leave out part 2' }).click();
    await page.getByRole('button', { name: 'keep part 2' }).waitFor();
    await page.reload();
    await bench.arrived();
    await page.getByRole('button', { name: 'keep part 2' }).waitFor();
    await bench.press('Make these 2 takes');
    await page.getByText(/2 parts are takes now/).waitFor();
    await bench.settled();
    const takes = await takesIn(bench);
    expect(takes.map(({ name }) => name).sort()).toEqual(['Morning', 'Morning part 1', 'Morning part 3']);
    expect(takes.find(({ name }) => name === 'Morning')?.slot).toBe('none');
    // They behave as takes: measured by themselves, and as long as what was said, but for where a key picture lies.
    for (const [name, [from, until]] of [
      ['Morning part 1', moves[0]],
      ['Morning part 3', moves[2]],
    ] as const) {
      const title = await page.locator(`[data-take="${name}"] b`).getAttribute('title');
      const [, minutes, rest] = /, (\d+):(\d+\.\d+)/.exec(title ?? '') ?? [];
      const seconds = 60 * Number(minutes) + Number(rest);
      expect(seconds).toBeGreaterThan(until - from);
      expect(seconds).toBeLessThan(until - from + 4.2);
    }
  });

  test('has them where the song played, on a phone by keys', async ({ open, file }) => {
    const plays = [
      [4, 14],
      [22, 32],
    ] as const;
    filmOn(file('evening.mp4'), 36, [[1, 34]], plays);
    const bench = await open({ size: phone, touch: false, seed: await seeded(), at: 'station=match' });
    const { page } = bench;
    const keys = keysOf(bench);
    await divide(bench, file('evening.mp4'), 'Evening');
    await page.getByText(/It is divided where music was playing, .* 2 parts/).waitFor();
    expectSpans(await spans(bench), plays);
    await bench.choose('What tells its parts', 'something moves');
    await page.getByText(/It is one part/).waitFor();
    await bench.choose('What tells its parts', 'music was playing');
    await keys.write(bench.number('Part 2 ends'), '0:30');
    await expect.poll(async () => (await spans(bench))[1][1]).toBe(30);
    await page.reload();
    await bench.arrived();
    await partsOf(bench).first().waitFor();
    expect((await spans(bench))[1][1]).toBe(30);
    expect(await bench.overflow()).toBe(0);
    expect(await bench.audit()).toEqual([]);
    await keys.press(page.getByRole('button', { name: 'Make these 2 takes' }));
    await page.getByText(/2 parts are takes now/).waitFor();
    expect(await takesIn(bench)).toHaveLength(3);
  });
});
