import { keysAlongWay } from './way';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { invertAffine, mapPoint } from '../geometry/affine';
import type { Moment } from '../model/records';
import { groupOf, matrixAt, mediaIn, nodeOf, type Node } from '../picture/node';
import { still } from '../motion/keyframes';
import { swayOf } from '../motion/sway';
import { base, projectOf } from '../recipes/__tests__/chosen';
import type { Anchor, Ruler } from '../recipes/recipe';
import { frameOfBeat, regularGrid } from '../time/grid';
import type { Rate } from '../time/rate';
import { countKeyBy, moveKeyTo, saidAt, setKeyAt } from './edit';
import { examineHand } from './examine';
import { withLayersMoved, withWholeMoved, wholeMove } from './move';
import { movedKeys } from './moved';
import { valuesOf, type HandKey, type HandKeys, type KeyUnit } from './schema';
import { frameOfKey, placeOfFrame } from './track';

const size = { width: 640, height: 360 };
const rulerAt = (rate: Rate = { num: 24, den: 1 }, bpm = 120): Ruler => ({
  grid: regularGrid(bpm, 0.1, 120),
  project: projectOf(size, rate),
});
const ruler = rulerAt();
const anchorsOf = ({ grid, project }: Ruler): Anchor[] =>
  Object.entries({ start: 8, lands: 12, end: 16 }).map(([name, position]) => ({
    name,
    field: name,
    title: name,
    position,
    frame: frameOfBeat(grid, project.rate, position),
    limits: [0, 40],
    step: 0.5,
  }));
const anchors = anchorsOf(ruler);
const placing = { anchors, ruler };
const [from, until] = [anchors[0].frame, anchors[2].frame];
const key = (set: Partial<HandKey> = {}): HandKey => ({
  from: 'lands',
  by: 0,
  unit: 'frames',
  value: 0,
  ease: [0.75, 0, 0.25, 1],
  ...set,
});
const momentWith = (rest: Partial<Moment>): Moment =>
  ({
    ...base,
    id: 'm',
    kind: 'moment',
    recipe: 'clone',
    name: 'M',
    start: 8,
    lands: 12,
    end: 16,
    settings: {},
    ...rest,
  }) as Moment;
const layer = nodeOf({
  id: 'left',
  name: 'Left',
  from,
  until,
  content: { is: 'media', media: 'one', size, time: still(0) },
});
const tree = groupOf('shot', size, { from, until }, [layer]);
const codes = (rest: Partial<Moment>) =>
  examineHand(momentWith(rest), tree, anchors, ruler).map(({ severity, code }) => `${severity} ${code}`);

