import { describe, expect, it } from 'vitest';
import { painted } from '../../__tests__/scene';
import { canPaint } from '../../picture/draw-list';
import { mediaIn } from '../../picture/node';
import { paintFrame } from '../../picture/reference/paint';
import { frameOfBeat, regularGrid } from '../../time/grid';
import { base, chosenTake, projectOf } from '../__tests__/chosen';
import type { Material } from '../material';
import { maskedReveal } from '.';
import { revealFrames, type RevealMoment } from './build';

const size = { width: 96, height: 54 };
const rate = { num: 25, den: 1 };
const ruler = { grid: regularGrid(120, 0.1, 60), project: projectOf(size, rate) };
const moment: RevealMoment = {
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'masked-reveal',
  name: 'New clothes',
  start: 8,
  lands: 10,
  end: 16,
  settings: { edge: 'line', frames: 20, soft: 0 },
  slots: { before: { take: 'one' }, after: { take: 'two', at: 2 }, fall: { take: 'three', at: 1 } },
};
const set = (
  settings: Partial<RevealMoment['settings']>,
  more: Partial<RevealMoment> = {},
): RevealMoment => ({
  ...moment,
  ...more,
  settings: { ...moment.settings, ...settings },
});
const material = (takes: Material['takes'] = {}): Material => ({
  takes: {
    before: chosenTake('one', size, rate, 250),
    after: chosenTake('two', size, rate, 250),
    fall: chosenTake('three', size, rate, 250),
    ...takes,
  },
  solved: {},
});
const codes = (given: RevealMoment, of = material()) =>
  maskedReveal.examine(given, ruler, of).map(({ severity, code }) => `${severity} ${code}`);
const lights: Record<string, number> = { 'media-one': 200, 'media-two': 90, 'media-three': 30 };
const lit = (light: number) => painted(size, () => [light, light, light]);
const paint = (given: RevealMoment, frame: number) =>
  paintFrame(maskedReveal.build(given, ruler, material()), frame, size, (media) => lit(lights[media])).data;
/** Share of the frame that shows a light. */
const shareOf = (given: RevealMoment, frame: number, light: number) => {
  const data = paint(given, frame);
  let count = 0;
  for (let pixel = 0; pixel < data.length; pixel += 4) if (data[pixel] === light) count++;
  return count / (data.length / 4);
};
const { lands, done } = revealFrames(moment, ruler);

describe('the masked reveal', () => {
  it('begins on the frame of its beat and is done when it says, whatever its edge', () => {
    expect(lands).toBe(frameOfBeat(ruler.grid, rate, 10));
    for (const edge of ['line', 'circle', 'falling'] as const)
      for (const soft of [0, 30]) {
        const given = set({ edge, soft });
        const into = edge === 'falling' ? 30 : 90;
        expect(shareOf(given, lands, 200)).toBe(1);
        expect(shareOf(given, lands + 10, 200)).toBeLessThan(1);
        expect(shareOf(given, done, into)).toBe(1);
      }
  });

  it('moves its line evenly towards its angle', () => {
    for (const [angle, x, y] of [
      [0, 10, 27],
      [180, 86, 27],
      [90, 48, 5],
      [270, 48, 49],
    ]) {
      const given = set({ angle });
      expect(shareOf(given, lands + 5, 90)).toBeCloseTo(0.25, 1);
      expect(shareOf(given, lands + 15, 90)).toBeCloseTo(0.75, 1);
      expect(paint(given, lands + 10)[4 * (y * size.width + x)]).toBe(90);
    }
  });

  it('falls from rest, ever faster', () => {
    // Distances as the square of the time: a quarter of the way at half the time.
    const given = set({ edge: 'falling' });
    expect(shareOf(given, lands + 10, 30)).toBeCloseTo(0.25, 1);
    expect(shareOf(given, lands + 15, 30)).toBeCloseTo(0.5625, 1);
  });

  it('grows its circle from where it is put', () => {
    const data = paint(set({ edge: 'circle', across: 25, down: 50 }), lands + 4);
    expect(data[4 * (27 * size.width + 24)]).toBe(90);
    expect(data[4 * (27 * size.width + 80)]).toBe(200);
  });

  it('is painted on planes in every frame, and built as far as it can be', () => {
    for (const given of [
      moment,
      set({ edge: 'circle' }),
      set({ edge: 'falling' }),
      { ...moment, lands: 16 },
    ]) {
      const tree = maskedReveal.build(given, ruler, material());
      for (let frame = tree.from; frame < tree.until; frame += 3) expect(canPaint(tree, frame)).toBe(true);
    }
    expect(mediaIn(maskedReveal.build(moment, ruler, { takes: {}, solved: {} }))).toEqual([]);
  });

  it('says what is missing, too short, cramped, the same, or out of turn', () => {
    expect(codes(moment)).toEqual(['fine reveal.lands']);
    expect(codes(moment, material({ after: null }))).toContain('stop reveal.missing');
    expect(codes(set({ edge: 'falling' }), material({ after: null }))).toEqual(['fine reveal.lands']);
    expect(codes(set({ edge: 'falling' }), material({ fall: null }))).toContain('stop reveal.missing');
    expect(codes(moment, material({ before: chosenTake('one', size, rate, 20) }))).toContain(
      'stop reveal.short',
    );
    expect(codes({ ...moment, lands: 16 })).toContain('stop reveal.never-lands');
    expect(codes(set({ frames: 100 }))).toContain('fix reveal.cramped');
    const one = chosenTake('one', size, rate, 250);
    expect(
      codes({ ...moment, slots: { after: { at: 1 } } }, material({ before: one, after: one })),
    ).toContain('fix reveal.same-take');
  });

  it('says itself in a sentence and in numbers', () => {
    const fields = (given: RevealMoment) =>
      maskedReveal
        .say(given, ruler, material())
        .flatMap((part) => (typeof part !== 'string' && 'field' in part ? [part.field] : []));
    expect(fields(moment)).toEqual(['edge', 'angle', 'frames', 'soft']);
    expect(fields(set({ edge: 'circle' }))).toContain('across');
    expect(fields(set({ edge: 'falling' }))).toEqual(['edge', 'frames', 'soft']);
    const steps = maskedReveal.explain(
      moment,
      ruler,
      material(),
      maskedReveal.build(moment, ruler, material()),
    );
    expect(steps).toHaveLength(2);
    const rows = steps[1].rows.filter(({ what }) => what === 'mask point 1, down');
    expect(rows.map(({ frame, then }) => [frame, then])).toEqual([
      [lands, 'moves evenly'],
      [done, 'stays'],
    ]);
  });
});
