import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sayFinding } from '../finding/say';
import { mapPoint } from '../geometry/affine';
import { inPlace, packPlacements, placementMatrix, type Placement } from '../geometry/placement';
import type { Point } from '../geometry/size';
import type { MomentOf, Take } from '../model/records';
import { mediaIn, matrixAt, secondsAt, type MediaNode, type Node } from '../picture/node';
import { regularGrid } from '../time/grid';
import { heldTake, projectOf, startsOf } from './__tests__/chosen';
import { recipeOf } from './built';
import { examineRepeats } from './examine-repeats';
import type { ChosenTake, Material } from './material';
import type { Recipe } from './recipe';

const size = { width: 640, height: 360 };
const rate = { num: 25, den: 1 };
const project = projectOf(size, rate);
const ruler = { grid: regularGrid(60, 0, 60), project };
const pictures = 200;

type Way = (seconds: number) => Placement;

/** A take whose camera goes some way against the plate's first picture, so many seconds later than the plate's does. */
function passed(
  id: string,
  way: Way,
  plate: Way,
  late: number,
  set: Partial<Take> = {},
  beside = 0,
): ChosenTake {
  const held = heldTake(id, size, rate, pictures, { slot: id, steady: true, ...set }, () => beside);
  const times = startsOf(rate, pictures);
  const along = (of: Way) => ({ times, placements: packPlacements([...times].map(of)) });
  const comparison = {
    ...held.comparison,
    repeat: { late, lead: along(plate), own: along(way), travels: { lead: 0, own: 0 } },
  };
  return { ...held, comparison: comparison as ChosenTake['comparison'] };
}

function clone(slots: Record<string, { take: string; at?: number }>): MomentOf<'clone'> {
  return {
    id: 'm',
    project: 'p',
    created: 0,
    changed: 0,
    alive: true,
    kind: 'moment',
    recipe: 'clone',
    name: 'Passes by',
    start: 1,
    lands: 2,
    end: 5,
    settings: { first: 'left', fade: 0, feather: 12, seam: null },
    slots,
  };
}

const slow: Way = (seconds) => ({ ...inPlace, dx: -40 * seconds });
const plateTake = (set: Partial<Take> = {}) =>
  heldTake('plate', size, rate, pictures, { slot: 'plate', moves: true, ...set });
const layer = (tree: Node, id: string) => mediaIn(tree).find((node) => node.id === id) as MediaNode;

/** Where the film shows a point of the set on a frame, by a layer and by where its take's camera was. */
function shownAt(node: MediaNode, way: Way, frame: number, point: Point): Point {
  const picture = Math.floor(secondsAt(node, frame) * 25 + 0.5) / 25;
  return mapPoint(matrixAt(node, frame), mapPoint(placementMatrix(way(picture), size), point));
}

describe('takes that repeat the move of their plate', () => {
  it('show every point of the set where the leading take does, whatever their cameras did', () => {
    const number = (most: number) => fc.double({ min: -most, max: most, noNaN: true });
    const wander = fc
      .record({ dx: number(30), dy: number(20), rotation: number(3), grows: number(0.05), sways: number(4) })
      .map(({ dx, dy, rotation, grows, sways }): Way => (seconds) => ({
        ...inPlace,
        dx: dx * seconds + sways * Math.sin(3 * seconds),
        dy: dy * Math.sin(seconds),
        rotation: rotation * Math.cos(seconds),
        scale: 1 + grows * Math.sin(seconds / 2),
      }));
    fc.assert(
      fc.property(
        wander,
        wander,
        wander,
        fc.double({ min: 0, max: 1, noNaN: true }),
        (plate, one, two, at) => {
          const material: Material = {
            takes: {
              plate: plateTake(),
              left: passed('left', one, plate, 0.4),
              right: passed('right', two, plate, -0.2),
            },
            solved: {},
          };
          const moment = clone({ left: { take: 'left', at: 1 }, right: { take: 'right', at: 1 + at } });
          const tree = (recipeOf(moment) as Recipe).build(moment, ruler, material);
          const lead = layer(tree, 'left');
          for (const frame of [50, 77, 124])
            for (const point of [
              [0, 0],
              [600, 300],
            ] as Point[]) {
              const [x, y] = shownAt(lead, one, frame, point);
              for (const [id, way] of [
                ['right', two],
                ['plate', plate],
              ] as const) {
                const [ownX, ownY] = shownAt(layer(tree, id), way, frame, point);
                expect(Math.hypot(ownX - x, ownY - y)).toBeLessThan(0.5);
              }
            }
          // The plate shows what the leading take does, as much earlier as that one comes later.
          expect(secondsAt(layer(tree, 'plate'), 77)).toBeCloseTo(secondsAt(lead, 77) - 0.4, 9);
          expect(matrixAt(lead, 77)).toEqual([1, 0, 0, 1, 0, 0]);
        },
      ),
      { numRuns: 20 },
    );
  });

  it('lays a take on the leading one that follows the plate closely, whether it is steadied or not', () => {
    // Half a picture later than the other: out of step by less than can be shown, and a pixel aside.
    const half = 0.5 / 25;
    const way: Way = (seconds) => slow(seconds - half);
    const takes = {
      plate: plateTake(),
      left: passed('left', slow, slow, 0),
      right: passed('right', way, slow, half, { steady: false }),
    };
    const moment = clone({ left: { take: 'left', at: 1 }, right: { take: 'right', at: 2 + half } });
    const tree = (recipeOf(moment) as Recipe).build(moment, ruler, { takes, solved: {} });
    const [lead, copy] = [layer(tree, 'left'), layer(tree, 'right')];
    for (const frame of [51, 90, 124]) {
      const [x] = shownAt(lead, slow, frame, [300, 100]);
      expect(shownAt(copy, way, frame, [300, 100])[0]).toBeCloseTo(x, 1);
    }
  });

  it('lays an answer of the same take at another time where the camera is meanwhile, and offers no step for it', () => {
    const left = passed('left', slow, slow, 0);
    const moment = clone({ left: { take: 'left', at: 1 }, right: { take: 'left', at: 3 } });
    const material = { takes: { plate: plateTake(), left, right: left }, solved: {} };
    const recipe = recipeOf(moment) as Recipe;
    const tree = recipe.build(moment, ruler, material);
    const [x] = shownAt(layer(tree, 'left'), slow, 77, [300, 100]);
    expect(shownAt(layer(tree, 'right'), slow, 77, [300, 100])[0]).toBeCloseTo(x, 1);
    const [finding] = examineRepeats(moment, recipe, ruler, material);
    expect(finding).toMatchObject({ code: 'repeat.out-of-step', severity: 'fix' });
    expect(finding.fix).toBeUndefined();
  });

  it('leaves a take as it was filmed that is not to be corrected, and stands while nothing is known', () => {
    const moment = clone({ left: { take: 'left', at: 1 }, right: { take: 'right', at: 2 } });
    const build = (takes: Material['takes']) =>
      (recipeOf(moment) as Recipe).build(moment, ruler, { takes, solved: {} });
    const right = passed('right', (s) => ({ ...slow(s), dy: 3 }), slow, 0, { steady: false }, 3);
    const tree = build({ plate: plateTake(), left: passed('left', slow, slow, 0), right });
    expect(matrixAt(layer(tree, 'right'), 77)).toEqual([1, 0, 0, 1, 0, 0]);
    const early = build({ plate: plateTake(), left: heldTake('left', size, rate, pictures), right });
    expect(secondsAt(layer(early, 'plate'), 77)).toBe(0);
    expect(matrixAt(layer(early, 'plate'), 77)).toEqual([1, 0, 0, 1, 0, 0]);
  });
});

