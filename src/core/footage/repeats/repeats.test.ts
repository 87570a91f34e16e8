import { describe, expect, it } from 'vitest';
import { shot, texture } from '../../__tests__/scene';
import { between, chain, cornerMove, inPlace, type Placement } from '../../geometry/placement';
import { quantile } from '../../statistics';
import { FreePathPass } from '../free-path';
import { registerFrame } from '../register';
import { inStep, pathInSize, type Travelled } from './in-step';
import { leftInParts } from './left';
import { RepeatTrack, wholeWay } from './repeat-track';

const size = { width: 320, height: 180 };
const perSecond = 25;
/** A set that is wider than what the camera sees of it. */
const setOf = (seed: number) => {
  const drawn = texture(seed, { width: 640, height: 200 });
  return (x: number, y: number) => drawn(x + 20, y + 10);
};
const scene = setOf(31);

/** A slide to the right that begins and ends gently, from the second that it starts at. */
const slide =
  (starts: number) =>
  (seconds: number): Placement => {
    const share = Math.min(1, Math.max(0, (seconds - starts) / 2));
    return { ...inPlace, dx: -120 * (3 * share ** 2 - 2 * share ** 3), dy: 4 * share };
  };
/** What a soft floor adds to a later pass. */
const drift = (seconds: number): Placement => ({
  ...inPlace,
  dx: 0.6 * Math.sin(seconds * 2),
  dy: -2 + seconds / 2,
  rotation: 0.12 * Math.cos(seconds),
  scale: 1.002,
});

type Way = (seconds: number) => Placement;

function filmed(way: Way, length: number, seed: number, acts = false, at = scene) {
  const count = Math.round(length * perSecond);
  const times = Array.from({ length: count }, (_, index) => 0.011 + index / perSecond);
  const pictures = times.map((seconds, index) => {
    const performer = acts ? { x: 60 + 40 * seconds, y: 40, w: 70, h: 140 } : undefined;
    const gray = shot(at, size, way(seconds), { noise: 2, seed: seed + index, performer });
    return { ...gray, data: Uint8Array.from(gray.data) };
  });
  return { times, pictures };
}

function travelled({ times, pictures }: ReturnType<typeof filmed>): Travelled {
  const pass = new FreePathPass(registerFrame);
  times.forEach((seconds, index) => pass.push({ luma: pictures[index], seconds }));
  const looks = times.flatMap((seconds, index) =>
    index % 8 === 0 ? [{ seconds, luma: pictures[index] }] : [],
  );
  return { path: pass.finish(), looks };
}

const first = filmed(slide(0.4), 3, 100);
const lead = travelled(first);

