import { beforeAll, describe, expect, it } from 'vitest';
import { sayFinding } from '../finding/say';
import { disturb, faultKinds, undisturbed, type PracticeFault } from '../practice/faults';
import { PracticeSet } from '../practice/practice-set';
import type { RgbaImage } from '../picture/image';
import { seeded } from '../random';
import { inPlace } from '../geometry/placement';
import { LiveWatch, type WatchFrame } from './alarms';
import { MovingPass } from './moving-pass';
import { cellGrid, readCells } from './cells';
import { crossingOf } from './crossing';
import { readPicture } from './reading';
import { watchReference, type WatchReference } from './reference';
import { verdictOf } from './verdict';

const size = { width: 640, height: 360 };
/** A quarter of the work: enough wherever no tenth of a pixel is asked for. */
const small = { width: 320, height: 180 };
const delivery = { width: 1280, height: 720 };
const frame: WatchFrame = {
  seams: [{ name: 'Join', from: [0.5, 0], to: [0.5, 1] }],
  copies: [{ name: 'Left copy', from: [0.22, 0.35], to: [0.5, 1] }],
};
let set: PracticeSet;
let plate: WatchReference;
let smallSet: PracticeSet;
let smallPlate: WatchReference;
const plateOf = (from: PracticeSet) =>
  watchReference([1, 2, 3].map((index) => from.frame('nobody', 0, 0, 900 + index, undisturbed)));
beforeAll(() => {
  set = new PracticeSet(size);
  plate = plateOf(set);
  smallSet = new PracticeSet(small);
  smallPlate = plateOf(smallSet);
});

/** A performer in front of the camera for some seconds, four checks a second; faults from the second second on. */
function watchTake(faults: readonly PracticeFault[], seconds: number, take = 0, within: WatchFrame = frame) {
  const watch = new LiveWatch(within, delivery);
  const said: { code: string; at: number }[] = [];
  for (let check = 0; check < seconds * 4; check++) {
    const time = check / 4;
    const since = time > 1 ? Object.fromEntries(faults.map((fault) => [fault, time - 1])) : {};
    const picture = smallSet.frame('works', take, time, check, disturb(since));
    for (const { code } of watch.push(readPicture(smallPlate, picture, delivery), time))
      said.push({ code, at: time });
  }
  return said;
}

describe('one check', () => {
  it('measures a planted move to a tenth of a delivery pixel, with somebody in the picture', () => {
    for (const [dx, dy] of [
      [0.5, 0],
      [-1.2, 0.7],
      [0, -0.4],
    ]) {
      const picture = set.frame('works', 0, 2, 5, { ...undisturbed, dx, dy });
      const { placement } = readPicture(plate, picture, delivery);
      expect(Math.hypot(placement.dx - dx, placement.dy - dy)).toBeLessThan(0.1);
    }
  });

  it('measures light in stops, and colour apart from it', () => {
    for (const stops of [-0.34, 0.2]) {
      const reading = readPicture(plate, set.frame('works', 0, 2, 5, { ...undisturbed, stops }), delivery);
      expect(reading.stops).toBeCloseTo(stops, 1);
      expect(reading.colour).toBeLessThan(1);
    }
    const warm = readPicture(plate, set.frame('works', 0, 2, 5, { ...undisturbed, warmth: 0.2 }), delivery);
    expect(warm.colour).toBeGreaterThan(2.3);
  });

  it('measures softness, and takes less light for no softness', () => {
    const soft = readPicture(plate, set.frame('nobody', 0, 2, 5, { ...undisturbed, blur: 2.6 }), delivery);
    expect(soft.sharpness).toBeLessThan(0.7);
    const dark = readPicture(plate, set.frame('nobody', 0, 2, 5, { ...undisturbed, stops: -0.34 }), delivery);
    expect(dark.sharpness).toBeGreaterThan(0.85);
  });

  it('finds the performer where she stands, and nobody on an empty set', () => {
    const empty = readPicture(plate, set.frame('nobody', 0, 0, 7, undisturbed), delivery);
    expect(empty.present.reduce((sum, value) => sum + value, 0)).toBe(0);
    expect(crossingOf(empty, [0.5, 0], [0.5, 1])).toBeNull();
    const there = readPicture(plate, set.frame('works', 0, 2, 7, undisturbed), delivery);
    // She stands at 470 of 1280, 330 units tall: cells of 20 × 20.
    const columns = [...there.present.keys()].filter((cell) => there.present[cell]).map((cell) => cell % 64);
    expect(Math.min(...columns)).toBeGreaterThan(17);
    expect(Math.max(...columns)).toBeLessThan(31);
  });

  it('refuses what cannot be compared, with what to do', () => {
    expect(() => watchReference([])).toThrow(expect.objectContaining({ code: 'no-reference' }));
    const tiny: RgbaImage = { width: 8, height: 8, data: new Uint8ClampedArray(256) };
    expect(() => readCells(tiny)).toThrow(expect.objectContaining({ code: 'watch.small' }));
    const square: RgbaImage = { width: 320, height: 320, data: new Uint8ClampedArray(320 * 320 * 4) };
    expect(() => readPicture(plate, square, delivery)).toThrow(
      expect.objectContaining({ code: 'watch.size' }),
    );
    const black: RgbaImage = { ...size, data: new Uint8ClampedArray(size.width * size.height * 4) };
    const reading = readPicture(plate, black, delivery);
    for (const value of [reading.move, reading.stops, reading.colour, reading.sharpness])
      expect(Number.isFinite(value)).toBe(true);
  });
});

