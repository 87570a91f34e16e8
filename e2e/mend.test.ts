import { describe, expect } from 'vitest';
import type { Figure } from '@/core/footage/figures';
import type { Point } from '@/core/geometry/size';
import { coverOfRings } from '@/core/picture/mask';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import type { BenchPage } from './support/bench-page';
import { boardIn, filmed, filmPerson, perSecond, personIn } from './support/composite';
import { storedShot } from './support/rebuild';
import { seeded } from './support/seeds';
import { test } from './support/test';

/** A trail over seconds 1 to 3 that runs into the performer on second 2.6. */
const film = seeded(async (store, project) => {
  await setProject(store, project, { ...filmed, rate: { num: perSecond, den: 1 }, megabits: 8 });
  await laySeconds(store, project);
  const id = await addMoment(store, project, 'ghost-trail', 1, 3);
  await setMoment(store, project, id, 'Place', { name: 'The sign', lands: 2.6 });
});

const coverOf = (rings: readonly Point[][]) =>
  coverOfRings(
    rings.map((ring) => ring.map(([x, y]): Point => [x * filmed.width, y * filmed.height])),
    filmed,
  );

/** How much of the board a cut-out holds, picture by picture. */
const heldOf = (figures: readonly Figure[]): number[] =>
  figures.map(({ seconds, rings }) => {
    const [board, cut] = [coverOf([boardIn(Math.round(seconds * perSecond))]), coverOf(rings)];
    let [all, held] = [0, 0];
    board.forEach((share, pixel) => {
      all += share;
      held += Math.min(share, cut[pixel]);
    });
    return held / all;
  });

/** Intersection over union of a cut-out with the person and the board. */
function overlapOf({ seconds, rings }: Figure): number {
  const picture = Math.round(seconds * perSecond);
  const [person, board, cut] = [coverOf([personIn(picture)]), coverOf([boardIn(picture)]), coverOf(rings)];
  let [both, either] = [0, 0];
  person.forEach((share, pixel) => {
    const there = Math.max(share, board[pixel]);
    both += Math.min(there, cut[pixel]);
    either += Math.max(there, cut[pixel]);
  });
  return both / either;
}

type Answer = { value: { method: string; figures?: Figure[] } };
const answered = async (bench: BenchPage, method: string): Promise<Figure[]> => {
  const rows = (await bench.rows('measures')) as Answer[];
  return rows.findLast(({ value }) => value.method === method)?.value.figures ?? [];
};

describe('what finding people does not find', () => {
  test('is cut out with them once a stroke says so, in the pictures round it too, and is dropped again', async ({
    open,
    file,
  }) => {
    filmPerson(file('sign.mp4'), 3, { holds: true });
    const bench = await open({ seed: await film, at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('sign.mp4'));
    await bench.settled();
    await page.getByRole('combobox', { name: 'Take for the take of the movement', exact: true }).click();
    await page.getByRole('option', { name: 'Sign', exact: true }).click();
    await bench.settled();
    const found = await answered(bench, 'figures-2');
    const before = heldOf(found);
    expect(found.length).toBeGreaterThan(perSecond);

    // One stroke across the board, on the frame fifteen after the first.
    await bench.press('Mend');
    for (let step = 0; step < 15; step++) await bench.press('+ 1 frame');
    const { start } = await storedShot(bench, 'The sign');
    await expect
      .poll(() => page.locator('canvas[data-frame]').getAttribute('data-frame'))
      .toBe(`${start + 15}`);
    const canvas = await page.locator('canvas[data-frame]').boundingBox();
    if (!canvas) throw new Error('There is no picture.');
    const [from, , until] = boardIn(15).map(([x, y]): Point => [
      canvas.x + x * canvas.width,
      canvas.y + y * canvas.height,
    ]);
    const between = (share: number): Point => [
      from[0] + share * (until[0] - from[0]),
      from[1] + share * (until[1] - from[1]),
    ];
    await page.mouse.move(...between(0.25));
    await page.mouse.down();
    for (const share of [0.35, 0.5, 0.65, 0.8]) await page.mouse.move(...between(share));
    await page.mouse.up();
    await page
      .getByTestId('mends')
      .filter({ hasText: `Strokes on frame ${start + 15} ` })
      .waitFor();
    await bench.settled();
    const mended = await answered(bench, 'mend-1');
    const after = heldOf(mended);
    const own = mended.findIndex(({ seconds }) => Math.round(seconds * perSecond) === 15);
    console.info(
      `Of the board ${before.map((one) => one.toFixed(2)).join(' ')} were cut out, and ${after.map((one) => one.toFixed(2)).join(' ')} after one stroke on picture 15, ${own} of ${mended.length}.`,
    );
    const mean = (shares: readonly number[]) => shares.reduce((sum, one) => sum + one, 0) / shares.length;
    expect(mean(before)).toBeLessThan(0.6);
    expect(after[own]).toBeGreaterThan(0.95);
    expect(mended.length).toBeGreaterThan(15);
    expect(Math.min(...after)).toBeGreaterThan(0.85);
    const same = found.filter(({ seconds }) => mended.some((figure) => figure.seconds === seconds));
    const [overlaps, asFound] = [mended, same].map((figures) => mean(figures.map(overlapOf)));
    console.info(`Intersection over union ${overlaps.toFixed(3)}, ${asFound.toFixed(3)} as found.`);
    expect(overlaps).toBeGreaterThan(asFound + 0.03);

    await bench.press('Take this frame’s strokes out');
    await page.getByTestId('mends').filter({ hasText: 'A stroke takes' }).waitFor();
    await bench.undo(1);
    await page
      .getByTestId('mends')
      .filter({ hasText: `Strokes on frame ${start + 15} ` })
      .waitFor();
  });
});
