import { describe, expect, it } from 'vitest';
import { painted } from '../../__tests__/scene';
import { ease, gentle } from '../../motion/easing';
import { canPaint, describeFrame } from '../../picture/draw-list';
import { mediaIn } from '../../picture/node';
import { paintFrame } from '../../picture/reference/paint';
import { frameOfBeat, regularGrid } from '../../time/grid';
import { base, chosenTake, projectOf } from '../__tests__/chosen';
import type { Material } from '../material';
import { builtWhip } from '.';
import { halves, whipFrames, type WhipMoment } from './build';

const size = { width: 64, height: 36 };
const rate = { num: 25, den: 1 };
const project = projectOf(size, rate);
const ruler = { grid: regularGrid(120, 0.1, 60), project };
const moment: WhipMoment = {
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'built-whip',
  name: 'Out to the yard',
  start: 8,
  lands: 10,
  end: 12,
  settings: { direction: 'right', frames: 20 },
  slots: { out: { take: 'one', at: 0.4 }, in: { take: 'two', at: 2 } },
};
const chosen = (id: string, pictures = 250, own = size) => chosenTake(id, own, rate, pictures);
const material = (takes: Material['takes'] = {}): Material => ({
  takes: { out: chosen('one'), in: chosen('two'), ...takes },
  solved: {},
});
const set = (settings: Partial<WhipMoment['settings']>): WhipMoment => ({
  ...moment,
  settings: { ...moment.settings, ...settings },
});
const codes = (given: WhipMoment, of = material()) =>
  builtWhip.examine(given, ruler, of).map(({ severity, code }) => `${severity} ${code}`);
const bright = painted(size, () => [200, 200, 200]);
const dark = painted(size, () => [90, 90, 90]);
const paint = (given: WhipMoment, frame: number) =>
  paintFrame(builtWhip.build(given, ruler, material()), frame, size, (media) =>
    media === 'media-one' ? bright : dark,
  );

