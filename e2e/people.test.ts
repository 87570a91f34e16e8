import { describe, expect } from 'vitest';
import type { Flight } from '@/core/footage/flight';
import type { Point } from '@/core/geometry/size';
import { mediaIn } from '@/core/picture/node';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import { BenchPage } from './support/bench-page';
import { boardIn, filmJump, filmPerson, jumped, personIn, perSecond } from './support/composite';
import { decode, ffmpeg } from './support/ffmpeg';
import { portrait } from './support/photographs';
import { storedShot } from './support/rebuild';
import { seeded } from './support/seeds';
import { startServer } from './support/server';
import { test } from './support/test';

const size = { width: 480, height: 270 };

/** A freeze stack over seconds 5 to 9 whose last piece lands on second 7. */
const film = seeded(async (store, project) => {
  await setProject(store, project, { ...size, megabits: 8 });
  await laySeconds(store, project);
  const id = await addMoment(store, project, 'freeze-stack', 5, 9);
  await setMoment(store, project, id, 'Place', { name: 'The shot', lands: 7 });
});

/** True for a point inside an odd number of outlines. */
const inside = (rings: readonly Point[][], [x, y]: Point): boolean =>
  rings.filter((ring) =>
    ring.reduce((odd, [ax, ay], index) => {
      const [bx, by] = ring[(index + 1) % ring.length];
      return ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax ? !odd : odd;
    }, false),
  ).length %
    2 ===
  1;

/** The camera moves over a photograph: no picture is where the one before was. */
const filmPortrait = (path: string): void =>
  ffmpeg(
    ...['-loop', '1', '-framerate', '25', '-t', '6', '-i', portrait()],
    ...['-vf', "crop=480:270:x='10+2*t':y='30+3*t',format=yuv420p"],
    ...['-c:v', 'libx264', '-qp', '10', path],
  );

/** A take-off over seconds 1 to 3. */
const leap = seeded(async (store, project) => {
  await setProject(store, project, { width: 480, height: 480, megabits: 8 });
  await laySeconds(store, project);
  const id = await addMoment(store, project, 'take-off', 1, 3);
  await setMoment(store, project, id, 'Place', { name: 'The jump', lands: 2, 'settings.way': 'take-off' });
});

describe('a jump before no empty set', () => {
  test('is measured by the feet, to the picture, and the jumper is cut out of it', async ({ open, file }) => {
    filmJump(file('jump.mp4'));
    const bench = await open({ seed: await leap, at: 'station=build' });
    await bench.bringIn(file('jump.mp4'));
    await bench.settled();
    await bench.choose('Take for the take of the jump', 'Jump');
    const answers = (await bench.rows('measures')) as {
      value: { method: string; flight?: Flight; cutout?: { share: number } };
    }[];
    const flight = answers.find(({ value }) => value.method === 'flight-1')?.value.flight;
    console.info(`Feet off the ground: ${JSON.stringify(flight)}.`);
    // Wanted: within one frame of what was filmed.
    const picture = 1 / perSecond;
    expect(Math.abs((flight?.leaves ?? NaN) - jumped.last * picture)).toBeLessThan(1.01 * picture);
    expect(Math.abs((flight?.meets ?? NaN) - jumped.first * picture)).toBeLessThan(1.01 * picture);
    const cutout = answers.find(({ value }) => value.method === 'cutout-2')?.value.cutout;
    expect(cutout?.share).toBeGreaterThan(0.04);
    for (const code of ['leap.no-flight', 'leap.uncut']) expect(await bench.finding(code).count()).toBe(0);
    // That nothing stands behind them is said.
    await bench.found('leap.missing');
  });
});