describe('a key set by hand', () => {
  it('counts in frames, beats or seconds from an instant, and follows each when rate or tempo change', () => {
    const at = (unit: KeyUnit, by: number, of: Ruler) =>
      (frameOfKey(key({ unit, by }), anchorsOf(of), of) ?? NaN) - anchorsOf(of)[1].frame;
    const [slow, fast] = [rulerAt({ num: 24, den: 1 }, 60), rulerAt({ num: 30, den: 1 }, 120)];
    // By arithmetic: half a second at 24, a beat at 120 and at 60 beats a minute.
    expect([at('seconds', 0.5, ruler), at('seconds', 0.5, fast)]).toEqual([12, 15]);
    expect([at('beats', 1, ruler), at('beats', 1, slow)]).toEqual([12, 24]);
    expect([at('frames', 7, slow), at('frames', 7, fast)]).toEqual([7, 7]);
    expect(frameOfKey(key({ from: 'gone' }), anchors, ruler)).toBeNull();
  });

  it('is on the frame that it was placed on, in whatever unit, from whatever instant', () => {
    const rate = fc.constantFrom({ num: 24000, den: 1001 }, { num: 25, den: 1 }, { num: 60, den: 1 });
    const unit = fc.constantFrom<KeyUnit>('frames', 'beats', 'seconds');
    fc.assert(
      fc.property(
        rate,
        fc.integer({ min: 61, max: 190 }),
        unit,
        fc.nat(2),
        fc.integer({ min: 1, max: 900 }),
        (fps, bpm, by, which, frame) => {
          const of = rulerAt(fps, bpm);
          const all = anchorsOf(of);
          const place = placeOfFrame(frame, all[which], by, of);
          expect(frameOfKey(place, all, of)).toBe(frame);
          const counted = countKeyBy(
            { ...key(), ...place },
            { from: 'start', unit: 'frames' },
            { anchors: all, ruler: of },
          );
          expect([counted.from, frameOfKey(counted, all, of)]).toEqual(['start', frame]);
        },
      ),
    );
  });

  it('is set on beats where one is near, changes what is there, and is moved as it is counted', () => {
    const lands = anchors[1].frame;
    const first = setKeyAt([], lands + 12, 30, placing);
    expect(first.keys[0]).toMatchObject({ from: 'lands', by: 1, unit: 'beats', value: 30 });
    const second = setKeyAt(first.keys, lands + 5, 10, placing);
    expect(second.keys[1]).toMatchObject({ from: 'lands', by: 5, unit: 'frames' });
    const again = setKeyAt(second.keys, lands + 12, 50, placing);
    expect([again.index, again.keys.map(({ value }) => value)]).toEqual([0, [50, 10]]);
    expect(moveKeyTo(second.keys[1], lands + 9, placing)).toMatchObject({ by: 9, unit: 'frames' });
    expect(saidAt([], 'size', lands, placing)).toBe(100);
    expect(saidAt(again.keys, 'across', lands + 40, placing)).toBe(50);
  });

  it('leads along a way that was drawn, at one speed, from what stood there', () => {
    const lands = anchors[1].frame;
    const span = { from: lands, until: lands + 20 };
    // Two legs of an equal length: half of the time each.
    const path: [number, number][] = [
      [0.2, 0.2],
      [0.4, 0.2],
      [0.4, 0.4],
    ];
    const before = setKeyAt(setKeyAt([], lands + 7, 99, placing).keys, lands + 40, 5, placing).keys;
    const { across, down } = keysAlongWay(
      path,
      span,
      { across: 10, down: 0 },
      { across: before, down: [] },
      placing,
    );
    const at = (keys: HandKey[], later: number) => saidAt(keys, 'across', lands + later, placing);
    expect([0, 5, 10, 20].map((later) => at(across, later))).toEqual([10, 20, 30, 30]);
    expect([0, 5, 10, 15, 20].map((later) => at(down, later))).toEqual([0, 0, 0, 10, 20]);
    // What was set in between is gone, what comes later stays.
    expect(at(across, 40)).toBe(5);
    expect(across.some(({ value }) => value === 99)).toBe(false);
    const circle = Array.from({ length: 60 }, (_, index): [number, number] => {
      const turn = (2 * Math.PI * index) / 59;
      return [0.5 + 0.2 * Math.cos(turn), 0.5 + 0.2 * Math.sin(turn)];
    });
    const round = keysAlongWay(circle, span, { across: 0, down: 0 }, { across: [], down: [] }, placing);
    for (let later = 0; later <= 20; later++) {
      const radius = Math.hypot(at(round.across, later) + 20, at(round.down, later));
      expect(Math.abs(radius - 20)).toBeLessThan(0.6);
    }
    const stays = keysAlongWay([[0.5, 0.5]], span, { across: 3, down: 4 }, { across: [], down: [] }, placing);
    expect([at(stays.across, 9), at(stays.down, 9)]).toEqual([3, 4]);
  });

  it('keeps its second when the beats are counted anew', () => {
    const keys: HandKeys = { left: { size: [key({ unit: 'beats', by: 1.5 }), key({ by: 4 })] } };
    const pinned = { start: 8, lands: 12, end: 16 };
    const [beats, frames] = movedKeys(keys, pinned, (position) => 2 * position).left.size;
    expect([beats.by, frames.by]).toEqual([3, 4]);
  });
});

