import { describe, expect, it } from 'vitest';
import { painted } from '../../__tests__/scene';
import type { Answer } from '../../footage/task';
import type { Point } from '../../geometry/size';
import type { Mend } from '../../model/mend';
import { canPaint } from '../../picture/draw-list';
import { matrixAt, mediaIn, secondsAt, type MediaNode } from '../../picture/node';
import { paintFrame } from '../../picture/reference/paint';
import { frameOfBeat, regularGrid } from '../../time/grid';
import { base, chosenTake, projectOf } from '../__tests__/chosen';
import type { Material } from '../material';
import { takeOff } from '.';
import { leapFrames, leapShake, type LeapMoment } from './build';

const size = { width: 96, height: 54 };
const rate = { num: 25, den: 1 };
const ruler = { grid: regularGrid(120, 0.1, 60), project: projectOf(size, rate) };
const moment: LeapMoment = {
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'take-off',
  name: 'Off the bench',
  start: 8,
  lands: 16,
  end: 20,
  settings: { way: 'both', shake: 0 },
  slots: { up: { take: 'up', at: 0 }, down: { take: 'down', at: 0.5 } },
};
const set = (settings: Partial<LeapMoment['settings']>, more: Partial<LeapMoment> = {}): LeapMoment => ({
  ...moment,
  ...more,
  settings: { ...moment.settings, ...settings },
});
/** Somebody in the middle of the frame, their feet at four fifths of its height. */
const rings: Point[][] = [
  [
    [0.4, 0.3],
    [0.6, 0.3],
    [0.6, 0.8],
    [0.4, 0.8],
  ],
];
const cutout: Answer = { method: 'cutout-2', cutout: { rings, share: 0.1, faint: 0 } };
const flight = (highest: number, meets: number | null): Answer => ({
  method: 'flight-1',
  flight: { leaves: 2, highest, meets },
});
const material = (takes: Material['takes'] = {}, solved: Material['solved'] = {}): Material => ({
  takes: {
    plate: chosenTake('plate', size, rate, 100),
    up: chosenTake('up', size, rate, 100),
    down: chosenTake('down', size, rate, 150),
    ...takes,
  },
  solved: {
    'up-flight': flight(2.5, null),
    'down-flight': flight(1, 2),
    'up-cutout': cutout,
    'down-cutout': cutout,
    ...solved,
  },
});
const codes = (given: LeapMoment, of = material()) =>
  takeOff.examine(given, ruler, of).map(({ severity, code }) => `${severity} ${code}`);
/** A jump from the floor at 2 s to the floor at 2.6 s, each of its pictures cut out. @param gone the one in which nobody is */
const inAir = (gone?: number): Material['solved'] => ({
  'up-flight': { method: 'flight-1', flight: { leaves: 2, highest: 2.3, meets: 2.6 } },
  'up-raised': {
    method: 'figures-2',
    figures: Array.from({ length: 16 }, (_, index) => ({
      ...(index === gone ? { rings: [], share: 0, faint: 0 } : cutout.cutout),
      seconds: 2 + (index - 1) / 25,
    })),
  },
});
const { start, leaves, meets, end } = leapFrames(moment, ruler) as {
  start: number;
  leaves: number;
  meets: number;
  end: number;
};
const node = (id: string, given = moment, of = material()) =>
  mediaIn(takeOff.build(given, ruler, of)).find((one) => one.id === id);
const lights: Record<string, number> = { 'media-plate': 40, 'media-up': 200, 'media-down': 120 };
const paint = (frame: number) =>
  paintFrame(takeOff.build(moment, ruler, material()), frame, size, (media) =>
    painted(size, () => [lights[media], lights[media], lights[media]]),
  ).data;
/** Light down the middle of the frame, row by row. */
const column = (frame: number) => {
  const data = paint(frame);
  return Array.from({ length: size.height }, (_, row) => data[4 * (row * size.width + 48)]);
};