describe('a person whom a moving camera filmed, and no empty set', () => {
  test('is found, cut out, built from pieces on the beat and rendered', async ({ open, file }) => {
    filmPortrait(file('pose.mp4'));
    const bench = await open({ seed: await film, at: 'station=build' });
    await bench.bringIn(file('pose.mp4'));
    await bench.settled();
    await bench.choose('Take for the take of the pose', 'Pose');
    await bench.settled();
    expect(await bench.finding('freeze.uncut').count()).toBe(0);
    const answers = (await bench.rows('measures')) as {
      value: { method: string; cutout?: { rings: Point[][]; share: number } };
    }[];
    const cutout = answers.find(({ value }) => value.method === 'cutout-2')?.value.cutout;
    if (!cutout) throw new Error('Nobody was cut out.');
    expect(cutout.share).toBeGreaterThan(0.25);
    expect(cutout.share).toBeLessThan(0.7);
    // Places in the photograph, seen through the first picture: the face and the suit, the flag and the wall.
    const seen = (x: number, y: number): Point => [(x - 10) / size.width, (y - 30) / size.height];
    for (const [x, y] of [
      [225, 110],
      [230, 240],
    ])
      expect([x, y, inside(cutout.rings, seen(x, y))]).toEqual([x, y, true]);
    for (const [x, y] of [
      [30, 60],
      [470, 120],
    ])
      expect([x, y, inside(cutout.rings, seen(x, y))]).toEqual([x, y, false]);
    const shot = await storedShot(bench);
    bench.landed();
    // There is no backdrop of one colour in it, which is said; undone, the person stands again.
    await bench.choose('The pose is cut out', 'by the colour of its backdrop');
    await bench.found('freeze.uncut');
    await bench.undo();
    expect(await bench.finding('freeze.uncut').count()).toBe(0);
    await bench.go('Hand over');
    await bench.render(file('shot.mov'));
    const pictures = decode(file('shot.mov'), size.width, size.height);
    const lands = Math.round((shot.rate.num / shot.rate.den) * 7) - shot.start;
    const light = (frame: number, x: number, y: number) => {
      const [across, down] = seen(x, y);
      return pictures[frame].y[Math.round(down * size.height) * size.width + Math.round(across * size.width)];
    };
    // Black before the pieces come, since there is no empty set; the face is there once the last one landed.
    expect(light(0, 225, 110)).toBeLessThan(24);
    expect(light(lands + 10, 225, 110)).toBeGreaterThan(80);
    expect(light(lands + 10, 30, 60)).toBeLessThan(24);
  });

  test('before a green backdrop is cut out with what they hold and without what hangs beside them, and the green goes', async ({
    open,
    file,
  }) => {
    // A board that hangs before the backdrop is of it as little as the person is.
    const hangs = 'color=0x30a048:s=600x400,drawbox=x=500:y=150:w=60:h=90:color=0x3040b0:t=fill';
    ffmpeg('-f', 'lavfi', '-i', hangs, '-frames:v', '1', file('green.png'));
    filmPerson(file('person.mp4'), 2, { holds: true, ground: file('green.png') });
    // The backdrop throws its light on everything.
    ffmpeg(
      ...['-i', file('person.mp4'), '-f', 'lavfi', '-i', `color=0x30a048:s=480x270:r=${perSecond}`],
      ...['-filter_complex', "[0][1]blend=all_expr='0.85*A+0.15*B':shortest=1,format=yuv420p"],
      ...['-c:v', 'libx264', '-crf', '16', file('pose.mp4')],
    );
    const bench = await open({ seed: await film, at: 'station=build' });
    await bench.bringIn(file('pose.mp4'));
    await bench.settled();
    await bench.choose('Take for the take of the pose', 'Pose');
    const cutBy = async (by: string) => {
      await bench.choose('The pose is cut out', by);
      await bench.settled();
      const [piece] = mediaIn((await storedShot(bench)).tree);
      const shape = piece.mattes[0].shape;
      if (shape.is !== 'outline' || !shape.fit?.part) throw new Error('It is not cut out.');
      const rings = shape.fit.part.of.map((ring) =>
        ring.map(([x, y]): Point => [x / size.width, y / size.height]),
      );
      const shown = personIn(0);
      const middle = (ring: Point[]): Point => [
        ring.reduce((sum, [x]) => sum + x, 0) / ring.length,
        ring.reduce((sum, [, y]) => sum + y, 0) / ring.length,
      ];
      return {
        person: inside(rings, middle(shown)),
        held: inside(rings, middle(boardIn(0))),
        hung: inside(rings, [(530 - 60) / size.width, (195 - 90) / size.height]),
        green: piece.content.without,
      };
    };
    expect(await cutBy('by the colour of its backdrop')).toMatchObject({
      person: true,
      held: true,
      hung: true,
    });
    const { green, ...found } = await cutBy('by the colour of its backdrop and the person');
    expect(found).toEqual({ person: true, held: true, hung: false });
    green?.forEach((value, channel) => expect(Math.abs(value - [48, 160, 72][channel])).toBeLessThan(16));
    await bench.go('Hand over');
    await bench.render(file('shot.mov'));
    const pictures = decode(file('shot.mov'), size.width, size.height);
    const { y, u, v } = pictures[pictures.length - 2];
    // Chroma of the backdrop lies below the middle in both; a share of it is left in what is half covered, unless it is taken out.
    const greens = [...u.keys()].filter((at) => u[at] < 120 && v[at] < 116).length;
    const lit = [...y.keys()].filter((at) => y[at] > 40).length;
    console.info(`Of ${lit} pixels that show, ${4 * greens} are greenish.`);
    expect(lit).toBeGreaterThan(0.15 * size.width * size.height);
    expect(4 * greens).toBeLessThan(0.002 * lit);
  });

  test('waits for nothing where what finds people cannot be fetched; all else goes on', async ({
    browser,
    file,
  }) => {
    filmPortrait(file('pose.mp4'));
    const server = await startServer();
    const bench = await BenchPage.open(browser, server.url, {
      seed: await film,
      offline: true,
      at: 'station=build',
    });
    const { page } = bench;
    await page.evaluate('navigator.serviceWorker.ready.then(() => undefined)');
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    await server.stop();
    await bench.bringIn(file('pose.mp4'));
    await bench.settled();
    await bench.choose('Take for the take of the pose', 'Pose');
    const ended = page.locator('[data-ended]');
    await ended.getByText(/what finds people \(21 MB\) could not be fetched/i).waitFor();
    expect(await page.getByText(/^Being worked out/).count()).toBe(0);
    await page.reload();
    await ended.waitFor();
    // What needs no network is worked out all the same.
    await bench.choose('The pose is cut out', 'by the colour of its backdrop');
    await bench.found('freeze.uncut');
    expect(await ended.count()).toBe(0);
    await bench.close();
  });
});
