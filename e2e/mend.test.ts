import { describe, expect } from 'vitest';
import type { Figure } from '@/core/footage/figures';
import type { Point } from '@/core/geometry/size';
import { coverOfRings } from '@/core/picture/mask';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import { phone, type BenchPage } from './support/bench-page';
import { boardIn, filmed, filmPerson, perSecond, personIn } from './support/composite';
import { ffmpeg } from './support/ffmpeg';
import { Fingers } from './support/fingers';
import { fingerOf } from './support/hands';
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

/** A raised jump over seconds 2 to 4 that meets the floor on second 3. */
const leap = seeded(async (store, project) => {
  await setProject(store, project, { ...filmed, rate: { num: perSecond, den: 1 }, megabits: 8 });
  await laySeconds(store, project);
  const id = await addMoment(store, project, 'take-off', 2, 4);
  await setMoment(store, project, id, 'Place', { name: 'The leap', lands: 3, 'settings.way': 'raised' });
});

/** A crate that somebody put on the set once the empty set was filmed, in pixels of the frame; a little right of the jumper. */
const crate = { left: 330, top: 190, width: 60, height: 60 };

/** Somebody dark before a wall, in the air from second 1 to 1.6, 60 pixels high at the most, beside the crate; and the wall alone. */
function filmJumpByCrate(empty: string, jump: string): void {
  const wall = ['-f', 'lavfi', '-i', `gradients=s=480x270:c0=0xb0b0a0:c1=0x90a8b0:speed=0.00001:seed=7:r=25`];
  const coded = ['-t', '3', '-c:v', 'libx264', '-crf', '14'];
  ffmpeg(...wall, '-vf', 'noise=alls=4:allf=t,format=yuv420p', ...coded, empty);
  const above = 'if(between(t,1,1.6),240*((t-1)/0.6)*(1-(t-1)/0.6),0)';
  ffmpeg(
    ...wall,
    ...['-f', 'lavfi', '-i', 'color=0x301818:s=60x130:r=25:d=3'],
    ...['-f', 'lavfi', '-i', `color=0xb02634:s=${crate.width}x${crate.height}:r=25:d=3`],
    '-filter_complex',
    `[0][1]overlay=x=180:y='120-(${above})':eval=frame[a];[a][2]overlay=x=${crate.left}:y=${crate.top},noise=alls=4:allf=t,format=yuv420p`,
    ...[...coded, jump],
  );
}

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

/** Draws a stroke along the diagonal of an upright box. @param corners from the upper left one, clockwise, in shares of the frame */
async function stroke({ page }: BenchPage, [from, , until]: readonly Point[]): Promise<void> {
  const canvas = await page.locator('canvas[data-frame]').boundingBox();
  if (!canvas) throw new Error('There is no picture.');
  const at = (share: number): Point => [
    canvas.x + (from[0] + share * (until[0] - from[0])) * canvas.width,
    canvas.y + (from[1] + share * (until[1] - from[1])) * canvas.height,
  ];
  await page.mouse.move(...at(0.25));
  await page.mouse.down();
  for (const share of [0.35, 0.5, 0.65, 0.8]) await page.mouse.move(...at(share));
  await page.mouse.up();
}

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
    await stroke(bench, boardIn(15));
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

describe('a stroke by a finger', () => {
  test('is a line that is drawn or a dot that is tapped, under a loupe, and is taken back by Undo', async ({
    open,
    file,
  }) => {
    filmPerson(file('sign.mp4'), 3, { holds: true });
    const bench = await open({ seed: await film, at: 'station=build', size: phone });
    const { page } = bench;
    await bench.bringIn(file('sign.mp4'));
    await bench.settled();
    await bench.choose('Take for the take of the movement', 'Sign');
    await bench.settled();
    const finger = fingerOf(bench);
    await finger.press(page.getByRole('button', { name: 'Mend', exact: true }));
    const pad = page.locator('[data-draw]');
    await pad.scrollIntoViewIfNeeded();
    const box = await pad.boundingBox();
    if (!box) throw new Error('There is nothing to draw on.');
    const [from, , until] = boardIn(0);
    const at = (share: number): [number, number] => [
      box.x + (from[0] + share * (until[0] - from[0])) * box.width,
      box.y + (from[1] + share * (until[1] - from[1])) * box.height,
    ];
    const fingers = await Fingers.on(page);
    const strokes = page.getByTestId('mends');
    await fingers.tap(at(0.5));
    await strokes.filter({ hasText: 'Strokes on frame' }).waitFor();
    await bench.undo(1);
    await strokes.filter({ hasText: 'A stroke takes' }).waitFor();
    await fingers.along([0.25, 0.4, 0.6, 0.75].map(at), () => page.locator('[data-loupe]').waitFor());
    await strokes.filter({ hasText: 'Strokes on frame' }).waitFor();
    await bench.settled();
    const [mended] = await answered(bench, 'mend-1');
    expect(heldOf([mended])[0]).toBeGreaterThan(0.9);
    expect(await bench.overflow()).toBe(0);
  });
});

describe('what was not on the set when it was filmed empty', () => {
  test('is not raised with the jumper once a stroke drops it, and stays so after a reload', async ({
    open,
    file,
  }) => {
    filmJumpByCrate(file('empty.mp4'), file('jump.mp4'));
    const bench = await open({ seed: await leap, at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('empty.mp4'), file('jump.mp4'));
    await bench.settled();
    await bench.choose('Take for the take of the jump', 'jump');
    await bench.settled();
    const corners = [
      [crate.left, crate.top],
      [crate.left + crate.width, crate.top],
      [crate.left + crate.width, crate.top + crate.height],
      [crate.left, crate.top + crate.height],
    ].map(([x, y]): Point => [x / filmed.width, y / filmed.height]);
    const held = (figures: readonly Figure[]) =>
      figures.map(({ rings }) => {
        const [box, cut] = [coverOf([corners]), coverOf(rings)];
        const all = box.reduce((sum, share) => sum + share, 0);
        return box.reduce((sum, share, pixel) => sum + Math.min(share, cut[pixel]), 0) / all;
      });
    expect(Math.min(...held(await answered(bench, 'figures-2')))).toBeGreaterThan(0.9);

    // By keys alone. On the floor nobody is cut out, and the way to where somebody is stands there.
    const { keyboard } = page;
    const pressed = async (name: string | RegExp) => {
      await page.getByRole('button', { name }).focus();
      await keyboard.press('Enter');
    };
    await pressed('Mend');
    await page.getByText('Nothing has an outline on this frame.').waitFor();
    await pressed(/^Go to frame \d+$/);
    await page.locator('[data-draw]').waitFor();
    for (let step = 0; step < 7; step++) await keyboard.press('.');
    await pressed('Brush away');
    await page.locator('[data-draw]').focus();
    for (let step = 0; step < 5; step++) await keyboard.press('Shift+ArrowRight');
    for (let step = 0; step < 6; step++) await keyboard.press('Shift+ArrowDown');
    await keyboard.press('Enter');
    await page.getByTestId('mends').filter({ hasText: 'Strokes on frame' }).waitFor();
    await page.reload();
    await bench.settled();
    const mended = await answered(bench, 'mend-1');
    expect(mended.length).toBeGreaterThan(14);
    expect(Math.max(...held(mended))).toBeLessThan(0.05);
    // The jumper is still whole: 60 × 130 pixels of the frame.
    for (const { share } of mended)
      expect(Math.abs(share / ((60 * 130) / (filmed.width * filmed.height)) - 1)).toBeLessThan(0.1);
    await bench.found('leap.lands');
  });
});