describe('a pass that repeats a move', () => {
  const again: Way = (seconds) => chain(slide(0.77)(seconds), drift(seconds));
  const second = filmed(again, 3.4, 900, true);
  const own = travelled(second);
  const late = inStep(lead, own)?.late ?? NaN;

  it('is laid in step with the first one, whoever acts in it', () => {
    expect(Math.abs(late - 0.37)).toBeLessThan(0.5 / perSecond);
  });

  // As close as a locked camera is told: median 0.02 px, 95 % within 0.05 px.
  it('is found against the first one’s picture, picture by picture, to hundredths of a pixel', () => {
    const track = new RepeatTrack(lead.path, late);
    const off: number[] = [];
    const met = second.times.filter((seconds) => track.meets(seconds));
    expect(met.length).toBeGreaterThan(70);
    for (const seconds of met) {
      const at = track.leadAt(seconds);
      const placed = track.push(first.pictures[at], second.pictures[second.times.indexOf(seconds)], seconds);
      off.push(cornerMove(between(between(slide(0.4)(first.times[at]), again(seconds)), placed), size));
    }
    const found = track.finish();
    console.info(`${quantile(off, 0.5).toFixed(3)} px, 95 % within ${quantile(off, 0.95).toFixed(3)} px`);
    expect(quantile(off, 0.5)).toBeLessThan(0.02);
    expect(quantile(off, 0.95)).toBeLessThan(0.05);

    // Beyond the first pass its camera went on by itself.
    const whole = wholeWay(found.times, found.own, own.path);
    expect(whole).toHaveLength(second.times.length);
    const truth = (seconds: number) => between(slide(0.4)(first.times[0]), again(seconds));
    const ends = [0, second.times.length - 1].map((index) =>
      cornerMove(between(truth(second.times[index]), whole[index]), size),
    );
    expect(Math.max(...ends)).toBeLessThan(0.6);
  });

  it('is laid in step though its lens was covered for a while, as the camera went on', () => {
    const black = { ...size, data: new Uint8Array(size.width * size.height).fill(16) };
    const pictures = second.pictures.map((picture, index) => (index >= 30 && index < 45 ? black : picture));
    const covered = inStep(lead, travelled({ ...second, pictures }))?.late ?? NaN;
    expect(Math.abs(covered - 0.37)).toBeLessThan(0.5 / perSecond);
  });

  it('lies no further beside for having twice as many pictures', () => {
    const times = second.times.slice(0, -1).flatMap((seconds) => [seconds, seconds + 0.5 / perSecond]);
    const track = new RepeatTrack(lead.path, 0.37);
    for (const [index, seconds] of times.entries()) {
      if (index < 24 || index >= 64) continue;
      const luma = shot(scene, size, slide(0.77)(seconds), { noise: 2, seed: index });
      track.push(first.pictures[track.leadAt(seconds)], luma, seconds);
    }
    const off = track.finish().beside.map((placed) => cornerMove(placed, size));
    expect(off).toHaveLength(40);
    // From one picture of the first pass to the next its camera goes by up to 3.6 px.
    expect(Math.max(...off)).toBeLessThan(0.25);
  });

  it('is in step by no shift at all where no camera moves', () => {
    const still = (length: number, seed: number) => travelled(filmed(() => inPlace, length, seed));
    expect(inStep(still(1, 40), still(1.4, 70))?.late).toBeCloseTo(0, 1);
  });

  it('is not laid on a pass through another place, or one of a single picture', () => {
    const elsewhere = travelled(filmed(slide(0.4), 1.2, 5, false, setOf(77)));
    expect(inStep(lead, elsewhere)).toBeNull();
    const short = travelled(filmed(slide(0.4), 1 / perSecond, 5));
    expect(inStep(lead, short)).toBeNull();
    expect(inStep(short, lead)).toBeNull();
  });
});

describe('what is left of a picture that was laid on another one', () => {
  const picture = (way: (y: number) => number, seed: number) =>
    shot((x, y) => scene(x + way(y), y), size, inPlace, { noise: 2, seed });

  it('is nothing where all of it fits, and what is near where the camera stood beside its way', () => {
    const empty = picture(() => 0, 1);
    expect(
      quantile(
        leftInParts(
          empty,
          picture(() => 0, 2),
        ),
        0.95,
      ),
    ).toBeLessThan(0.15);
    // The lower half is nearer to the lens: it moves by two pixels more.
    const beside = leftInParts(
      empty,
      picture((y) => (y > size.height / 2 ? 2 : 0), 3),
    );
    expect(beside).toHaveLength(6);
    expect(quantile(beside, 0.95)).toBeGreaterThan(1.8);
    expect(quantile(beside, 0.05)).toBeLessThan(0.15);
  });

  it('says nothing of parts in which there is nothing to hold on to', () => {
    const plain = { ...size, data: new Uint8Array(size.width * size.height).fill(90) };
    expect(leftInParts(plain, plain)).toEqual([]);
  });
});

describe('a path in another size', () => {
  it('has the same turns, and shifts of its own size', () => {
    const half = pathInSize(lead.path, { width: 160, height: 90 });
    expect(half.times).toBe(lead.path.times);
    expect(half.placements[0]).toBe(0);
    const last = half.placements.length - 5;
    expect(half.placements[last]).toBeCloseTo(lead.path.placements[last] / 2, 5);
    expect(half.placements[last + 3]).toBe(lead.path.placements[last + 3]);
  });
});
