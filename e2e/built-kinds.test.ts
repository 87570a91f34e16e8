import { describe, expect } from 'vitest';
import type { YuvImage } from '@/core/picture/planes';
import { yuvToRgba } from '@/core/picture/planes';
import { psnr } from '@/core/picture/psnr';
import type { Project } from '@/core/model/records';
import type { MomentKind } from '@/core/recipes/films';
import { frameOfTime } from '@/core/time/rate';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import type { StoredRecord } from '@/store/db';
import type { BenchPage } from './support/bench-page';
import { decode, ffmpeg } from './support/ffmpeg';
import { referenceOf, storedShot } from './support/rebuild';
import { seeded } from './support/seeds';
import { test } from './support/test';

const size = { width: 320, height: 180 };

/** A clip whose light tells its second: code 40 at its beginning, 20 more each second. */
const clock = (path: string, perSecond: number, seconds = 8) =>
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    // One light all over is worked out small.
    `color=gray:s=16x16:r=${perSecond}:d=${seconds},format=yuv420p,geq=lum='40+20*T':cb=128:cr=128,scale=${size.width}:${size.height}:flags=neighbor,setsar=1`,
    '-c:v',
    'libx264',
    '-qp',
    '4',
    '-bf',
    '0',
    path,
  );
/** So many seconds of a luma, with a little noise as a sensor gives it, which comes again after three pictures. */
const noisy = (luma: string, seconds: number) => [
  '-f',
  'lavfi',
  '-i',
  `color=gray:s=${size.width}x${size.height}:r=25:d=0.12,format=yuv420p,geq=lum='${luma}+mod(X+Y+N,3)':cb=128:cr=128,loop=loop=-1:size=3,setpts=N/25/TB,trim=duration=${seconds}`,
];
const coded = (path: string) => ['-c:v', 'libx264', '-qp', '8', path];
/** A clip of one light. */
const plain = (path: string, code: number, seconds = 8) =>
  ffmpeg(...noisy(`${code}`, seconds), ...coded(path));

/** A light wall with something on it that a camera can be held against. */
const wallOf = (seconds: number) => noisy('180+12*sin(X/9+sin(Y/5))*sin(Y/7)', seconds);
/** Somebody dark before that wall, whose feet are so many pixels above the floor at a second `t`. */
const jumps = (path: string, above: string, seconds: number) =>
  ffmpeg(
    ...wallOf(seconds),
    '-f',
    'lavfi',
    '-i',
    `color=0x301818:s=40x90:r=25:d=${seconds}`,
    '-filter_complex',
    `[0][1]overlay=x=140:y='60-(${above})':eval=frame,format=yuv420p`,
    ...coded(path),
  );

/** Somebody dark before that wall, who sways a little about a column. */
const stands = (path: string, column: number, seconds: number) =>
  ffmpeg(
    ...wallOf(seconds),
    '-f',
    'lavfi',
    '-i',
    `color=0x301818:s=32x90:r=25:d=${seconds}`,
    '-filter_complex',
    `[0][1]overlay=x='${column}-16+4*sin(t*2)':y=70:eval=frame,format=yuv420p`,
    ...coded(path),
  );

/** A project on a ruler of seconds (a bar is five) with one moment of a kind, over seconds 5 to 13, landing on 7. */
const filmOf = (kind: MomentKind) =>
  seeded(async (store, project) => {
    await setProject(store, project, { ...size, megabits: 20 });
    await laySeconds(store, project);
    const id = await addMoment(store, project, kind, 5, 13);
    await setMoment(store, project, id, 'Place', { name: 'The shot', lands: 7 });
  });

/** Renders the shot; its pictures, and what the reference painter makes of what the page stored. */
async function rendered(bench: BenchPage, file: (name: string) => string) {
  bench.landed();
  const shot = await storedShot(bench);
  await bench.go('Hand over');
  await bench.render(file('shot.mov'));
  const pictures = decode(file('shot.mov'), size.width, size.height);
  expect(pictures).toHaveLength(shot.end - shot.start);
  const reference = referenceOf(shot, size, size, file);
  for (const frame of [shot.start, shot.lands, shot.lands + 5, shot.end - 1])
    expect(psnr(yuvToRgba(pictures[frame - shot.start]), reference(frame)), `frame ${frame}`).toBeGreaterThan(
      35,
    );
  // The first take that was brought in has set the rate.
  const project = (await bench.records()).find(
    (one): one is StoredRecord & Project => one.kind === 'project',
  );
  const at = (seconds: number, later = 0): YuvImage =>
    pictures[frameOfTime(project?.rate ?? { num: 0, den: 1 }, seconds) + later - shot.start];
  return { shot, pictures, at };
}

