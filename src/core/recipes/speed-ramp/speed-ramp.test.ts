import { describe, expect, it } from 'vitest';
import { canPaint, describeFrame } from '../../picture/draw-list';
import { mediaIn, secondsAt } from '../../picture/node';
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
});