describe('what is said of takes that repeat a move', () => {
  const told = (slots: Parameters<typeof clone>[0], takes: Material['takes'], kind = 'clone') => {
    const moment = { ...clone(slots), recipe: kind } as MomentOf<'clone'>;
    const found = examineRepeats(moment, recipeOf(moment) as Recipe, ruler, { takes, solved: {} });
    return found.map((finding) => ({
      fix: finding.fix?.args,
      text: `${finding.severity} ${sayFinding(finding, { takes: {}, grid: null }).text}`,
    }));
  };
  const both = { left: { take: 'left', at: 1 }, right: { take: 'right', at: 2.5 } };
  /** A take whose camera does what the plate's does, later. */
  const later = (id: string, late: number) => passed(id, (seconds) => slow(seconds - late), slow, late);
  const left = later('left', 0.4);
  const right = (late: number) => later('right', late);

  it('is fine in step, and laid in step where the plate would show along an edge', () => {
    expect(told(both, { plate: plateTake(), left, right: right(0.9) })).toEqual([
      {
        fix: undefined,
        text: expect.stringMatching(/^fine .* follow the camera of the left take, in step to 0 ms/),
      },
    ]);
    // Shown 1.5 s too early, 60 px of 640 aside.
    expect(told(both, { plate: plateTake(), left, right: right(-0.6) })).toEqual([
      {
        fix: { moment: 'm', slot: 'right', at: 1 },
        text: expect.stringMatching(
          /^fix The camera of the right take comes 1\.50? s early .* laid back by up to 6[01] px/,
        ),
      },
    ]);
  });

  it('says nothing of a step that nobody sees, since the camera hardly moves', () => {
    const crawls: Way = (seconds) => ({ ...inPlace, dx: -4 * seconds });
    const takes = {
      plate: plateTake(),
      left: passed('left', crawls, crawls, 0.4),
      right: passed('right', crawls, crawls, -0.6),
    };
    expect(told(both, takes)).toEqual([{ fix: undefined, text: expect.stringMatching(/^fine/) }]);
  });

  it('counts the frames in which a camera is where the plate’s never came to', () => {
    const short = left.comparison?.repeat?.lead;
    if (!short) throw new Error('Nothing repeats.');
    // The plate's pass ends after two seconds.
    const cut = { times: short.times.subarray(0, 50), placements: short.placements.subarray(0, 250) };
    const within = (one: ChosenTake) =>
      ({
        ...one,
        comparison: { ...one.comparison, repeat: { ...one.comparison?.repeat, lead: cut } },
      }) as ChosenTake;
    const found = told(both, { plate: plateTake(), left: within(left), right: within(right(0.9)) });
    expect(found.map(({ text }) => text)).toEqual([
      expect.stringMatching(/^fix 6\d frames of the left take show what the plate’s camera never came to/),
      expect.stringMatching(/^fix 6\d frames of the right take/),
    ]);
  });

  it('is nothing where the plate stands, and a stop in a kind that is built with a camera that stands', () => {
    expect(told(both, { plate: plateTake({ moves: false }), left, right: right(0.9) })).toEqual([]);
    const [stop] = told(both, { plate: plateTake(), left }, 'take-off');
    expect(stop.text).toMatch(/^stop The camera of the plate moves\. .* is built with a camera that stands/);
  });
});
