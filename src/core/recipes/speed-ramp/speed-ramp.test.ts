import type { Followed, TrackPoint, TrackTask } from '../../footage/track/track';
import { describe, expect, it } from 'vitest';
import { invertAffine, mapPoint } from '../../geometry/affine';
import { canPaint, describeFrame } from '../../picture/draw-list';
import { valueAt } from '../../motion/keyframes';
import { matrixAt, mediaIn, secondsAt } from '../../picture/node';
import { frameOfBeat, regularGrid } from '../../time/grid';
import { base, chosenTake, projectOf } from '../__tests__/chosen';
import type { Material } from '../material';
import { speedRamp } from '.';
import { rampAnchors, type RampMoment } from './build';

const size = { width: 64, height: 36 };
const rate = { num: 25, den: 1 };
const ruler = { grid: regularGrid(120, 0.1, 60), project: projectOf(size, rate) };
const moment: RampMoment = {
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'speed-ramp',
  name: 'The wheel',
  start: 8,
  lands: 10,
  end: 16,
  settings: { slow: 40, fast: 400, poses: 2, instants: { 1: 3, 2: 5.5 } },
  slots: { pass: { take: 'one', at: 1 } },
};
const material = (pictures = 250, of = rate): Material => ({
  takes: { pass: chosenTake('one', size, of, pictures) },
  solved: {},
});
const standing = (point: TrackPoint): Followed => ({ ...point, tap: 0, scale: 1, rotation: 0 });
const set = (settings: Partial<RampMoment['settings']>, more: Partial<RampMoment> = {}): RampMoment => ({
  ...moment,
  ...more,
  settings: { ...moment.settings, ...settings },
});
const codes = (given: RampMoment, of = material()) =>
  speedRamp.examine(given, ruler, of).map(({ severity, code }) => `${severity} ${code}`);
const secondsOf = (given: RampMoment, frame: number) => {
  const [node] = mediaIn(speedRamp.build(given, ruler, material()));
  return secondsAt(node, frame);
};
const frameAt = (position: number) => frameOfBeat(ruler.grid, rate, position);

describe('a followed point', () => {
  // Somebody walks from a fifth to half of the width while the take runs from 2 s to 7 s.
  const taps = [
    { time: 2, at: [0.2, 0.5] as [number, number] },
    { time: 7, at: [0.5, 0.4] as [number, number] },
  ];
  const followed = set({}, { slots: { pass: { take: 'one', at: 1, taps } } });
  const tree = speedRamp.build(followed, ruler, material());
  const [node] = mediaIn(tree);
  const pointAt = (seconds: number): [number, number] => {
    const share = Math.min(1, Math.max(0, (seconds - 2) / 5));
    return [(0.2 + 0.3 * share) * size.width, (0.5 - 0.1 * share) * size.height];
  };

  it('stays where it is while time bends, and no edge comes into sight', () => {
    const where = Array.from({ length: tree.until - tree.from }, (_, index) => {
      const frame = tree.from + index;
      return mapPoint(matrixAt(node, frame), pointAt(secondsAt(node, frame)));
    });
    for (const axis of [0, 1]) {
      const along = where.map((point) => point[axis]);
      expect(Math.max(...along) - Math.min(...along)).toBeLessThan(1);
    }
    for (let frame = tree.from; frame < tree.until; frame += 0.25)
      for (const corner of [
        [0, 0],
        [size.width, size.height],
      ] as const) {
        const [x, y] = mapPoint(invertAffine(matrixAt(node, frame)), [...corner]);
        expect(Math.min(x, y, size.width - x, size.height - y)).toBeGreaterThanOrEqual(-1e-6);
      }
  });

  it('is said to cost sharpness', () => {
    expect(codes(followed)).toContain('watch ramp.soft');
  });

  it('needs one tap where it was found on the other pictures, and says where it was lost', () => {
    const once = set({}, { slots: { pass: { take: 'one', at: 1, taps: taps.slice(0, 1) } } });
    const found = ({ points, lost }: { points: TrackPoint[]; lost: number[] }): Material => ({
      ...material(),
      solved: { 'track-pass': { method: 'track-2', track: { points: points.map(standing), lost } } },
    });
    const said = (given: Material) => speedRamp.examine(once, ruler, given).map(({ code }) => code);
    const held = (given: Material) => mediaIn(speedRamp.build(once, ruler, given))[0].transforms.length > 1;
    expect([said(material()).filter((code) => code.startsWith('ramp.f')), held(material())]).toEqual([
      [],
      false,
    ]);
    const all = found({ points: taps, lost: [] });
    expect([said(all).includes('ramp.follows'), held(all)]).toEqual([true, true]);
    expect(speedRamp.followed?.(once, ruler, all, 'pass')).toMatchObject(taps);
    expect(said(found({ points: taps, lost: [4] }))).toContain('ramp.lost');
    const nothing = found({ points: taps.slice(0, 1), lost: [2.04] });
    expect([said(nothing).includes('ramp.one-tap'), held(nothing)]).toEqual([true, false]);
    const work = speedRamp.works(once, ruler, material()).find(({ is }) => is === 'track');
    expect(work?.task()).toMatchObject({ is: 'track', taps: [{ time: 2, at: [0.2, 0.5] }] });
    expect(speedRamp.works(moment, ruler, material()).some(({ is }) => is === 'track')).toBe(false);
    const elsewhere = taps.map((tap) => ({ ...tap, take: 'another' }));
    const waits = set({}, { slots: { pass: { take: 'one', at: 1, taps: elsewhere } } });
    expect(codes(waits)).toEqual(codes(moment));
  });
});

