import { describe, expect, it } from 'vitest';
import { sayFinding } from '../../finding/say';
import type { Figure } from '../../footage/figures';
import type { SeamMeasure } from '../../model/measures';
import type { Point } from '../../geometry/size';
import { mediaIn } from '../../picture/node';
import { regularGrid } from '../../time/grid';
import { heldTake, projectOf, base } from '../__tests__/chosen';
import type { Material } from '../material';
import { clone } from '.';
import { cloneFrames } from './build';
import type { CloneMoment } from './material';
import { crossingLayer, crossingsOf } from './where-crossing';

const size = { width: 1280, height: 720 };
const rate = { num: 24, den: 1 };
const ruler = { grid: regularGrid(120, 0, 60), project: projectOf(size, rate) };
const moment: CloneMoment = {
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'clone',
  name: 'Meets a copy',
  start: 4,
  lands: 8,
  end: 16,
  settings: { first: 'left', fade: 6, feather: 12, seam: null },
  slots: { plate: { take: 'plate' }, left: { take: 'left', at: 0.5 }, right: { take: 'right', at: 1.25 } },
};
const frames = cloneFrames(moment, ruler);
const box = (left: number, right: number): Point[] => [
  [left, 0.2],
  [right, 0.2],
  [right, 0.9],
  [left, 0.9],
];
const seam = (more: Partial<SeamMeasure> = {}): SeamMeasure => ({
  rings: [box(0.5, 1)],
  shares: [0.5, 0.5],
  visible: [],
  moves: [],
  contact: null,
  crossing: [frames.lands + 20, frames.lands + 22],
  found: [true, true],
  losses: [],
  borders: [null, null],
  shadows: [null, null],
  ...more,
});
/** Both at every second of the takes, the left one with somebody else far off. */
const figure = (rings: Point[][], more: Partial<Figure> = {}): Figure[] =>
  Array.from({ length: 8 }, (_, second) => ({ seconds: second, rings, share: 0.1, faint: 0, ...more }));
const material = (
  solved: SeamMeasure,
  left: Figure[] | null = figure([box(0.4, 0.6), box(0, 0.1)]),
  right: Figure[] | null = figure([box(0.5, 0.7)]),
): Material => ({
  takes: Object.fromEntries(['plate', 'left', 'right'].map((id) => [id, heldTake(id, size, rate, 240)])),
  solved: {
    seam: { method: 'seam-7', seam: solved },
    [crossingLayer('left', 0)]: left && { method: 'figures-2', figures: left },
    [crossingLayer('right', 0)]: right && { method: 'figures-2', figures: right },
  },
});
const layers = (given: Material, settings: Partial<CloneMoment['settings']> = {}) =>
  mediaIn(clone.build({ ...moment, settings: { ...moment.settings, ...settings } }, ruler, given)).filter(
    ({ id }) => id.startsWith('crossing'),
  );
const said = (given: Material, some = moment) =>
  clone
    .examine(some, ruler, given)
    .filter(({ code }) => /cross|cuts/.test(code))
    .map(({ code, severity }) => `${severity} ${code}`);

describe('where two of a clone cross', () => {
  it('they are cut out by the plate for those frames, and as many to each side as lay between two looks', () => {
    const works = clone.works(moment, ruler, material(seam())).slice(1);
    expect(works.map(({ name }) => name)).toEqual(['crossing-left-0', 'crossing-right-0']);
    const [left, right] = works.map(({ task }) => task());
    const from = frames.lands + 20 - 2 - 1;
    // 96 frames are looked at every second one. The left one runs since the moment began, the right one since it appeared; one picture more each way.
    const within = (since: number, at: number) => at + (from - since) / 24;
    expect(left).toMatchObject({ is: 'figures', by: 'plate', media: 'media-left' });
    expect('from' in left && left.from).toBeCloseTo(within(frames.start, 0.5), 6);
    expect('from' in right && right.from).toBeCloseTo(within(frames.lands, 1.25), 6);
    expect(clone.works(moment, ruler, material(seam({ crossing: [] })))).toHaveLength(1);
    // Apart by more than a few frames they are two stretches.
    const two = crossingsOf(moment, frames, material(seam({ crossing: [frames.lands + 2, frames.end - 3] })));
    expect(two).toHaveLength(2);
    expect(two[1].until).toBe(frames.end);
  });

  it('each is laid whole over the joined picture, the copy in front or who was there first', () => {
    const given = material(seam());
    const [back, front] = layers(given);
    expect([back.id, front.id]).toEqual(['crossing-left-0', 'crossing-right-0']);
    expect([back.from, back.until]).toEqual([frames.lands + 18, frames.lands + 25]);
    // Somebody far off stays what the join makes of them.
    const shape = back.mattes[0].shape;
    expect(shape.is === 'outline' && shape.keys[0].rings).toHaveLength(1);
    expect(layers(given, { front: 'first' }).map(({ id }) => id)).toEqual([
      'crossing-right-0',
      'crossing-left-0',
    ]);
    expect(layers(given, { first: 'right' }).map(({ id }) => id)[1]).toBe('crossing-left-0');
    const order = mediaIn(clone.build(moment, ruler, given)).map(({ id }) => id);
    expect(order.indexOf('crossing-left-0')).toBeGreaterThan(order.indexOf('right'));
  });

  it('nothing is laid where one was not cut out, the plate is of another place, or the join was drawn', () => {
    for (const given of [
      material(seam(), null),
      material(seam(), figure([box(0, 1)], { share: 0.8 })),
      material(seam(), figure([], { share: 0 })),
    ]) {
      expect(layers(given)).toEqual([]);
      expect(said(given)).toEqual(['fix clone.crossing']);
    }
    expect(layers(material(seam()), { seam: box(0.4, 1) })).toEqual([]);
    expect(layers(material(seam()), { way: 'shared' })).toEqual([]);
  });

  it('is said: fine, to be watched where an edge is in doubt, and who is cut elsewhere stays a stop', () => {
    expect(said(material(seam()))).toEqual(['fine clone.crossed']);
    expect(said(material(seam(), figure([box(0.4, 0.6)], { faint: 0.4 })))).toEqual([
      'watch clone.crossed-faint',
    ]);
    const cut = (first: number, last: number, across = 0.5) => ({
      side: 0 as const,
      kept: true,
      whole: false,
      share: 0.4,
      frames: { count: 3, first: frames.lands + first, last: frames.lands + last },
      at: [across, 0.5] as Point,
    });
    expect(said(material(seam({ losses: [cut(20, 22)] })))).toEqual(['fine clone.crossed']);
    expect(said(material(seam({ losses: [cut(20, 40)] })))).toContain('stop clone.cuts');
    // Somebody far off may not be laid over the join.
    expect(said(material(seam({ losses: [cut(20, 22, 0.95)] })))).toContain('watch clone.cuts');
    const [found] = clone
      .examine(moment, ruler, material(seam()))
      .filter(({ code }) => code === 'clone.crossed');
    expect(sayFinding(found, { takes: {}, grid: null }).text).toMatch(/with the right one in front\.$/);
    const fields = (given: Material) =>
      clone.say(moment, ruler, given).filter((part) => typeof part !== 'string' && 'field' in part);
    expect(fields(material(seam())).length).toBe(fields(material(seam({ crossing: [] }))).length + 1);
  });
});