describe('the built whip', () => {
  const frames = whipFrames(moment, ruler);

  it('cuts on the frame of its beat, ten frames after it began and ten before it ends', () => {
    expect(frames.cut).toBe(frameOfBeat(ruler.grid, project.rate, 10));
    expect([frames.cut - frames.first, frames.last - frames.cut]).toEqual([10, 10]);
    const shown = (frame: number) => new Set(paint(moment, frame).data);
    expect(shown(frames.cut - 1)).toEqual(new Set([200, 255]));
    expect(shown(frames.cut)).toEqual(new Set([90, 255]));
  });

  it('shows no edge in any frame, whatever its direction and what fills its edges', () => {
    for (const direction of ['left', 'right', 'up', 'down'] as const)
      for (const edges of ['mirrored', 'scaled'] as const) {
        const given = set({ direction, edges, blur: 0 });
        for (let frame = frames.start; frame < frames.end; frame += 3) {
          const wanted = frame < frames.cut ? 200 : 90;
          expect(new Set(paint(given, frame).data)).toEqual(new Set([wanted, 255]));
        }
      }
    // Scaled up, the picture covers the frame by itself: nothing is mirrored into it.
    const tree = builtWhip.build(set({ edges: 'scaled', blur: 0 }), ruler, material());
    for (let frame = frames.start; frame < frames.end; frame++) {
      const [[{ matrix }]] = describeFrame(tree, frame) ?? [];
      const [left, right] = [matrix[4], matrix[0] * size.width + matrix[4]];
      expect(left).toBeLessThanOrEqual(1e-9);
      expect(right).toBeGreaterThanOrEqual(size.width - 1e-9);
    }
  });

  it('stands still outside the whip, and is fastest at the cut', () => {
    const tree = builtWhip.build(set({ blur: 0 }), ruler, material());
    const at = (frame: number) => describeFrame(tree, frame)?.[0][0].matrix[4] ?? NaN;
    expect([at(frames.start), at(frames.first), at(frames.last), at(frames.end - 1)]).toEqual([0, 0, 0, 0]);
    // Both pictures fly the same way: the first by its width away, the second from its width on the other side.
    const flown = (frame: number) => at(frame) + (frame < frames.cut ? 0 : 2 * size.width);
    const steps = Array.from(
      { length: 20 },
      (_, step) => flown(frames.first + step + 1) - flown(frames.first + step),
    );
    const whole = steps.map((value) => (Math.abs(value) > 2 * size.width ? value + 2 * size.width : value));
    expect(Math.min(...steps.slice(0, 9))).toBeGreaterThan(0);
    expect(whole.indexOf(Math.max(...whole))).toBeGreaterThanOrEqual(9);
    expect(whole.indexOf(Math.max(...whole))).toBeLessThanOrEqual(10);
    for (let step = 0; step < 8; step++) expect(whole[step]).toBeLessThan(whole[step + 1]);
  });

  // de Casteljau: the two halves, put together, are the whole curve.
  it('divides its curve at the middle', () => {
    for (let step = 0; step <= 20; step++) {
      const share = step / 20;
      const joined = share < 0.5 ? ease(halves.out, share * 2) / 2 : 0.5 + ease(halves.in, share * 2 - 1) / 2;
      expect(joined).toBeCloseTo(ease(gentle, share), 4);
    }
  });

  it('is painted on planes, in one pass where it stands and in more the faster it flies', () => {
    const tree = builtWhip.build(moment, ruler, material());
    const passes = Array.from({ length: frames.end - frames.start }, (_, index) => {
      expect(canPaint(tree, frames.start + index)).toBe(true);
      return describeFrame(tree, frames.start + index)?.length ?? 0;
    });
    expect(passes[0]).toBe(1);
    expect(Math.max(...passes)).toBe(passes[frames.cut - frames.start]);
    expect(builtWhip.build(set({ blur: 0 }), ruler, material()).shutter).toBeNull();
  });

  it('is built of one take at two of its times', () => {
    const one = material({ in: chosen('one') });
    const [out, into] = mediaIn(builtWhip.build(moment, ruler, one));
    expect(out.content.media).toBe(into.content.media);
    expect(describeFrame(builtWhip.build(moment, ruler, one), frames.cut)?.[0][0].time).toBeCloseTo(2, 1);
    expect(codes(moment, one)).toEqual(['fine whip.cuts']);
  });

  it('says what is missing, too short, cramped, soft, or never cuts', () => {
    expect(codes(moment)).toEqual(['fine whip.cuts']);
    expect(codes(moment, material({ in: null }))).toContain('stop whip.missing');
    expect(codes(moment, material({ out: chosen('one', 20) }))).toContain('stop whip.short');
    expect(codes({ ...moment, lands: 12 })).toContain('stop whip.never-cuts');
    expect(codes({ ...moment, lands: 8.25 })).toContain('fix whip.cramped');
    expect(codes(set({ edges: 'scaled' }))).toContain('watch whip.soft');
    const large = chosen('one', 250, { width: 128, height: 72 });
    expect(codes(set({ edges: 'scaled' }), material({ out: large, in: large }))).toEqual(['fine whip.cuts']);
  });

  it('is built as far as it can be where a take is missing', () => {
    const tree = builtWhip.build(moment, ruler, material({ out: null, in: null }));
    expect(mediaIn(tree)).toEqual([]);
    expect(describeFrame(tree, frames.cut)).toEqual([[]]);
  });

  it('says itself in a sentence and in numbers', () => {
    const said = builtWhip.say(moment, ruler, material()).filter((part) => typeof part !== 'string');
    expect(said).toHaveLength(11);
    const tree = builtWhip.build(moment, ruler, material());
    const steps = builtWhip.explain(moment, ruler, material(), tree);
    expect(steps.map(({ title }) => title)).toEqual(['First place: one', 'Second place: two', 'Over both']);
    const rows = steps[0].rows.filter(({ what }) => what === 'move sideways');
    expect(rows.map(({ frame, value }) => [frame, value])).toEqual([
      [frames.first, 0],
      [frames.cut, 64],
      [frames.last, 128],
    ]);
    expect(steps[0].rows.some(({ what }) => what === 'size')).toBe(false);
    expect(steps[0].text).toContain('cubic-bezier(0.75, 0, 0.875, 0.5)');
    expect(steps[2].text).toMatch(/mirrored copies.*180°/);
  });
});