describe('a picture moved by hand', () => {
  const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
  const handKey = fc.record({
    from: fc.constantFrom('start', 'lands', 'end'),
    by: fc.integer({ min: -40, max: 40 }),
    unit: fc.constant<KeyUnit>('frames'),
    value: number(-20, 20),
    ease: fc.oneof(
      fc.constant<'hold'>('hold'),
      fc.tuple(number(0, 1), number(-0.5, 1.5), number(0, 1), number(-0.5, 1.5)),
    ),
  });
  const list = fc.array(handKey, { maxLength: 4 });

  it('never shows an edge as a whole: brute force over corners and sub-frames of random moves', () => {
    fc.assert(
      fc.property(
        list,
        list,
        list,
        fc.integer({ min: 1, max: 99 }),
        number(0, 3),
        (across, down, turn, seed, strength) => {
          const filmed = {
            name: 'a take',
            every: 1 / 12,
            x: [0, 1.5, -1, 0],
            y: [0, -2, 1, 0],
            turn: [0, 1, -1, 0],
          };
          const moment = momentWith({
            keys: { whole: { across, down, turn } },
            handheld: { strength, seed, filmed: seed % 3 === 0 ? filmed : null },
          });
          const moved = withWholeMoved(tree, moment, anchors, ruler);
          for (let at = from - 0.5; at < until - 0.5; at += 0.11)
            for (const corner of [
              [0, 0],
              [size.width, 0],
              [0, size.height],
              [size.width, size.height],
            ] as const) {
              const [x, y] = mapPoint(invertAffine(matrixAt(moved, at)), [...corner]);
              expect(Math.min(x, y, size.width - x, size.height - y)).toBeGreaterThan(
                moved === tree ? -1 : -0.5,
              );
            }
        },
      ),
      { numRuns: 80 },
    );
  });

  it('is the same object where nothing is keyed, and its shutter sees the movement', () => {
    const plain = momentWith({ keys: {}, handheld: { strength: 0 } });
    expect(withWholeMoved(tree, plain, anchors, ruler)).toBe(tree);
    const shut: Node = { ...tree, shutter: { angle: 180, apart: 2 } };
    const moved = withWholeMoved(shut, momentWith({ handheld: { strength: 1 } }), anchors, ruler);
    expect([moved.shutter, mediaIn(moved).length]).toEqual([shut.shutter, 1]);
  });

  it('moves one layer and leaves the others, in shares of the frame', () => {
    const keys: HandKeys = { left: { across: [key({ value: 10 })], opacity: [key({ value: 40 })] } };
    const [moved] = mediaIn(withLayersMoved(tree, momentWith({ keys }), anchors, ruler));
    expect(mapPoint(matrixAt(moved, from), [0, 0])).toEqual([64, 0]);
    expect(moved.opacity[0].value).toBe(0.4);
    expect(
      mediaIn(withLayersMoved(tree, momentWith({ keys: { right: keys.left } }), anchors, ruler))[0],
    ).toBe(layer);
  });

  it('is covered even where a curve swings below every size, and offers nothing that would show nothing', () => {
    const swing = [key({ by: -10, value: 10, ease: [0.5, -2, 0.5, 1] }), key({ by: 10, value: 100 })];
    const moment = momentWith({ keys: { whole: { size: swing } } });
    expect(wholeMove(moment, tree, anchors, ruler)?.cover).toBeGreaterThan(1);
    expect(valuesOf('whole')).not.toContain('opacity');
    expect(valuesOf('left')).toContain('opacity');
  });

  it('says which keys wait for what is gone, how much is enlarged, and where black shows', () => {
    expect(codes({})).toEqual([]);
    expect(codes({ keys: { whole: { size: [key({ value: 120 })] } } })).toEqual([]);
    expect(codes({ keys: { left: { size: [key({ from: 'pose-3', value: 120 })] } } })).toEqual([
      'fix hand.lost',
    ]);
    expect(codes({ keys: { right: { size: [key()] } } })).toEqual(['fix hand.lost']);
    expect(codes({ keys: { whole: { across: [key({ value: 3 })] } } })).toEqual([]);
    expect(codes({ keys: { whole: { across: [key({ value: 8 })] } } })).toEqual(['watch hand.enlarged']);
    expect(codes({ keys: { left: { across: [key({ value: 8 })] } } })).toEqual(['watch hand.bare']);
    expect(codes({ keys: { left: { across: [key({ value: 8 })], size: [key({ value: 117 })] } } })).toEqual(
      [],
    );
  });
});

describe('the sway of a hand', () => {
  it('is as strong as it says over minutes, smooth, and the same for the same hand', () => {
    const sway = swayOf(10, 0.7, 4);
    const at = Array.from({ length: 24 * 600 }, (_, frame) => sway(frame / 24));
    const power = (of: 'x' | 'y') => Math.sqrt(at.reduce((sum, one) => sum + one[of] ** 2, 0) / at.length);
    expect(power('x')).toBeCloseTo(10, 0);
    expect(power('y')).toBeCloseTo(10, 0);
    // Waves of up to 0.7 · 1.7⁴ = 5.8 a second, the fastest a sixteenth as wide: from frame to frame less than a third.
    for (let index = 1; index < at.length; index++)
      expect(Math.abs(at[index].x - at[index - 1].x)).toBeLessThan(10);
    expect(swayOf(10, 0.7, 4)(1.5)).toEqual(sway(1.5));
    expect(swayOf(10, 0.7, 5)(1.5)).not.toEqual(sway(1.5));
  });

  it('is written in few keys that stay within a fraction of a pixel', () => {
    const moment = momentWith({ handheld: { strength: 1 } });
    const whole = wholeMove(moment, tree, anchors, ruler);
    const exact = swayOf(6.4, 0.7, 1);
    expect(whole?.step.x.length).toBeLessThan(until - from);
    for (const { frame, value } of whole?.step.x ?? []) expect(value).toBeCloseTo(exact(frame / 24).x, 9);
  });
});