describe('take-off and landing', () => {
  it('puts both on the frames of their beats: the take-off halfway, until somebody moves it', () => {
    expect([leaves, meets]).toEqual([12, 16].map((beat) => frameOfBeat(ruler.grid, rate, beat)));
    const moved = leapFrames({ ...moment, pins: { leaves: 10 } }, ruler);
    expect(moved.leaves).toBe(frameOfBeat(ruler.grid, rate, 10));
    expect(leapFrames(set({ way: 'landing' }), ruler)).toMatchObject({ leaves: null, meets });
    expect(leapFrames(set({ way: 'take-off' }), ruler)).toMatchObject({ leaves: meets, meets: null });
  });

  it('runs the push-off at 200 % up to the picture that was measured, with a hard change of speed', () => {
    // The push-off at 200 %, over so many frames as CRAFT.md's streak: common practice, no published source.
    const jump = node('up');
    if (!jump) throw new Error('There is no jump.');
    expect(jump.until).toBe(leaves);
    const second = (frame: number) => secondsAt(jump, frame);
    expect(second(leaves)).toBeCloseTo(2.5, 9);
    expect(second(leaves) - second(leaves - 4)).toBeCloseTo(8 / 25, 9);
    expect(second(leaves - 4) - second(leaves - 8)).toBeCloseTo(4 / 25, 9);
    const landing = node('down');
    if (!landing) throw new Error('There is no landing.');
    expect(secondsAt(landing, meets)).toBeCloseTo(2, 9);
    expect(secondsAt(landing, meets) - secondsAt(landing, meets - 4)).toBeCloseTo(8 / 25, 9);
    expect(secondsAt(landing, meets + 10) - 2).toBeCloseTo(10 / 25, 9);
    // What somebody marks goes before what was measured.
    expect(secondsAt(node('up', set({ left: 1.5 })) ?? jump, leaves)).toBeCloseTo(1.5, 9);
  });

  it('streaks half out of the frame, then out of it, then the set is empty; and back in reverse', () => {
    const first = column(leaves);
    // Half of the way up: the feet are at two fifths of the height; open all frame, a quarter either way.
    expect(first[Math.round(0.62 * 54)]).toBe(40);
    expect(first[Math.round(0.15 * 54)]).toBeGreaterThan(120);
    const second = column(leaves + 1);
    expect(Math.max(...second.slice(Math.round(0.25 * 54)))).toBe(40);
    expect(Math.max(...second)).toBeLessThan(Math.max(...first));
    expect(new Set(column(leaves + 2))).toEqual(new Set([40]));
    expect(new Set(column(meets - 7))).toEqual(new Set([40]));
    expect(Math.max(...column(meets - 6))).toBeLessThan(Math.max(...column(meets - 5)));
    expect(column(meets - 4)[50]).toBe(120);
    expect(column(start)[0]).toBe(200);
    for (let frame = start; frame < end; frame++)
      expect(canPaint(takeOff.build(moment, ruler, material()), frame)).toBe(true);
  });

  it('shakes the ground after both, and asks for the jump before it asks for the cut-out', () => {
    const shaken = leapShake(set({ shake: 10 }), ruler);
    expect(shaken.scale).toBeGreaterThan(1);
    expect(leapShake(moment, ruler).transforms).toEqual([]);
    const names = (given: LeapMoment, of: Material) =>
      takeOff.works(given, ruler, of).map(({ name }) => name);
    const unknown = { ...material(), solved: {} };
    expect(names(moment, unknown)).toEqual(['up-flight', 'down-flight']);
    expect(names(set({ left: 1 }), unknown)).toEqual(['up-cutout', 'down-flight']);
    expect(names(set({ way: 'take-off' }), material())).toEqual(['up-flight', 'up-cutout']);
    expect(names(moment, { ...material({ plate: null }), solved: {} })).toEqual(['up-flight', 'down-flight']);
    const [byFeet] = takeOff.works(moment, ruler, material({ plate: null }));
    expect(byFeet.task()).toMatchObject({ is: 'flight', media: 'media-up', plate: null });
    const byPerson = takeOff.works(set({ left: 1 }), ruler, material({ plate: null }))[0];
    expect(byPerson.task()).toMatchObject({ is: 'cutout', by: 'person', plate: null });
    const [, work] = takeOff.works(set({ way: 'landing' }), ruler, material());
    expect(work.task()).toMatchObject({
      is: 'cutout',
      media: 'media-down',
      seconds: expect.closeTo(1.68, 9),
    });
  });

  it('says what is missing, crowded, not in the air, not cut out or not in the take', () => {
    expect(codes(moment)).toEqual(['fine leap.lands']);
    expect(codes(moment, material({ up: null }))).toContain('stop leap.missing');
    expect(codes(moment, material({ plate: null }))).toContain('fix leap.missing');
    expect(codes(set({}, { pins: { leaves: 15.5 } }))).toContain('fix leap.crowded');
    expect(codes(set({}, { pins: { leaves: 17 } }))).toContain('stop leap.never-lands');
    const none: Answer = { method: 'flight-1', flight: null };
    expect(codes(moment, material({}, { 'up-flight': none }))).toContain('fix leap.no-flight');
    expect(codes(set({ left: 2.5 }), material({}, { 'up-flight': none }))).toEqual(['fine leap.lands']);
    const nobody: Answer = { method: 'cutout-2', cutout: { rings: [], share: 0, faint: 0 } };
    expect(codes(moment, material({}, { 'down-cutout': nobody }))).toContain('fix leap.uncut');
    expect(codes(set({ left: 9 }))).toContain('stop leap.beyond');
    expect(codes(set({ left: 0.5 }))).toContain('fix leap.short');
    expect(codes(set({ met: 5.5 }))).toContain('fix leap.short');
  });

  it('says itself in a sentence and in numbers', () => {
    const said = takeOff.say(moment, ruler, material()).filter((part) => typeof part !== 'string');
    expect(said).toContainEqual({ field: 'left', value: 2.5, dye: 'cochineal' });
    expect(said).toContainEqual({ anchor: 'leaves' });
    const tree = takeOff.build(set({ shake: 10 }), ruler, material());
    const steps = takeOff.explain(set({ shake: 10 }), ruler, material(), tree);
    expect(steps.map(({ title }) => title)).toEqual([
      'Clean plate',
      'Jump: up',
      'Streak: up',
      'Streak: down',
      'Landing: down',
      'Over all of it',
    ]);
    expect(steps[1].text).toContain(`it is gone on frame ${leaves}`);
    expect(steps[2].rows.filter(({ what }) => what === 'move down').map(({ value }) => value)).toEqual([
      0,
      expect.closeTo(-0.8 * 54, 6),
    ]);
  });
});

