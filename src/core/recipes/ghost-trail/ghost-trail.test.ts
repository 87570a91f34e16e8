import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { figureAt, type Figure } from '../../footage/figures';
import type { MendTask } from '../../footage/mend';
import type { Point } from '../../geometry/size';
import { valueAt } from '../../motion/keyframes';
import { isMedia, mediaIn, secondsAt } from '../../picture/node';
import { regularGrid } from '../../time/grid';
import { timeOfFrame } from '../../time/rate';
import { base, chosenTake, projectOf } from '../__tests__/chosen';
import type { Material } from '../material';
import { ghostTrail } from '.';
import { ghostFrames, type GhostMoment } from './trail';

const size = { width: 96, height: 54 };
const rate = { num: 25, den: 1 };
const ruler = { grid: regularGrid(120, 0, 60), project: projectOf(size, rate) };
const moment: GhostMoment = {
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'ghost-trail',
  name: 'The run',
  start: 8,
  lands: 12,
  end: 16,
  settings: { copies: 5, apart: 2, by: 'person' },
  slots: { move: { take: 'move', at: 1 } },
};
const set = (settings: Partial<GhostMoment['settings']>, more: Partial<GhostMoment> = {}): GhostMoment => ({
  ...moment,
  ...more,
  settings: { ...moment.settings, ...settings },
});

/** Somebody a fifth of the frame wide whose left edge is at `left`. */
const standing = (left: number): Point[][] => [
  [
    [left, 0.2],
    [left + 0.2, 0.2],
    [left + 0.2, 1],
    [left, 1],
  ],
];
/** One figure for each picture of the take's first seconds. */
const figures = (of: (index: number) => Partial<Figure>, count = 125): Figure[] =>
  Array.from({ length: count }, (_, index) => ({
    seconds: index / 25,
    rings: standing(0.1 + 0.008 * index),
    share: 0.16,
    faint: 0,
    ...of(index),
  }));
const walking = figures(() => ({}));
const material = (found: Figure[] | null, more: Material['takes'] = {}): Material => ({
  takes: { plate: null, move: chosenTake('move', size, rate, 250), ...more },
  solved: found ? { figures: { method: 'figures-2', figures: found } } : {},
});
const codes = (of: GhostMoment, has: Material) =>
  ghostTrail
    .examine(of, ruler, has)
    .filter(({ severity }) => severity !== 'fine')
    .map(({ code, severity }) => `${code} ${severity}`);

