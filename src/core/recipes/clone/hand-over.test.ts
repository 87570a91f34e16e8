import { describe, expect, it } from 'vitest';
import type { SeamMeasure } from '../../model/measures';
import type { Point } from '../../geometry/size';
import { painted } from '../../__tests__/scene';
import { canPaint } from '../../picture/draw-list';
import { paintFrame } from '../../picture/reference/paint';
import { frameOfBeat, regularGrid } from '../../time/grid';
import { base, heldTake, projectOf } from '../__tests__/chosen';
import { slotsInUse } from '../built';
import type { Moment } from '../../model/records';
import type { Material } from '../material';
import type { Recipe } from '../recipe';
import { clone } from '.';
import type { CloneMoment } from './material';

const size = { width: 64, height: 36 };
const rate = { num: 25, den: 1 };
const ruler = { grid: regularGrid(120, 0.1, 60), project: projectOf(size, rate) };
const from = (left: number): Point[] => [
  [left, 0],
  [1, 0],
  [1, 1],
  [left, 1],
];
const seamFrom = (left: number): SeamMeasure => ({
  rings: [from(left)],
  shares: [left, 1 - left],
  visible: [{ frame: 160, difference: 1 }],
  moves: [],
  contact: null,
  crossing: [],
  found: [true, true],
  losses: [],
  borders: [null, null],
  shadows: [null, null],
});
const chosen = (id: string) => heldTake(id, size, rate, 400);
const material = (more: Material['takes'] = {}): Material => ({
  takes: { plate: chosen('plate'), left: chosen('left'), right: chosen('right'), ...more },
  solved: {
    seam: { method: 'seam-7', seam: seamFrom(0.75) },
    'seam-handed': { method: 'seam-7', seam: seamFrom(0.25) },
  },
});
const moment: CloneMoment = {
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'clone',
  name: 'The cup',
  start: 8,
  lands: 12,
  end: 20,
  settings: { way: 'shared', first: 'left', fade: 0, feather: 0, seam: null },
  slots: { left: { take: 'left', at: 0.5 }, right: { take: 'right', at: 0.5 } },
};
const set = (settings: Partial<CloneMoment['settings']>, more: Partial<CloneMoment> = {}): CloneMoment => ({
  ...moment,
  ...more,
  settings: { ...moment.settings, ...settings },
});
const codes = (given: CloneMoment, of = material()) =>
  clone.examine(given, ruler, of).map(({ severity, code }) => `${severity} ${code}`);
const lights: Record<string, number> = { 'media-plate': 10, 'media-left': 90, 'media-right': 200 };
const lit = (given: CloneMoment, frame: number, x: number) =>
  paintFrame(clone.build(given, ruler, material()), frame, size, (media) =>
    painted(size, () => [lights[media], lights[media], lights[media]]),
  ).data[4 * (18 * size.width + x)];
const frameAt = (beat: number) => frameOfBeat(ruler.grid, rate, beat);

describe('an object that changes hands', () => {
  it('moves the join on the frame of its beat, half-way where nobody says', () => {
    const anchors = clone.anchors(moment, ruler);
    expect(anchors.map(({ name, position }) => [name, position])).toEqual([
      ['start', 8],
      ['lands', 12],
      ['handed', 16],
      ['end', 20],
    ]);
    for (const [given, beat] of [
      [moment, 16],
      [set({}, { pins: { handed: 14 } }), 14],
    ] as const) {
      expect([lit(given, frameAt(beat) - 1, 32), lit(given, frameAt(beat), 32)]).toEqual([90, 200]);
      expect(codes(given)).toContain('fine clone.handed');
    }
    expect(codes(set({}, { pins: { handed: 30 } }))).toContain('fix clone.handed-out');
    const tree = clone.build(moment, ruler, material());
    for (let frame = tree.from; frame < tree.until; frame += 3) expect(canPaint(tree, frame)).toBe(true);
  });

  it('solves one join until then and one from then on, and takes either as it is drawn', () => {
    const works = clone.works(moment, ruler, material());
    const spans = works.map(({ name, task }) => {
      const asked = task();
      return asked.is === 'seam' && [name, asked.from, asked.until, asked.outline];
    });
    expect(spans).toEqual([
      ['seam', frameAt(12), frameAt(16), null],
      ['seam-handed', frameAt(16), frameAt(20), null],
    ]);
    const drawn = set({ seams: { handed: from(0.9) } });
    expect(lit(drawn, frameAt(18), 40)).toBe(90);
    const outline = clone.outline(drawn, material(), ruler, 0, 'handed');
    expect(outline).toMatchObject({ state: 'drawn', setting: 'seams.handed' });
    const meets = set({ way: 'meet' });
    expect(clone.outline(meets, material(), ruler, 0, 'handed')).toBeNull();
    expect(clone.works(meets, ruler, material()).map(({ name }) => name)).toEqual(['seam']);
    expect([lit(meets, frameAt(18), 32), lit(meets, frameAt(18), 60)]).toEqual([90, 200]);
  });

  it('is judged by both joins', () => {
    const cut = seamFrom(0.25);
    cut.losses = [
      {
        side: 0,
        kept: true,
        whole: false,
        share: 0.4,
        frames: { count: 3, first: 180, last: 182 },
        at: [0.3, 0.5],
      },
    ];
    const given = material();
    const bad = {
      ...given,
      solved: { ...given.solved, 'seam-handed': { method: 'seam-7' as const, seam: cut } },
    };
    expect(codes(moment, bad)).toContain('stop clone.cuts');
    expect(codes(set({ way: 'meet' }), bad)).not.toContain('stop clone.cuts');
  });
});

describe('an answer out of a mirror', () => {
  const same = material({ right: chosen('left') });
  const mirror = set(
    { way: 'mirror' },
    { slots: { left: { take: 'left', at: 0.5 }, right: { take: 'left', at: 9 } } },
  );

  it('may come from the same take at another time, which any take may be chosen for', () => {
    expect(codes(mirror, same)).not.toContain('stop clone.same-take');
    expect(codes(set({ way: 'meet' }), same)).toContain('stop clone.same-take');
    const open = (given: CloneMoment) =>
      slotsInUse(given as Moment, clone as unknown as Recipe)
        .filter((slot) => slot.open)
        .map(({ key }) => key);
    expect([open(mirror), open(moment)]).toEqual([['left', 'right'], []]);
  });

  it('that says what is said beside it is noticed', () => {
    expect(codes(mirror, same)).not.toContain('watch clone.same-words');
    const near = { ...mirror, slots: { left: { take: 'left', at: 0.5 }, right: { take: 'left', at: 3 } } };
    expect(codes(near, same)).toContain('watch clone.same-words');
  });
});