/** Mean luma of a part of a picture, in shares of it. */
function lightOf(
  { y, width, height }: YuvImage,
  [left, top, right, bottom]: readonly number[] = [0, 0, 1, 1],
): number {
  let [sum, count] = [0, 0];
  for (let row = Math.ceil(top * height); row < Math.floor(bottom * height); row++)
    for (let column = Math.ceil(left * width); column < Math.floor(right * width); column++) {
      sum += y[row * width + column];
      count++;
    }
  return sum / count;
}
/** The second of its take that a picture of the clock shows. */
const secondOf = (picture: YuvImage, part?: readonly number[]) => (lightOf(picture, part) - 40) / 20;

describe('each kind of moment, from its takes to a rendered file', () => {
  test('three copies stand in one picture, each from the frame of its beat, and none is cut', async ({
    open,
    file,
  }) => {
    ffmpeg(...wallOf(6), ...coded(file('empty.mp4')));
    const columns = { left: 60, right: 260, middle: 160 };
    for (const [name, column] of Object.entries(columns)) stands(file(`${name}.mp4`), column, 9);
    const bench = await open({ seed: await filmOf('clone'), at: 'station=build' });
    await bench.bringIn(...['empty', 'left', 'right', 'middle'].map((name) => file(`${name}.mp4`)));
    await bench.settled();
    await bench.choose('Take for the left', 'left');
    await bench.choose('Take for the right', 'right');
    await bench.type('How many of them', '3');
    await bench.settled();
    await bench.found('clone.missing');
    await bench.choose('Take for the third copy', 'middle');
    await bench.found('clone.further-lands');
    expect(await bench.page.locator('[data-severity=stop], [data-severity=fix]').allInnerTexts()).toEqual([]);
    const { at, shot } = await rendered(bench, file);
    const third = shot.anchors['copy-3'];
    expect(third).toBeGreaterThan(shot.lands + 10);
    const body = (column: number) => [(column - 8) / 320, 0.45, (column + 8) / 320, 0.8];
    const dark = (frame: number, column: number) => lightOf(at(0, frame), body(column)) < 70;
    const row = (frame: number) => Object.values(columns).map((column) => dark(frame, column));
    expect(row(shot.start)).toEqual([true, false, false]);
    expect(row(shot.lands - 1)).toEqual([true, false, false]);
    expect(row(shot.lands)).toEqual([true, true, false]);
    expect(row(third - 1)).toEqual([true, true, false]);
    for (const frame of [third, third + 20, shot.end - 1]) {
      expect(row(frame)).toEqual([true, true, true]);
      // Nobody is cut: each is as dark as they are wide.
      for (const column of Object.values(columns)) {
        const wide = [(column - 34) / 320, 0.45, (column + 34) / 320, 0.8];
        const share = (lightOf(at(0, frame), wide) - 180) / (40 - 180);
        expect(share, `frame ${frame}, column ${column}`).toBeGreaterThan(0.42);
      }
    }
  });

  test('a speed ramp shows each marked pose on the frame of its beat', async ({ open, file }) => {
    clock(file('pass.mp4'), 120);
    const bench = await open({ seed: await filmOf('speed-ramp'), at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('pass.mp4'));
    await bench.settled();
    await bench.choose('Take for the pass', 'pass');
    await bench.found('ramp.unmarked');
    // One pose is typed, the other marked on the picture.
    await bench.type('Pose 1 in the take', '3.5');
    await bench.settled();
    await bench.press('As filmed');
    await bench.press('To the landing');
    await page.getByRole('button', { name: 'Pose 2 in the take' }).click();
    await bench.settled();
    // As filmed the landing, two seconds in, is the second second of the take: before pose 1, which it cannot be.
    await bench.found('ramp.out-of-reach');
    await bench.type('Pose 2 in the take', '5.5');
    await bench.settled();
    expect(await bench.finding('ramp.unmarked').count()).toBe(0);
    await bench.found('ramp.lands');
    expect(await page.locator('[data-severity=stop]').allInnerTexts()).toEqual([]);
    const { at, pictures } = await rendered(bench, file);
    expect(secondOf(at(7))).toBeCloseTo(3.5, 1);
    expect(secondOf(at(10))).toBeCloseTo(5.5, 1);
    // 40 % on the pose, and never backwards.
    expect(secondOf(at(7.3)) - secondOf(at(6.7))).toBeCloseTo(0.6 * 0.4, 1);
    const seconds = pictures.map((picture) => secondOf(picture));
    seconds.slice(1).forEach((second, index) => expect(second).toBeGreaterThan(seconds[index] - 0.06));
  });

  test('a split screen shows each panel from the frame of its beat', async ({ open, file }) => {
    clock(file('clock.mp4'), 25);
    plain(file('dark.mp4'), 60);
    plain(file('light.mp4'), 180);
    const bench = await open({ seed: await filmOf('split-screen'), at: 'station=build' });
    await bench.bringIn(file('clock.mp4'), file('dark.mp4'), file('light.mp4'));
    await bench.settled();
    await bench.choose('Take for the first panel', 'dark');
    await bench.choose('Take for the second panel', 'light');
    await bench.found('split.missing');
    await bench.choose('Take for the third panel', 'clock');
    await bench.type('Start of the third panel take', '1.5');
    await bench.settled();
    expect(await bench.page.locator('[data-severity=stop]').allInnerTexts()).toEqual([]);
    const { at, pictures } = await rendered(bench, file);
    const [first, second, third] = [0, 1, 2].map((panel) => [(panel + 0.1) / 3, 0.1, (panel + 0.9) / 3, 0.9]);
    expect(lightOf(pictures[0], first)).toBeCloseTo(61, -0.5);
    expect(lightOf(pictures[0], second)).toBeLessThan(20);
    // The panels come on seconds 5, 6 and 7; the frame before is black there.
    expect(lightOf(at(6, -1), second)).toBeLessThan(20);
    expect(lightOf(at(6), second)).toBeGreaterThan(170);
    expect(lightOf(at(7, -1), third)).toBeLessThan(20);
    expect(secondOf(at(7), third)).toBeCloseTo(1.5, 1);
    expect(secondOf(at(9), third)).toBeCloseTo(3.5, 1);
  });

  test('further instants are knots on the passage, moved by keys and by hand, and taken back', async ({
    open,
  }) => {
    const bench = await open({ seed: await filmOf('split-screen'), at: 'station=build' });
    const { page } = bench;
    const knot = page.locator('[data-anchor=panel-2]');
    const comes = () => bench.number('The second panel comes on').getAttribute('aria-valuenow');
    await expect.poll(comes).toBe('6');
    await knot.focus();
    await page.keyboard.press('ArrowRight');
    await expect.poll(comes).toBe('6.5');
    await bench.settled();
    expect(await knot.evaluate((one) => one === document.activeElement)).toBe(true);
    const box = await knot.locator('circle').first().boundingBox();
    if (!box) throw new Error('The knot is not in sight.');
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    // Far beyond where the last panel comes, which holds it back.
    for (const far of [20, 200, 600]) await page.mouse.move(x + far, y);
    await page.mouse.up();
    await expect.poll(comes).toBe('7');
    await bench.undo(2);
    await expect.poll(comes).toBe('6');
  });

  test('a masked reveal begins on the frame of its beat and ends when it says', async ({ open, file }) => {
    plain(file('old.mp4'), 60);
    plain(file('new.mp4'), 180);
    const bench = await open({ seed: await filmOf('masked-reveal'), at: 'station=build' });
    await bench.bringIn(file('old.mp4'), file('new.mp4'));
    await bench.settled();
    await bench.choose('Take for the take before the change', 'old');
    await bench.choose('Take for the take after the change', 'new');
    await bench.type('The edge is soft by', '0');
    await bench.settled();
    await bench.found('reveal.lands');
    const { pictures, shot } = await rendered(bench, file);
    const lights = pictures.map((picture) => lightOf(picture));
    const { lands, start } = shot;
    expect(Math.max(...lights.slice(0, lands - start + 1))).toBeLessThan(63);
    expect(Math.min(...lights.slice(lands - start + 24))).toBeGreaterThan(178);
    // Half of the way down at half of the time: the upper half is new, the lower is not.
    const half = pictures[lands - start + 12];
    expect(lightOf(half, [0, 0, 1, 0.47])).toBeGreaterThan(178);
    expect(lightOf(half, [0, 0.53, 1, 1])).toBeLessThan(63);
  });

  test('a cover swap hides what is under its patch until the frame of its beat', async ({ open, file }) => {
    plain(file('empty.mp4'), 60);
    plain(file('action.mp4'), 180);
    const bench = await open({ seed: await filmOf('cover-swap'), at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('empty.mp4'), file('action.mp4'));
    await bench.settled();
    await bench.choose('Take for the take of the swap', 'action');
    await bench.choose('Take for the patch', 'empty');
    await bench.found('cover.not-drawn');
    await bench.type('The edge of the patch is soft by', '0');
    await bench.type('Each swap takes', '1');
    await page.getByRole('button', { name: 'Patch', exact: true }).click();
    // The outline is drawn by keys: its first point a little outwards.
    const knot = page.getByRole('slider', { name: /^Point 1 of the patch/ });
    await knot.focus();
    await page.keyboard.press('ArrowRight');
    await bench.settled();
    expect(await bench.finding('cover.not-drawn').count()).toBe(0);
    const { pictures, shot } = await rendered(bench, file);
    const middle = [0.45, 0.42, 0.55, 0.58];
    const gone = shot.lands - shot.start;
    for (const frame of [0, gone - 1]) expect(lightOf(pictures[frame], middle)).toBeLessThan(64);
    expect(lightOf(pictures[gone], middle)).toBeGreaterThan(177);
    expect(lightOf(pictures[0], [0, 0, 0.2, 1])).toBeGreaterThan(177);
  });

  test('a freeze stack lands each piece on the frame of its beat, and shakes without an edge', async ({
    open,
    file,
  }) => {
    plain(file('empty.mp4'), 60);
    plain(file('pose.mp4'), 180);
    const bench = await open({ seed: await filmOf('freeze-stack'), at: 'station=build' });
    await bench.bringIn(file('empty.mp4'), file('pose.mp4'));
    await bench.settled();
    // A clip in which nothing moves is taken for the clean plate; the first of them is used.
    await bench.choose('Take for the take of the pose', 'pose');
    await bench.type('The pose in the take', '2');
    await bench.settled();
    await bench.found('freeze.lands');
    const { at, pictures } = await rendered(bench, file);
    // Nobody was filmed, so the whole frame is cut into level pieces that land from below, a half second apart.
    const stripe = (piece: number) => [0.1, 1 - (piece - 0.2) / 4, 0.9, 1 - (piece - 0.8) / 4];
    [5.5, 6, 6.5, 7].forEach((seconds, index) => {
      expect(lightOf(at(seconds), stripe(index + 1)), `piece ${index + 1}`).toBeGreaterThan(176);
      if (index < 3) expect(lightOf(at(seconds, -9), stripe(index + 1))).toBeLessThan(176);
    });
    // The frame's own border stays as light as its middle, however it is shaken.
    for (const picture of pictures.slice(-40))
      for (const border of [
        [0, 0, 0.01, 1],
        [0.99, 0, 1, 1],
        [0, 0, 1, 0.02],
        [0, 0.98, 1, 1],
      ])
        expect(lightOf(picture, border)).toBeGreaterThan(170);
  });

  test('a performer is gone on the frame of one beat and back on the floor on that of another', async ({
    open,
    file,
  }) => {
    ffmpeg(...wallOf(6), ...coded(file('empty.mp4')));
    // Free fall over 0.6 s, 60 px high, from second 2; and a step off something 60 px high at second 1.
    jumps(file('jump.mp4'), 'if(between(t,2,2.6),240*((t-2)/0.6)*(1-(t-2)/0.6),0)', 6);
    jumps(file('landing.mp4'), 'if(lt(t,1),60,if(lt(t,1.36),60*(1-pow((t-1)/0.36,2)),0))', 9);
    const bench = await open({ seed: await filmOf('take-off'), at: 'station=build' });
    await bench.bringIn(file('empty.mp4'), file('jump.mp4'), file('landing.mp4'));
    await bench.settled();
    await bench.choose('Take for the take of the jump', 'jump');
    await bench.choose('Take for the take of the landing', 'landing');
    await bench.type('The ground shakes by', '0');
    await bench.settled();
    await bench.found('leap.lands');
    // The jump was measured: highest at 2.3 s, the floor at 1.36 s, each to within a picture or two.
    const said = async (label: string) => Number(await bench.number(label).getAttribute('aria-valuenow'));
    expect(Math.abs((await said('The last picture in the air')) - 2.3)).toBeLessThan(0.09);
    expect(Math.abs((await said('The picture in which the feet meet the floor')) - 1.36)).toBeLessThan(0.09);
    expect(await bench.page.locator('[data-severity=stop], [data-severity=fix]').allInnerTexts()).toEqual([]);
    const { at } = await rendered(bench, file);
    const [wall, somebody] = [165, 60];
    const head = [0.46, 0.03, 0.54, 0.3];
    const legs = [0.46, 0.6, 0.54, 0.8];
    expect(lightOf(at(5), legs)).toBeLessThan(somebody);
    // In the air on the frame before: the head where only wall was, the floor below the feet free.
    expect(lightOf(at(6, -1), [0.46, 0.1, 0.54, 0.3])).toBeLessThan(somebody);
    expect(lightOf(at(6, -1), legs)).toBeGreaterThan(wall);
    // A streak at the top on the frame of the beat; two frames later the set is empty.
    expect(lightOf(at(6), [0.46, 0, 0.54, 0.1])).toBeLessThan(120);
    expect(lightOf(at(6), legs)).toBeGreaterThan(wall);
    for (const later of [2, 5, 12]) expect(lightOf(at(6, later), [0.4, 0, 0.6, 1])).toBeGreaterThan(wall);
    // Still above the floor two frames before the second beat, on it from there on.
    expect(lightOf(at(7, -2), [0.46, 0.79, 0.54, 0.83])).toBeGreaterThan(150);
    for (const later of [1, 10, 60]) {
      expect(lightOf(at(7, later), legs)).toBeLessThan(somebody);
      expect(lightOf(at(7, later), head)).toBeGreaterThan(wall);
    }
  });
});
