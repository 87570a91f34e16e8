import { describe, expect, it } from 'vitest';
import { smoothPath, type FreePath } from '../footage/free-path';
import { invertAffine, mapPoint } from '../geometry/affine';
import {
  chain,
  inPlace,
  inverted,
  packPlacements,
  placementMatrix,
  type Placement,
} from '../geometry/placement';
import type { Moment } from '../model/records';
import { matrixAt, mediaIn, type Node } from '../picture/node';
import { seeded } from '../random';
import type { Rate } from '../time/rate';
import { base, chosenTake, heldTake } from './__tests__/chosen';
import { layerOf, pictureOf } from './__tests__/layers';
import { recipeOf } from './built';
import type { Material } from './material';
import type { Recipe } from './recipe';
import { examineSmoothing, pathWorks, smoothableIn, smoothsCamera, withSmoothed } from './smoothing';

const rate: Rate = { num: 25, den: 1 };
const size = { width: 1920, height: 1080 };
const small = { width: 480, height: 270 };
const moment = { ...base, id: 'm' } as unknown as Moment;
const takeOf = (id: string, smooth?: number) =>
  chosenTake(id, size, rate, 500, smooth === undefined ? {} : { smooth });
const layer = (media: string, at: number) => layerOf(media, at, size, rate);
const treeOf = (...layers: Node[]) => pictureOf(size, ...layers);

/** A hand over seconds 3 to 7 of a take, which shakes by so many pixels of the small picture. */
function handOf(by: number, lost: number[] = []): { path: FreePath; way: Placement[] } {
  const next = seeded(9);
  const way = Array.from({ length: 100 }, (_, index): Placement => ({
    ...inPlace,
    dx: 0.8 * index + by * (next() - 0.5),
    dy: by * (next() - 0.5),
  }));
  const times = Float64Array.from(way, (_, index) => 3 + index / 25);
  return { path: { size: small, times, placements: packPlacements(way), lost }, way };
}
const solvedBy = (path: FreePath): Material['solved'] => ({ 'path-street': { method: 'path-1', path } });

