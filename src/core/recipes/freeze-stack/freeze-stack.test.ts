import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { painted } from '../../__tests__/scene';
import { mapPoint } from '../../geometry/affine';
import type { Point } from '../../geometry/size';
import type { Cutout } from '../../footage/cutout';
import type { Comparison } from '../../model/measures';
import { valueAt } from '../../motion/keyframes';
import { shakeAfter } from '../../motion/shake';
import { canPaint } from '../../picture/draw-list';
import { matrixAt, mediaIn } from '../../picture/node';
import { isFitted } from '../../picture/outline';
import { paintFrame } from '../../picture/reference/paint';
import { frameOfBeat, regularGrid } from '../../time/grid';
import { base, chosenTake, projectOf } from '../__tests__/chosen';
import type { Material } from '../material';
import { inFile, within } from '../cutouts';
import { freezeStack } from '.';
import { cutsOf, freezeFrames, shakeOf, type FreezeMoment } from './build';

const signedArea = (ring: readonly Point[]): number =>
  ring.reduce((sum, [x, y], index) => {
    const [nextX, nextY] = ring[(index + 1) % ring.length];
    return sum + (x * nextY - nextX * y) / 2;
  }, 0);
const size = { width: 96, height: 54 };
const rate = { num: 25, den: 1 };
const ruler = { grid: regularGrid(120, 0.1, 60), project: projectOf(size, rate) };
const moment: FreezeMoment = {
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'freeze-stack',
  name: 'Wheel pose',
  start: 8,
  lands: 12,
  end: 16,
  settings: { pieces: 4, turn: 35, shake: 0 },
  slots: { pose: { take: 'pose', at: 1 } },
};
const set = (
  settings: Partial<FreezeMoment['settings']>,
  more: Partial<FreezeMoment> = {},
): FreezeMoment => ({
  ...moment,
  ...more,
  settings: { ...moment.settings, ...settings },
});
/** Somebody stands in the middle of the frame, from row 9 to the bottom of the coarse grid. */
const covered = Uint8Array.from({ length: 48 * 27 }, (_, cell) =>
  Number(cell % 48 >= 16 && cell % 48 < 32 && Math.floor(cell / 48) >= 9),
);
const standing = {
  ...chosenTake('pose', size, rate, 250),
  comparison: { covered, colour: null } as Comparison,
};
const material = (takes: Material['takes'] = {}): Material => ({
  takes: { plate: chosenTake('plate', size, rate, 100), pose: standing, ...takes },
  solved: {},
});
const codes = (given: FreezeMoment, of = material()) =>
  freezeStack.examine(given, ruler, of).map(({ severity, code }) => `${severity} ${code}`);
const lights: Record<string, number> = { 'media-plate': 40, 'media-pose': 200 };
const paint = (given: FreezeMoment, frame: number) =>
  paintFrame(freezeStack.build(given, ruler, material()), frame, size, (media) =>
    painted(size, () => [lights[media], lights[media], lights[media]]),
  ).data;
const { start, lands, end } = freezeFrames(moment, ruler);