describe('the live watch', () => {
  it('raises no alarm over a performer who only performs', () => {
    expect(watchTake([], 9)).toEqual([]);
    expect(watchTake([], 6, 1)).toEqual([]);
  });

  // What each switch of the practice camera has to be called. "Over the seam" and shadows are told apart.
  const expected: Record<PracticeFault, string> = {
    bump: 'watch.moved',
    knock: 'watch.moved',
    'auto exposure': 'watch.light',
    'light drifts': 'watch.light',
    'focus breathes': 'watch.soft',
    'cloth moved': 'watch.changed',
    'over the seam': 'watch.crossing',
    'hard shadow': 'watch.shadow',
  };
  it.each(faultKinds)('notices: %s', (fault) => {
    const said = watchTake([fault], 4);
    expect(said.map(({ code }) => code)).toContain(expected[fault]);
    expect(said.every(({ at }) => at > 1)).toBe(true);
  });

  it('lets a hand over the join where two are to touch, and nobody who walks across, and no shadow', () => {
    const touching = { ...frame, touching: true };
    const plain = readPicture(plate, set.frame('nobody', 0, 0, 1, undisturbed), delivery);
    /** Something on the join over a part of its height. */
    const over = (from: number, to: number) => {
      const present = Uint8Array.from(plain.present, (_, cell) => {
        const [x, y] = [cell % cellGrid.width, Math.floor(cell / cellGrid.width)];
        return Number(x === cellGrid.width / 2 && y >= from * cellGrid.height && y < to * cellGrid.height);
      });
      return { ...plain, present, shadow: new Uint8Array(present.length) };
    };
    const told = (within: WatchFrame, from: number, to: number) => {
      const watch = new LiveWatch(within, delivery);
      return [0, 0.2, 0.4].flatMap((time) => watch.push(over(from, to), time).map(({ code }) => code));
    };
    expect(told(frame, 0.4, 0.55)).toContain('watch.crossing');
    expect(told(touching, 0.4, 0.55)).toEqual([]);
    expect(told(touching, 0.3, 0.9)).toContain('watch.crossing');
    expect(watchTake(['hard shadow'], 4, 0, touching).map(({ code }) => code)).toContain('watch.shadow');
  });

  it('reports a bump of half a pixel by the second check after it, once', () => {
    const watch = new LiveWatch(frame, delivery);
    const said = [0, 1, 2, 3, 4, 5].map((check) => {
      const wrong = { ...undisturbed, dx: check >= 2 ? 0.5 : 0 };
      const picture = set.frame('works', 0, check / 5, check, wrong);
      return watch.push(readPicture(plate, picture, delivery), check / 5).map(({ code }) => code);
    });
    expect(said).toEqual([[], [], [], ['watch.moved'], [], []]);
    expect(watch.current().map(({ code }) => code)).toEqual(['watch.moved']);
  });

  it('says another view instead of a wild move, and takes the alarm back when it has passed', () => {
    const watch = new LiveWatch(frame, delivery);
    const other = new Uint8ClampedArray(size.width * size.height * 4).map((_, at) => (at * 7919) % 251);
    for (const time of [0, 0.2]) watch.push(readPicture(plate, { ...size, data: other }, delivery), time);
    expect(watch.current().map(({ code }) => code)).toEqual(['watch.view']);
    watch.push(readPicture(plate, set.frame('works', 0, 1, 3, undisturbed), delivery), 0.4);
    expect(watch.current()).toEqual([]);
  });
});