describe('a followed point in a frame of another shape than its take', () => {
  it('is looked for where it is in the picture, and lies where it was tapped in the frame', () => {
    const upright = { ...ruler, project: projectOf({ width: size.height, height: size.width }, rate) };
    const tap = { time: 2, at: [0.2, 0.25] as [number, number] };
    const tapped = set({}, { slots: { pass: { take: 'one', at: 1, taps: [tap] } } });
    const work = speedRamp.works(tapped, upright, material()).find(({ is }) => is === 'track');
    const task = work?.task() as TrackTask;
    // The picture fills the height, and what is left and right of the frame is cut off.
    const scale = upright.project.height / size.height;
    const share = 0.5 + ((0.2 - 0.5) * upright.project.width) / (size.width * scale);
    expect(task.taps[0].at[0]).toBeCloseTo(share, 9);
    expect(task.taps[0].at[1]).toBeCloseTo(0.25, 9);
    const points = [task.taps[0], { time: 3, at: [0.5, 0.25] as [number, number] }].map(standing);
    const solved = { 'track-pass': { method: 'track-2' as const, track: { points, lost: [] } } };
    const found = speedRamp.followed?.(tapped, upright, { ...material(), solved }, 'pass');
    expect(found?.[0].at[0]).toBeCloseTo(0.2, 9);
    expect(found?.[1].at[0]).toBeCloseTo(0.5, 9);
  });
});