describe('the freeze stack', () => {
  it('cuts whom the plate shows from feet to head', () => {
    const cuts = cutsOf(moment, material(), size);
    expect(cuts).toHaveLength(4);
    expect(cuts[0][3][1]).toBe(1);
    expect(cuts[3][0][1]).toBeCloseTo(8 / 27, 6);
    expect([cuts[0][0][0], cuts[0][1][0]].map((x) => x * 48)).toEqual([15, 33]);
    // Each begins where the one before it ends, so that nothing is missing between them.
    cuts.slice(1).forEach((cut, index) => expect(cut[2][1]).toBeCloseTo(cuts[index][0][1], 9));
    expect(cutsOf(moment, material({ pose: null }), size)[3][0]).toEqual([0, 0]);
  });

  it('is cut along an outline that is drawn, wherever its frame is pushed, and asks for no other', () => {
    // A file of another shape, so that a frame shows a part of it.
    const wide = { ...chosenTake('pose', { width: 200, height: 54 }, rate, 250), comparison: null };
    const given = material({ pose: wide });
    const pushed = { ...ruler, project: { ...ruler.project, push: { across: 50, down: 0 } } };
    const drawn: [number, number][] = [
      [0.3, 0.2],
      [0.7, 0.2],
      [0.5, 0.9],
    ];
    const outline = freezeStack.outline(moment, given, pushed, 0)?.drawn?.(drawn);
    const mine = set({ outline: outline as [number, number][] });
    const again = freezeStack.outline(mine, given, pushed, 0);
    expect(again).toMatchObject({ state: 'drawn', setting: 'outline' });
    again?.rings[0].forEach(([x, y], corner) => {
      expect(x).toBeCloseTo(drawn[corner][0], 9);
      expect(y).toBeCloseTo(drawn[corner][1], 9);
    });
    expect(freezeStack.works(mine, ruler, given)).toEqual([]);
    expect(freezeStack.works(moment, ruler, given)).toHaveLength(1);
    const cuts = cutsOf(mine, given, pushed.project);
    expect([cuts[0][2][1], cuts[3][0][1]].map((y) => y.toFixed(6))).toEqual(['0.900000', '0.200000']);
    const inside = mediaIn(freezeStack.build(mine, pushed, given)).find(({ id }) => id === 'pose-4');
    const [matte] = inside?.mattes ?? [];
    expect(matte.shape.is === 'outline' && matte.shape.keys[0].rings[0].length).toBeGreaterThan(3);
    expect(isFitted(matte)).toBe(false);
  });

  it('lands each piece exactly in its place on the frame of its beat, and keeps it there', () => {
    expect(lands).toEqual([9, 10, 11, 12].map((beat) => frameOfBeat(ruler.grid, rate, beat)));
    const pieces = mediaIn(freezeStack.build(moment, ruler, material())).slice(1);
    pieces.forEach((node, index) => {
      for (const frame of [lands[index], end - 1]) {
        const matrix = matrixAt(node, frame);
        [1, 0, 0, 1, 0, 0].forEach((value, at) => expect(matrix[at]).toBeCloseTo(value, 9));
      }
      expect(Math.hypot(...matrixAt(node, lands[index] - 6).slice(1, 2))).toBeGreaterThan(0.05);
    });
    const whole = paint(moment, lands[3]);
    expect(whole[4 * (40 * size.width + 48)]).toBe(200);
    expect(paint(moment, start)[4 * (40 * size.width + 48)]).toBe(40);
    // Two have landed: the lower half of the pose stands, its head does not.
    const half = paint(moment, lands[1]);
    expect([half[4 * (50 * size.width + 48)], half[4 * (18 * size.width + 48)]]).toEqual([200, 40]);
  });

  it('cuts along the pose where that was cut out of the set, and says so where it could not be', () => {
    // An arm out to the left at half height: a T of two boxes, in shares of the file.
    const rings: [number, number][][] = [
      [
        [0.4, 0.2],
        [0.6, 0.2],
        [0.6, 1],
        [0.4, 1],
        [0.4, 0.6],
        [0.2, 0.6],
        [0.2, 0.5],
        [0.4, 0.5],
      ],
    ];
    const cut = (more: Partial<Cutout> = {}): Material => ({
      ...material(),
      solved: { pose: { method: 'cutout-2', cutout: { rings, share: 0.2, faint: 0, ...more } } },
    });
    expect(codes(moment, cut())).toEqual(['fine freeze.lands']);
    expect(codes(moment, cut({ faint: 0.4 }))).toContain('watch freeze.faint');
    expect(codes(moment, cut({ share: 0, rings: [] }))).toContain('fix freeze.uncut');
    const [work] = freezeStack.works(moment, ruler, material());
    expect(work.task()).toMatchObject({ is: 'cutout', media: 'media-pose', seconds: 1 });
    // Without an empty set, or where that is asked for, it is found as a person.
    const person = { ...moment, settings: { ...moment.settings, by: 'person' as const } };
    for (const [asked, takes] of [
      [moment, { plate: null }],
      [person, {}],
    ] as const) {
      const [found] = freezeStack.works(asked, ruler, material(takes));
      expect(found.task()).toMatchObject({ is: 'cutout', media: 'media-pose', plate: null });
    }
    const tree = freezeStack.build(moment, ruler, cut());
    const { data } = paintFrame(tree, lands[3], size, (media) =>
      painted(size, () => [lights[media], lights[media], lights[media]]),
    );
    const light = (x: number, y: number) => data[4 * (Math.floor(y * 54) * size.width + Math.floor(x * 96))];
    expect([light(0.5, 0.3), light(0.3, 0.55), light(0.5, 0.9)]).toEqual([200, 200, 200]);
    // No line shows where two pieces meet.
    for (let row = 12; row < 53; row++) expect(light(0.5, row / 54)).toBeGreaterThan(190);
    expect([light(0.3, 0.3), light(0.3, 0.8), light(0.7, 0.5), light(0.5, 0.1)]).toEqual([40, 40, 40, 40]);
    // The backdrop's light goes where it is known and nothing of the backdrop is shown.
    const keyed = cut({ key: [40, 170, 60] });
    const lightOf = (set: Partial<FreezeMoment['settings']>) => {
      const some = { ...moment, settings: { ...moment.settings, by: 'backdrop' as const, ...set } };
      const whole = freezeStack.build(some, ruler, keyed);
      const told = freezeStack.explain(some, ruler, keyed, whole).map(({ text }) => text);
      return [
        mediaIn(whole).filter(({ content }) => content.without).length,
        told.filter((text) => /spill of red 40, green 170, blue 60/.test(text)).length,
      ];
    };
    expect(lightOf({})).toEqual([4, 4]);
    expect(lightOf({ after: 'runs' })).toEqual([0, 0]);
    expect(lightOf({ outline: rings[0] })).toEqual([0, 0]);
    // Every piece is fitted as a part of the whole pose, further where a person was found than where a plate says it.
    const fits = (by: 'plate' | 'person') =>
      mediaIn(freezeStack.build({ ...moment, settings: { ...moment.settings, by } }, ruler, cut()))
        .slice(1)
        .map(({ mattes: [{ shape }] }) => (shape.is === 'outline' && shape.fit) || null);
    const whole = inFile(rings, size);
    for (const [index, fit] of fits('person').entries()) {
      expect(fit?.part?.of).toEqual(whole);
      expect(fit?.reach).toBeGreaterThan(2 * (fits('plate')[index]?.reach ?? Infinity));
      // What leaves the outline is not cut off beside it.
      const xs = fit?.part?.within.map(([x]) => x) ?? [];
      expect(Math.min(...xs)).toBeLessThanOrEqual(0.2 * 96 - (fit?.reach ?? 0) + 1e-6);
      expect(Math.max(...xs)).toBeGreaterThanOrEqual(0.6 * 96 + (fit?.reach ?? 0) - 1e-6);
    }
  });

  it('leans its cuts, or takes them as they are drawn, and leaves nothing of the pose out', () => {
    const lean = set({ lean: 30, turn: 0, size: 100, from: 'place' });
    // The cut between two pieces is one line, at 30° in delivery pixels.
    const [feet, knees] = cutsOf(lean, material(), size);
    const shared = feet.filter(([x, y]) => knees.some(([a, b]) => Math.hypot(a - x, b - y) < 1e-9));
    expect(shared).toHaveLength(2);
    const [[x0, y0], [x1, y1]] = shared;
    const slope = ((y1 - y0) * size.height) / ((x1 - x0) * size.width);
    expect((Math.atan(slope) * 180) / Math.PI).toBeCloseTo(30, 9);
    const level = set({ turn: 0, size: 100, from: 'place' });
    const lit = (given: FreezeMoment) => paint(given, end - 1).filter((value) => value === 200).length;
    expect(lit(lean)).toBeGreaterThanOrEqual(lit(level) * 0.99);
    const ring: [number, number][] = [
      [0, 0],
      [0.5, 0],
      [0.5, 1],
      [0, 1],
    ];
    const drawn = set({ cuts: { 1: ring } });
    expect(cutsOf(drawn, material(), size)[0]).toEqual(ring);
    expect(freezeStack.outline(drawn, material(), ruler, start, 'piece-1')).toMatchObject({
      state: 'drawn',
      setting: 'cuts.1',
    });
    expect(freezeStack.outline(moment, material(), ruler, start, 'piece-5')).toBeNull();
  });

  // A square with a hole, cut through its middle: areas by hand.
  it('clips a pose with holes to its piece', () => {
    const square = (from: number, until: number): Point[] => [
      [from, from],
      [until, from],
      [until, until],
      [from, until],
    ];
    const half: Point[] = [
      [0, 0],
      [10, 0],
      [10, 5],
      [0, 5],
    ];
    const rings = within([square(0, 10), square(3, 7)], half);
    const area = Math.abs(rings.reduce((sum, ring) => sum + signedArea(ring), 0));
    expect(area).toBeCloseTo(50 - 8, 9);
    expect(within([], half)).toEqual([]);
  });

  it('turns and grows a piece about its own middle', () => {
    const given = set({ from: 'place' });
    const [, piece] = mediaIn(freezeStack.build(given, ruler, material()));
    const [cut] = cutsOf(given, material(), size);
    const middle: [number, number] = [
      (size.width * (cut[0][0] + cut[1][0])) / 2,
      (size.height * (cut[0][1] + cut[2][1])) / 2,
    ];
    const [x, y] = mapPoint(matrixAt(piece, lands[0] - 9), middle);
    expect([x, y]).toEqual([expect.closeTo(middle[0], 6), expect.closeTo(middle[1], 6)]);
  });

  it('runs on from the frozen picture, or stands', () => {
    const runs = mediaIn(freezeStack.build(set({ after: 'runs', frozen: 2 }), ruler, material()));
    const running = runs[runs.length - 1];
    expect([running.from, running.until]).toEqual([lands[3], end]);
    expect(valueAt(running.content.time, lands[3])).toBe(2);
    expect(valueAt(running.content.time, lands[3] + 25)).toBeCloseTo(3, 6);
    expect(mediaIn(freezeStack.build(moment, ruler, material()))).toHaveLength(5);
  });

  it('shakes without an edge: a frame that is all light stays so, by brute force over strengths', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 0, max: 40 }), (shake, after) => {
        const given = set({ shake });
        const frame = Math.min(end - 1, lands[0] + after);
        const tree = freezeStack.build(given, ruler, material());
        const { data } = paintFrame(tree, frame, size, () => painted(size, () => [200, 200, 200]));
        for (let pixel = 0; pixel < data.length; pixel += 4) expect(data[pixel]).toBeGreaterThanOrEqual(199);
        expect(canPaint(freezeStack.build(given, ruler, material()), frame)).toBe(true);
      }),
      { numRuns: 40 },
    );
    expect(shakeOf(set({ shake: 0 }), ruler)).toEqual({ transforms: [], scale: 1 });
  });

  it('shakes fully on the hit, less on each frame after it, and not at all from the eleventh on', () => {
    // 10 to 12 single-frame keyframes with a new direction each: common practice, no published source.
    const { x, y } = shakeAfter([100], 10, 3);
    const pushes = Array.from({ length: 13 }, (_, step) => [valueAt(x, 99 + step), valueAt(y, 99 + step)]);
    const strengths = pushes.map(([dx, dy]) => Math.hypot(dx, dy));
    expect(strengths[0]).toBe(0);
    expect(strengths[1]).toBeCloseTo(10, 9);
    for (let step = 2; step < 12; step++) expect(strengths[step]).toBeLessThan(strengths[step - 1]);
    expect(strengths[12]).toBe(0);
    for (let step = 2; step < 12; step++)
      expect(pushes[step][0] * pushes[step - 1][0] + pushes[step][1] * pushes[step - 1][1]).toBeLessThan(0);
    expect(shakeAfter([100], 10, 3)).toEqual({ x, y });
    expect(shakeAfter([], 10, 3).x).toHaveLength(1);
  });

  it('says what is missing, cramped, out of turn, or not in the take', () => {
    expect(codes(moment)).toEqual(['fine freeze.lands']);
    expect(codes(moment, material({ pose: null }))).toContain('stop freeze.missing');
    expect(codes(moment, material({ plate: null }))).toContain('fix freeze.missing');
    // Unsaid, a piece flies for as long as there is before the first one lands; said, it flies so long.
    const short = set({}, { pins: { 'piece-1': 8.5 } });
    expect(freezeStack.say(short, ruler, material())).toContainEqual({
      field: 'flight',
      value: lands[0] - 6 - start,
    });
    expect(codes(short)).toEqual(['fine freeze.lands']);
    expect(codes(set({ flight: 40 })).filter((code) => code === 'fix freeze.cramped')).toHaveLength(3);
    expect(codes({ ...moment, lands: 16 })).toContain('stop freeze.never-lands');
    expect(codes(set({ frozen: 50 }))).toContain('stop freeze.beyond');
    expect(codes(set({ frozen: 9.5, after: 'runs' }))).toContain('stop freeze.short');
    expect(codes(set({ frozen: 9.5 }))).toEqual(['fine freeze.lands']);
  });

  it('says itself in a sentence and in numbers', () => {
    const said = freezeStack.say(moment, ruler, material()).filter((part) => typeof part !== 'string');
    expect(said).toContainEqual({ field: 'frozen', value: 1, dye: 'woad' });
    const given = set({ shake: 6 });
    const steps = freezeStack.explain(given, ruler, material(), freezeStack.build(given, ruler, material()));
    expect(steps).toHaveLength(6);
    expect(steps[1].text).toContain(`lands on frame ${lands[0]}`);
    expect(steps[5].text).toMatch(/enlarge it to 1\d\d\.\d\d %/);
    const turn = steps[1].rows.filter(({ what }) => what === 'turn clockwise');
    expect(turn.map(({ frame, value }) => [frame, value])).toEqual([
      [lands[0] - 12, -35],
      [lands[0], 0],
    ]);
  });
});
