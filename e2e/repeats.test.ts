import { describe, expect } from 'vitest';
import type { YuvImage } from '@/core/picture/planes';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import { filmed, perSecond } from './support/composite';
import { decode } from './support/ffmpeg';
import { filmPass } from './support/passes';
import { seeded } from './support/seeds';
import { test } from './support/test';

/** A clone over seconds 1 to 5, whose copy appears in the second one. */
const film = seeded(async (store, project) => {
  await setProject(store, project, { ...filmed, rate: { num: perSecond, den: 1 }, megabits: 12 });
  await laySeconds(store, project);
  const id = await addMoment(store, project, 'clone', 1, 5);
  await setMoment(store, project, id, 'Place', { name: 'Passes by', lands: 2 });
});
const lands = perSecond;

/** The share of pixels whose luma is more than noise off. */
const wrong = (one: YuvImage, other: YuvImage): number =>
  one.y.reduce((count, luma, pixel) => (Math.abs(luma - other.y[pixel]) > 30 ? count + 1 : count), 0) /
  one.y.length;

describe('a clone that is filmed in passes of a moving camera', () => {
  test('is as one pass with both of them in it: in step, each picture put right, and the join goes along', async ({
    open,
    file,
  }) => {
    const slides = 300;
    filmPass(file('plate.mp4'), { starts: 1, slides, seconds: 5.5 });
    filmPass(file('left.mp4'), {
      ...{ starts: 1.4, slides, seconds: 5.5 },
      there: [{ at: 'left', begins: 0 }],
    });
    filmPass(file('right.mp4'), {
      ...{ starts: 0.73, slides, seconds: 5.2 },
      there: [{ at: 'right', begins: 0 }],
      // A soft floor puts this pass beside the others.
      drift: { x: '(3*sin(1.3*t))', y: '(1.5*t-4)' },
    });
    // Filmed from a tripod: it fits where the plate's camera has not gone far yet.
    filmPass(file('locked.mp4'), { starts: 90, seconds: 4, there: [{ at: 'right', begins: 0 }] });
    const bench = await open({ seed: await film, at: 'station=match' });
    const told = async (code: string) => (await bench.finding(code).first().textContent()) ?? '';
    await bench.bringIn(file('plate.mp4'), file('left.mp4'), file('right.mp4'), file('locked.mp4'));
    await bench.settled();
    await bench.choose('What Locked is', 'right');
    await bench.settled();

    // Held against one picture of the plate, neither take fits.
    await bench.found('take.moved');
    await bench.press('Hold takes against it picture by picture');
    await bench.settled();
    expect(await bench.finding('take.moved').count()).toBe(0);
    const [, beside] = /up to ([\d.]+) px beside it/.exec(await told('take.repeats-beside')) ?? [];
    expect(Number(beside)).toBeGreaterThan(2);
    expect(Number(beside)).toBeLessThan(6);
    expect(await told('take.repeats-loosely')).toMatch(/^Stop Locked does not repeat the plate's move/);
    await bench.press('Steady it');
    await bench.settled();
    const [, left] = /which leaves ([\d.]+) px/.exec(await told('take.repeats-corrected')) ?? [];
    console.info(`${beside} px beside the plate's move, of which ${left} px are left.`);
    expect(Number(left)).toBeLessThan(0.3);
    await bench.page.reload();
    await bench.arrived();

    // The pair that is offered is the one that fits.
    await bench.press('Use this pair in Passes by');
    await bench.settled();
    expect(await bench.page.getByLabel('Take for the right').textContent()).toBe('Right');
    expect(await told('repeat.in-step')).toMatch(/in step to 0 ms/);
    for (const open of [
      'clone.loses',
      'clone.cuts',
      'clone.crossing',
      'clone.join-shows',
      'repeat.out-of-step',
    ])
      expect(await bench.finding(open).count(), open).toBe(0);
    expect(await bench.audit()).toEqual([]);

    await bench.go('Hand over');
    await bench.type('Bits a second', '40');
    await bench.render(file('shot.mov'));
    const shown = decode(file('shot.mov'), filmed.width, filmed.height);
    // What one pass would have shown, by the left one's camera; the right one's acts as much earlier as it was filmed.
    filmPass(file('both.mp4'), {
      ...{ starts: 1.4, slides, seconds: 5.5, noise: 0 },
      there: [
        { at: 'left', begins: 0 },
        { at: 'right', begins: 1.4 - 0.73 },
      ],
    });
    const both = decode(file('both.mp4'), filmed.width, filmed.height);
    const off = shown.slice(lands).map((picture, index) => wrong(picture, both[lands + index]));
    console.info(`${(100 * Math.max(...off)).toFixed(2)} % of a picture is off at the most.`);
    expect(off.length).toBe(3 * perSecond);
    // An arm's edge where a picture more or less has passed; all of the right one, two pictures late, would be 0.02.
    expect(Math.max(...off)).toBeLessThan(0.012);

    // Two pictures out of step already show; a second is said, and put right by one press.
    await bench.go('Build');
    await bench.type('Start of the right take', '1.5');
    await bench.settled();
    await bench.found('repeat.out-of-step');
    await bench.press('Lay it in step');
    await bench.settled();
    expect(await bench.finding('repeat.out-of-step').count()).toBe(0);
  });
});