describe('the verdict on a clip', () => {
  const clip = (faults: Partial<Record<PracticeFault, number>>) =>
    [0, 1, 2, 3, 4, 5].map((at) => ({
      time: at,
      reading: readPicture(
        smallPlate,
        smallSet.frame('works', 0, at, at, disturb(at >= 3 ? faults : {})),
        delivery,
      ),
    }));

  it('passes a good clip, and names the time of a bump', () => {
    const good = verdictOf(clip({}), frame, delivery);
    expect(good).toMatchObject({ usable: true, pictures: 6 });
    expect(good.findings.map(({ code }) => code)).toEqual(['watch.good']);
    const bumped = verdictOf(clip({ knock: 2 }), frame, delivery);
    expect(bumped.usable).toBe(false);
    expect(bumped.findings[0]).toMatchObject({ code: 'watch.moved', where: { from: 3 } });
    expect(verdictOf([], frame, delivery)).toMatchObject({ usable: false });
  });

  it('never says that nobody crossed the join of a clip in which somebody did', () => {
    const said = (faults: Parameters<typeof clip>[0]) =>
      verdictOf(clip(faults), frame, delivery).findings.map(
        (one) => sayFinding(one, { takes: {}, grid: null }).text,
      );
    expect(said({}).join()).toContain('nobody crossed the join');
    const crossed = said({ 'over the seam': 1 });
    expect(crossed).toHaveLength(2);
    expect(crossed.join()).not.toContain('nobody crossed');
  });
});

describe('a move that is repeated', () => {
  // 6 stage units a second sideways, and what differs in a later pass.
  const at = (time: number, drift = 0) => ({ ...inPlace, dx: -6 * time - 8, dy: drift * time });
  const run = (pass: MovingPass, late: number, drift = 0) => {
    pass.begin();
    for (let check = 0; check < 8; check++) {
      const time = check / 4;
      pass.push(
        smallSet.frame('works', 0, time, check, undisturbed, at(Math.max(0, time - late), drift)),
        time,
      );
    }
    return pass.finish();
  };

  it('keeps the first pass and finds a second one that lags or drifts', () => {
    const pass = new MovingPass(delivery);
    expect(run(pass, 0)).toMatchObject({ first: true, findings: [{ code: 'pass.first' }] });
    const same = run(pass, 0);
    expect(same.findings.map(({ code }) => code)).toEqual(['pass.fits']);
    const lagging = run(pass, 0.2);
    expect(lagging.findings.map(({ code }) => code)).toContain('pass.late');
    const late = lagging.findings.find(({ code }) => code === 'pass.late')?.measured?.value ?? 0;
    expect(late).toBeGreaterThan(0.1);
    const drifting = run(pass, 0, 3);
    const drift = drifting.findings.find(({ code }) => code === 'pass.drift');
    expect(drift?.measured?.value).toBeGreaterThan(4);
    expect(drift?.where.from).toBeGreaterThan(1);
  });

  /** A push that starts, travels and rests, looked at when a busy machine finds the time. */
  const busy = (pass: MovingPass, next: () => number, late: (time: number) => number) => {
    pass.begin();
    for (let time = 0.05 + 0.2 * next(), check = 0; time < 4; time += 0.15 + 0.45 * next(), check++) {
      const along = Math.min(2.6, Math.max(0, time - late(time)));
      const place = { ...inPlace, dx: 9 - 7 * along };
      pass.push(smallSet.frame('works', 0, time, check, undisturbed, place), time);
    }
    return pass.finish().findings.map(({ code }) => code);
  };

  it('fits however seldom and unevenly a busy machine looks, and still tells what lags', () => {
    const next = seeded(11);
    for (let round = 0; round < 4; round++) {
      const pass = new MovingPass(delivery);
      expect(busy(pass, next, () => 0)).toEqual(['pass.first']);
      expect(busy(pass, next, () => 0)).toEqual(['pass.fits']);
      expect(busy(pass, next, () => 0.3)).toContain('pass.late');
    }
  });

  it('does not take a pass that was hardly begun for the first one', () => {
    const pass = new MovingPass(delivery);
    pass.begin();
    pass.push(set.frame('nobody', 0, 0, 0, undisturbed), 0);
    expect(pass.finish().findings[0].code).toBe('pass.short');
    expect(pass.hasFirst()).toBe(false);
  });
});