describe('a ghost trail', () => {
  it('has copies that stay behind, follow, and are all the performer on the beat', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 40 }),
        fc.integer({ min: 1, max: 30 }),
        fc.double({ min: 9, max: 15, noNaN: true }),
        (copies, apart, lands) => {
          const given = set({ copies, apart }, { lands });
          const frames = ghostFrames(given, ruler);
          const at = (frame: number) => 1 + timeOfFrame(rate, frame - frames.start);
          const late = mediaIn(ghostTrail.build(given, ruler, material(walking))).filter(({ id }) =>
            id.includes('-copy-'),
          );
          expect(late).toHaveLength(copies);
          for (const { content } of late.filter(isMedia)) {
            expect(valueAt(content.time, frames.lands)).toBeCloseTo(at(frames.lands), 9);
            let before = at(frames.start);
            for (let frame = frames.start; frame <= frames.lands; frame++) {
              const now = valueAt(content.time, frame);
              expect(now).toBeGreaterThanOrEqual(before - 1e-9);
              expect(now).toBeLessThanOrEqual(at(frame) + 1e-9);
              before = now;
            }
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  // 80 % of the opacity for the first, each weaker, behind the performer: CRAFT.md, ghost trail. Two frames apart.
  it('fades towards its end, the last copy at the back, each cut out as its own picture has it', () => {
    const nodes = mediaIn(ghostTrail.build(set({ first: 80 }), ruler, material(walking)));
    expect(nodes.map(({ id }) => id)).toEqual([
      'move',
      'move-copy-5',
      'move-copy-4',
      'move-copy-3',
      'move-copy-2',
      'move-copy-1',
      'move-front',
    ]);
    const opacities = nodes.map(({ opacity }) => opacity[0].value);
    [1, 0.16, 0.32, 0.48, 0.64, 0.8, 1].forEach((value, index) =>
      expect(opacities[index]).toBeCloseTo(value, 9),
    );
    const middle = ghostFrames(moment, ruler).start + 25;
    nodes.slice(1).forEach((node, index) => {
      const late = [10, 8, 6, 4, 2, 0][index];
      expect(secondsAt(node, middle)).toBeCloseTo(1 + (25 - late) / 25, 9);
      const { shape } = node.mattes[0];
      const key = shape.is === 'outline' && shape.keys.findLast(({ frame }) => frame <= middle);
      // The picture of second s is number 25 s, whose left edge is 0.1 + 0.008 × 25 s of the width.
      const [left] = (key && key.rings[0][0]) || [NaN];
      expect(left).toBeCloseTo((0.1 + 0.008 * (25 + 25 - late)) * 96, 6);
    });
  });

  it('is the plain take while nobody was cut out yet, and after the beat', () => {
    expect(mediaIn(ghostTrail.build(moment, ruler, material(null))).map(({ id }) => id)).toEqual(['move']);
    const { lands } = ghostFrames(moment, ruler);
    const after = mediaIn(ghostTrail.build(moment, ruler, material(walking))).filter(
      ({ from, until }) => from <= lands && until > lands,
    );
    expect(after.map(({ id }) => id)).toEqual(['move']);
  });

  it('asks for one cut-out of each picture that a copy shows, by the plate only where there is one', () => {
    const [work] = ghostTrail.works(set({ by: 'plate' }), ruler, material(null));
    expect(work.task()).toMatchObject({ is: 'figures', by: 'person', plate: null, from: 0.9, until: 3 });
    // A beat is half a second here: a frame later needs the same tenths of a second but at its end.
    const [nudged] = ghostTrail.works(set({ by: 'person' }, { lands: 11.9 }), ruler, material(null));
    expect(nudged.parts).toEqual(
      ghostTrail.works(set({ by: 'person' }, { lands: 11.95 }), ruler, material(null))[0].parts,
    );
    const [held] = ghostTrail.works(
      set({ by: 'plate' }),
      ruler,
      material(null, { plate: chosenTake('plate', size, rate, 50) }),
    );
    expect(held.task()).toMatchObject({ by: 'plate', plate: { media: 'media-plate' } });
    // By both, it is another work, and one by the person alone where there is no plate, which is said.
    const withPlate = material(null, { plate: chosenTake('plate', size, rate, 50) });
    const [both] = ghostTrail.works(set({ by: 'both' }), ruler, withPlate);
    expect(both.task()).toMatchObject({ by: 'both', plate: { media: 'media-plate' } });
    expect(both.parts).not.toEqual(held.parts);
    const [alone] = ghostTrail.works(set({ by: 'both' }), ruler, material(null));
    expect(alone.task()).toMatchObject({ by: 'person', plate: null });
    expect(ghostTrail.say(set({ by: 'both' }), ruler, material(null))).toContain(
      ' (there is no plate, so by the person alone)',
    );
    expect(ghostTrail.say(set({ by: 'both' }), ruler, withPlate)).not.toContain(
      ' (there is no plate, so by the person alone)',
    );
  });

  it('is fine with a performer who walks, and says by how much where anything is not', () => {
    expect(codes(moment, material(walking))).toEqual([]);
    const none = figures(() => ({ rings: [], share: 0 }));
    const now = (index: number) => (index % 5 === 0 ? { rings: [], share: 0 } : {});
    const stands = figures(() => ({ rings: standing(0.3) }));
    const plates = { plate: chosenTake('plate', size, rate, 50) };
    const cases: [GhostMoment, Material, string[]][] = [
      [moment, material(null, { move: null }), ['ghost.missing stop']],
      [moment, material(none), ['ghost.uncut fix']],
      [moment, material(figures(now)), ['ghost.uncut fix']],
      [
        moment,
        material(figures((index) => (index === 30 ? { rings: [], share: 0 } : {}))),
        ['ghost.uncut watch'],
      ],
      [moment, material(stands), ['ghost.hidden fix']],
      [moment, material(figures((index) => (index === 40 ? { share: 0.08 } : {}))), ['ghost.jumps watch']],
      [moment, material(figures((index) => (index % 17 === 0 ? { share: 0.2 } : {}))), ['ghost.jumps fix']],
      [moment, material(walking.filter((_, index) => index % 2 === 0)), ['ghost.sparse watch']],
      [moment, material(figures(() => ({ faint: 0.4 }))), ['ghost.faint watch']],
      [
        set({ by: 'plate' }),
        material(
          figures(() => ({ share: 0.9 })),
          plates,
        ),
        ['ghost.elsewhere fix'],
      ],
      [set({ apart: 10 }), material(walking), ['ghost.crowded fix']],
      [set({}, { lands: 8.1 }), material(walking), ['ghost.never-lands stop']],
      [moment, material(walking, { move: chosenTake('move', size, rate, 60) }), ['ghost.short stop']],
    ];
    for (const [given, has, expected] of cases) expect(codes(given, has)).toEqual(expected);
  });

  it('offers as many copies as there is time for, and has nothing more to say of them then', () => {
    const crowded = set({ copies: 40, apart: 9 });
    const fix = ghostTrail.examine(crowded, ruler, material(walking)).find((one) => one.fix)?.fix;
    const fitted = set((fix?.args as { set: Partial<GhostMoment['settings']> }).set);
    expect(codes(fitted, material(walking))).toEqual([]);
  });
});

describe('strokes on a cut-out', () => {
  const outline = ghostTrail.outline(moment, material(walking), ruler, ghostFrames(moment, ruler).start + 25);
  const stroke = { keep: true, points: [[0.3, 0.5]] as Point[], wide: 0.05 };
  const mends = outline?.mend?.(stroke) as GhostMoment['settings']['mends'];
  const given = set({ mends });
  const [, work] = ghostTrail.works(given, ruler, material(walking));

  it('are kept with the picture that they were drawn on, and asked to be carried to those within half a second', () => {
    expect(mends).toEqual([{ seconds: 2, ...stroke }]);
    const task = work.task() as MendTask;
    expect(task.figures.map(({ seconds }) => seconds)).toEqual(
      walking.map(({ seconds }) => seconds).filter((seconds) => Math.abs(seconds - 2) <= 0.5),
    );
    expect(work.parts).toContain('figures-2');
    expect(ghostTrail.works(moment, ruler, material(walking))).toHaveLength(1);
    expect(ghostTrail.works(given, ruler, material(null))).toHaveLength(1);
  });

  it('change the pictures that they reach and no other, and go frame by frame', () => {
    const mended: Figure[] = [{ ...walking[50], rings: standing(0.6), seconds: 2 }];
    const { takes, solved } = material(walking);
    const now = { takes, solved: { ...solved, [work.name]: { method: 'mend-1' as const, figures: mended } } };
    const { start } = ghostFrames(moment, ruler);
    const ringsOn = (frame: number) => ghostTrail.outline(given, now, ruler, start + frame)?.rings;
    expect(ringsOn(25)?.[0][0][0]).toBeCloseTo(0.6, 6);
    expect(ringsOn(26)?.[0][0][0]).toBeCloseTo(0.1 + 0.008 * 51, 6);
    const here = ghostTrail.outline(given, now, ruler, start + 25);
    expect(here).toMatchObject({ keys: [start + 25], without: [] });
    expect(ghostTrail.outline(given, now, ruler, start + 26)).not.toHaveProperty('without');
    // Where the copies have run into one nobody is cut out.
    expect(ghostTrail.outline(given, now, ruler, ghostFrames(moment, ruler).lands)).toBeNull();
  });
});

describe('the figure at an instant', () => {
  it('is the nearest one, by looking at all of them', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 500 }), { minLength: 1, maxLength: 40 }),
        fc.integer({ min: -20, max: 520 }),
        (places, wanted) => {
          const some = places.sort((a, b) => a - b).map((seconds) => ({ ...walking[0], seconds }));
          const nearest = Math.min(...places.map((one) => Math.abs(one - wanted)));
          expect(Math.abs((figureAt(some, wanted)?.seconds ?? NaN) - wanted)).toBe(nearest);
        },
      ),
    );
    expect(figureAt([], 1)).toBeUndefined();
  });
});