describe('the speed ramp', () => {
  it('shows each marked pose on the frame of its beat', () => {
    const anchors = rampAnchors(moment, ruler);
    expect(anchors.map(({ name, position }) => [name, position])).toEqual([
      ['start', 8],
      ['lands', 10],
      ['pose-2', 13],
      ['end', 16],
    ]);
    expect(secondsOf(moment, frameAt(8))).toBeCloseTo(1, 6);
    expect(secondsOf(moment, frameAt(10))).toBeCloseTo(3, 6);
    expect(secondsOf(moment, frameAt(13))).toBeCloseTo(5.5, 6);
    const moved = { ...moment, pins: { 'pose-2': 12.5 } };
    expect(secondsOf(moved, frameAt(12.5))).toBeCloseTo(5.5, 6);
  });

  it('is slow on the poses and holds the last one at its speed to the end', () => {
    const step = (frame: number) => (secondsOf(moment, frame + 1) - secondsOf(moment, frame - 1)) * 12.5;
    expect(step(frameAt(10))).toBeCloseTo(0.4, 1);
    expect(step(frameAt(13))).toBeCloseTo(0.4, 1);
    expect(step(frameAt(15))).toBeCloseTo(0.4, 1);
    expect(step(Math.round((frameAt(10) + frameAt(13)) / 2))).toBeGreaterThan(2);
  });

  it('runs as it was filmed where nothing is marked, and asks for the marks', () => {
    const plain = set({ instants: {}, slow: 100 });
    for (const frame of [frameAt(8), frameAt(9.5), frameAt(11)])
      expect(secondsOf(plain, frame)).toBeCloseTo(1 + (frame - frameAt(8)) / 25, 6);
    expect(codes(plain)).toEqual(['fine ramp.lands', 'fix ramp.unmarked']);
    expect(codes(set({ instants: { 1: 2.5 } }))).toContain('fix ramp.unmarked');
  });

  it('is painted on planes in every frame, also where its beats do not rise', () => {
    for (const given of [moment, { ...moment, lands: 8 }, set({ poses: 12 }), { ...moment, end: 8 }]) {
      const tree = speedRamp.build(given, ruler, material());
      expect(tree.until).toBeGreaterThan(tree.from);
      for (let frame = tree.from; frame < tree.until; frame++) expect(canPaint(tree, frame)).toBe(true);
    }
    expect(describeFrame(speedRamp.build(moment, ruler, { takes: {}, solved: {} }), frameAt(9))).toEqual([
      [],
    ]);
  });

  it('says what is missing, too far, too short, too slow, or out of turn', () => {
    const enough = material(1200, { num: 100, den: 1 });
    expect(codes(moment, enough)).toEqual(['fine ramp.lands']);
    expect(codes(moment)).toEqual(['fine ramp.lands', 'watch ramp.repeats']);
    const repeats = speedRamp.examine(moment, ruler, material()).find(({ code }) => code === 'ramp.repeats');
    // 25 a second at 40 % asks for 62.5: the next rate that cameras have.
    expect(repeats?.facts?.rate).toBe(100);
    expect(codes(moment, { takes: {}, solved: {} })).toContain('stop ramp.missing');
    expect(codes({ ...moment, lands: 8 }, enough)).toEqual(['stop ramp.never-lands']);
    expect(codes(moment, material(120))).toContain('stop ramp.short');
    expect(codes(set({ fast: 150 }), enough)).toContain('stop ramp.out-of-reach');
    expect(codes(set({ fast: 300 }), enough)).toContain('watch ramp.point-speed');
    expect(codes(set({ instants: { 1: 5.5, 2: 3 } }), enough)).toContain('stop ramp.out-of-reach');
  });

  it('says itself in a sentence and in numbers', () => {
    const said = speedRamp.say(moment, ruler, material()).filter((part) => typeof part !== 'string');
    expect(said).toContainEqual({ field: 'instants.2', value: 5.5, dye: 'woad' });
    expect(said).toContainEqual({ anchor: 'pose-2' });
    const [step] = speedRamp.explain(moment, ruler, material(), speedRamp.build(moment, ruler, material()));
    expect(step.text).toContain(`Pose 2: 0:05.50 of the file on frame ${frameAt(13)}`);
    const rows = step.rows.filter(({ what }) => what === 'second of its file');
    expect(rows).toContainEqual(expect.objectContaining({ frame: frameAt(13) }));
  });

  it('blends two pictures where there are too few, as far as time has gone between them', () => {
    const given = set({ lacking: 'blends' });
    const [under, over] = mediaIn(speedRamp.build(given, ruler, material()));
    const plain = mediaIn(speedRamp.build(moment, ruler, material()))[0];
    const pictureOf = (seconds: number) => Math.floor(seconds * 25 + 0.5);
    let mixed = 0;
    for (let frame = under.from; frame < under.until; frame++) {
      const share = valueAt(over.opacity, frame);
      const [one, other] = [under, over].map((node) => pictureOf(secondsAt(node, frame)));
      if (share === 0) continue;
      mixed++;
      expect(other).toBe(one + 1);
      // By linear interpolation: the picture that is meant lies as far between the two as the upper one shows.
      expect(one + share).toBeCloseTo(secondsAt(plain, frame) * 25, 3);
    }
    expect(mixed).toBeGreaterThan(30);
    expect(canPaint(speedRamp.build(given, ruler, material()), frameAt(10) + 1)).toBe(true);
    expect(codes(given)).toContain('watch ramp.blends');
    // Filmed at 120 a second there is a picture for every frame.
    const fast = material(1200, { num: 120, den: 1 });
    expect(mediaIn(speedRamp.build(given, ruler, fast))).toHaveLength(1);
    expect(codes(given, fast)).not.toContain('watch ramp.blends');
  });

  it('zooms in on one pose and out on the next, and says where that is soft', () => {
    const given = set({ zoom: 50, poses: 3, instants: { 1: 3, 2: 5.5, 3: 6 } });
    const [node] = mediaIn(speedRamp.build(given, ruler, material()));
    const anchors = rampAnchors(given, ruler);
    expect(anchors.slice(0, 4).map(({ frame }) => matrixAt(node, frame)[0])).toEqual([1, 1.5, 1, 1.5]);
    expect(codes(given)).toContain('watch ramp.soft');
    expect(codes(set({ zoom: 10 }))).not.toContain('watch ramp.soft');
  });
});