describe('a jump that is raised', () => {
  const raised = set({ way: 'raised', raise: 20 });
  const given = material({}, inAir());
  const tree = takeOff.build(raised, ruler, given);
  const lands = frameOfBeat(ruler.grid, rate, 16);
  const part = (id: string) => mediaIn(tree).find((node) => node.id === id);

  it('shows its feet on the floor on the beat, and the jumper higher in between, as a body that is thrown up', () => {
    const air = part('up-raised');
    expect([air?.from, air?.until]).toEqual([lands - 15, lands]);
    expect(secondsAt(part('up-after') as MediaNode, lands)).toBeCloseTo(2.6, 9);
    expect(secondsAt(air as MediaNode, lands - 15)).toBeCloseTo(2, 9);
    const higher = (frame: number) => -matrixAt(air as MediaNode, frame)[5];
    // A thrown body: heights are a parabola over time, highest half-way.
    expect([higher(lands - 15), higher(lands)]).toEqual([0, 0].map((zero) => expect.closeTo(zero, 9)));
    for (let frame = lands - 15; frame <= lands; frame++) {
      const share = (frame - (lands - 15)) / 15;
      expect(higher(frame)).toBeCloseTo(0.2 * size.height * 4 * share * (1 - share), 6);
    }
    for (let frame = tree.from; frame < tree.until; frame += 3) expect(canPaint(tree, frame)).toBe(true);
    expect(codes(raised, given)).toEqual(['fine leap.lands']);
  });

  it('asks for the jump, and then for each of its pictures to be cut out', () => {
    const names = (of: Material) => takeOff.works(raised, ruler, of).map(({ name }) => name);
    expect(names({ ...given, solved: {} })).toEqual(['up-flight']);
    expect(names(given)).toEqual(['up-flight', 'up-raised']);
    // From the picture before the first that is raised, up to the one that meets the floor.
    const span = { from: expect.closeTo(1.96, 9), until: expect.closeTo(2.6, 9) };
    expect(takeOff.works(raised, ruler, given)[1].task()).toMatchObject({
      is: 'figures',
      by: 'plate',
      ...span,
    });
    expect(names(material({ plate: null }, inAir()))).toEqual([]);
  });

  it('is put right by strokes on its pictures, also where nobody was found in one', () => {
    const found = takeOff.outline(raised, material({}, inAir(4)), ruler, lands - 12);
    expect(found).toMatchObject({ setting: 'mends', rings: [], keys: [] });
    const mends = found?.mend?.({ keep: true, points: [[0.5, 0.5]], wide: 0.05 }) as Mend[];
    expect(mends).toMatchObject([{ seconds: 2 + 3 / 25, keep: true }]);
    const mending = set({ way: 'raised', raise: 20, mends });
    const [, , work] = takeOff.works(mending, ruler, material({}, inAir(4)));
    expect(work).toMatchObject({ name: 'up-raised-mended', is: 'mend' });
    const mended: Answer = {
      method: 'mend-1',
      figures: [{ ...cutout.cutout, seconds: 2 + 3 / 25 }],
    };
    const now = material({}, { ...inAir(4), [work.name]: mended });
    expect(codes(mending, now)).toEqual(['fine leap.lands']);
    expect(takeOff.outline(mending, now, ruler, lands - 12)).toMatchObject({
      keys: [lands - 12],
      without: [],
    });
    // On the floor, before the jump and after it, nobody is cut out.
    for (const frame of [lands - 16, lands]) expect(takeOff.outline(raised, given, ruler, frame)).toBeNull();
    expect(takeOff.outline(raised, given, ruler, lands - 1)?.rings).toHaveLength(1);
    expect(takeOff.outline(set({ way: 'both' }), given, ruler, lands - 12)).toBeNull();
    expect(takeOff.outline(raised, material({}, {}), ruler, lands - 12)).toBeNull();
  });

  it('shows the same picture of the take on a frame whether it is looked at alone or not, also where the take begins late', () => {
    const early: Answer = { method: 'flight-1', flight: { leaves: 0.4, highest: 0.6, meets: 1 } };
    const late = takeOff.build(raised, ruler, material({}, { 'up-flight': early }));
    const [waits, jumps] = mediaIn(late).filter(({ id }) => id.startsWith('up'));
    expect([waits.from, waits.until, jumps.from]).toEqual([late.from, lands - 25, lands - 25]);
    expect(secondsAt(waits, waits.until - 1)).toBe(0);
    expect(secondsAt(jumps, jumps.from)).toBeCloseTo(0, 9);
    expect(secondsAt(jumps, lands)).toBeCloseTo(1, 9);
  });

  it('is as filmed while a picture is not cut out, and says what is wrong', () => {
    const waiting = material({}, { 'up-flight': inAir()['up-flight'] });
    const nodes = mediaIn(takeOff.build(raised, ruler, waiting)).map(({ id }) => id);
    expect(nodes).toEqual(['plate', 'up-waits', 'up']);
    expect(codes(raised, waiting)).toEqual(['fine leap.lands']);
    expect(codes(raised, material({}, inAir(4)))).toContain('fix leap.not-raised');
    expect(codes(set({ way: 'raised', raise: 60 }), given)).toContain('watch leap.too-high');
    const half: Answer = { method: 'flight-1', flight: { leaves: null, highest: 1, meets: 2 } };
    expect(codes(raised, material({}, { ...inAir(), 'up-flight': half }))).toContain('fix leap.half');
    expect(codes(raised, material({ up: null }, inAir()))).toContain('stop leap.missing');
    expect(codes(raised, material({}, { 'up-flight': { method: 'flight-1', flight: null } }))).toContain(
      'fix leap.no-flight',
    );
  });
});