describe('a camera that is smoothed on its way', () => {
  const tree = treeOf(layer('media-street', 4), layer('media-other', 4));
  const takes = { one: takeOf('street', 50), two: takeOf('other') };

  it('is followed over what shows of its take, and a second to each side', () => {
    const [work, ...more] = pathWorks(tree, takes);
    expect(more).toEqual([]);
    expect(work).toMatchObject({ name: 'path-street', is: 'path' });
    expect(work.task()).toEqual({ is: 'path', media: 'media-street', from: 3, until: 7 });
    // How much it is smoothed asks nothing anew.
    expect(pathWorks(tree, { one: takeOf('street', 80) })[0].parts).toEqual(work.parts);
  });

  it('moves each picture from where the hand held it to where it should be, in pixels of the file', () => {
    const { path, way } = handOf(4);
    const calm = smoothPath(way, path.times, small, 0.5);
    const [street, other] = mediaIn(withSmoothed(tree, { takes, solved: solvedBy(path) }));
    expect(other).toBe(mediaIn(tree)[1]);
    for (const frame of [50, 63, 99]) {
      const index = 25 + (frame - 50);
      // A place of the ground as the file shows it, and where a calm camera would, enlarged about the middle.
      const ground: [number, number] = [700, 300];
      const file = mapPoint(
        placementMatrix({ ...way[index], dx: 4 * way[index].dx, dy: 4 * way[index].dy }, size),
        ground,
      );
      const should = chain(way[index], calm.moves[index]);
      const wanted = mapPoint(
        placementMatrix({ ...should, dx: 4 * should.dx, dy: 4 * should.dy }, size),
        ground,
      );
      const shown = mapPoint(matrixAt(street, frame), file);
      // Undone the enlargement about the middle of what is moved.
      const move = calm.moves[index];
      const [cx, cy] = [size.width / 2 + 4 * move.dx, size.height / 2 + 4 * move.dy];
      expect((shown[0] - cx) / calm.cover + cx).toBeCloseTo(wanted[0], 0);
      expect((shown[1] - cy) / calm.cover + cy).toBeCloseTo(wanted[1], 0);
    }
  });

  it('is none that a plate or a followed point holds already', () => {
    const [ramp, over] = ['speed-ramp', 'clone'].map((recipe) => ({ ...moment, recipe }) as Moment);
    const pass = { pass: takes.one };
    expect(smoothableIn(over, recipeOf(over) as Recipe, { left: takes.one })).toEqual({});
    expect(smoothableIn(ramp, recipeOf(ramp) as Recipe, pass)).toEqual(pass);
    const slots = { pass: { take: 'street', taps: [{ time: 4, at: [0.5, 0.5] as [number, number] }] } };
    const followed = { ...ramp, slots } as Moment;
    expect(smoothableIn(followed, recipeOf(ramp) as Recipe, pass)).toEqual({});
    const steadied = { pass: heldTake('street', size, rate, 500, { smooth: 50, steady: true }) };
    expect(smoothableIn(ramp, recipeOf(ramp) as Recipe, steadied)).toEqual({});
  });

  it('never shows an edge', () => {
    for (const by of [1, 8, 60]) {
      const [street] = mediaIn(withSmoothed(tree, { takes, solved: solvedBy(handOf(by).path) }));
      for (let frame = 50; frame < 100; frame++)
        for (const corner of [
          [0, 0],
          [1920, 0],
          [0, 1080],
          [1920, 1080],
        ] as [number, number][]) {
          const [x, y] = mapPoint(invertAffine(matrixAt(street, frame)), corner);
          // Keyframes are the fewest within a tenth of a pixel.
          expect(x).toBeGreaterThan(-0.5);
          expect(y).toBeGreaterThan(-0.5);
          expect(x).toBeLessThan(size.width + 0.5);
          expect(y).toBeLessThan(size.height + 0.5);
        }
    }
  });

  it('stays as it is where nothing is smoothed, or nothing is known yet', () => {
    for (const none of [{ one: takeOf('street') }, { one: takeOf('street', 0) }] as Material['takes'][]) {
      expect(smoothsCamera(none)).toBe(false);
      expect(withSmoothed(tree, { takes: none, solved: solvedBy(handOf(4).path) })).toBe(tree);
    }
    expect(withSmoothed(tree, { takes, solved: {} })).toBe(tree);
    expect(examineSmoothing(moment, { takes, solved: {} })).toEqual([]);
  });

  it('is fine only where it is calmer by much, as asked, and could be held on to', () => {
    const codes = (path: FreePath, smooth = 50) =>
      examineSmoothing(moment, { takes: { one: takeOf('street', smooth) }, solved: solvedBy(path) }).map(
        ({ code, severity }) => `${code} ${severity}`,
      );
    expect(codes(handOf(4).path)).toEqual(['smooth.done fine']);
    expect(codes(handOf(90).path)).toEqual(['smooth.partly watch']);
    expect(codes(handOf(4).path, 1)).toEqual(['smooth.rough watch']);
    expect(codes(handOf(4, [4.2, 4.24]).path)).toEqual(['smooth.lost watch']);
    expect(codes(handOf(90, [4.2]).path)).toEqual(['smooth.lost watch', 'smooth.partly watch']);
  });

  it('goes the same way wherever it is smoothed', () => {
    const { path, way } = handOf(4);
    const { moves } = smoothPath(way, path.times, small, 0.5);
    const calm = way.map((here, index) => chain(here, moves[index]));
    // What was meant goes by 0.8 pixels a picture.
    const steps = calm.slice(1).map((here, index) => chain(inverted(calm[index]), here).dx);
    expect(Math.max(...steps.map((one) => Math.abs(one - 0.8)))).toBeLessThan(0.35);
  });
});