describe('pictures that are made along what moves', () => {
  const given = set({ lacking: 'moves' });
  const [node] = mediaIn(speedRamp.build(given, ruler, material()));

  it('are asked for only where the take has none of its own', () => {
    expect(mediaIn(speedRamp.build(given, ruler, material()))).toHaveLength(1);
    expect(node.content.between).toBe('moves');
    const places = Array.from({ length: node.until - node.from }, (_, index) => {
      const at = node.from + index;
      return { place: secondsAt(node, at) * 25, wanted: secondsOf(moment, at) * 25 };
    });
    // What lies on a picture is that picture itself; all else lies where time has it.
    const made = places.filter(({ place }) => Math.abs(place - Math.round(place)) > 1e-6);
    for (const { place, wanted } of made) expect(place).toBeCloseTo(wanted, 6);
    for (const { place, wanted } of places) expect(Math.abs(place - wanted)).toBeLessThan(0.51);
    expect(made.length).toBeGreaterThan(20);
    const [work] = speedRamp.works(given, ruler, material());
    const task = work.task();
    expect(task.is === 'tears' && task.pairs.length).toBe(made.length);
    expect(speedRamp.works(set({ lacking: 'blends' }), ruler, material())).toEqual([]);
    // A camera that was fast enough has all of them.
    const fast = material(2500, { num: 250, den: 1 });
    expect(speedRamp.works(given, ruler, fast)).toEqual([]);
    expect(mediaIn(speedRamp.build(given, ruler, fast))[0].content.between).toBeUndefined();
  });

  it('are counted, and said where they tear', () => {
    const counted = codes(given);
    expect(counted).toContain('watch ramp.makes');
    expect(counted).not.toContain('fix ramp.tears');
    const tears = [
      { frame: 260, share: 0.2 },
      { frame: 264, share: 0.1 },
    ];
    const torn = { ...material(), solved: { tears: { method: 'tears-1' as const, tears } } };
    expect(codes(given, torn)).toContain('fix ramp.tears');
    expect(codes(set({ lacking: 'blends' }), torn)).not.toContain('fix ramp.tears');
  });
});
