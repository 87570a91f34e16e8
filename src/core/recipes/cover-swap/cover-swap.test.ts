import { describe, expect, it } from 'vitest';
import { painted } from '../../__tests__/scene';
import type { UnderSpan } from '../../footage/under';
import { canPaint } from '../../picture/draw-list';
import { mediaIn } from '../../picture/node';
import { paintFrame } from '../../picture/reference/paint';
import { frameOfBeat, regularGrid } from '../../time/grid';
import { timeOfFrame } from '../../time/rate';
import { base, chosenTake, projectOf } from '../__tests__/chosen';
import type { Material } from '../material';
import { coverSwap } from '.';
import { coverFrames, type CoverMoment } from './build';

const size = { width: 96, height: 54 };
const rate = { num: 25, den: 1 };
const ruler = { grid: regularGrid(120, 0.1, 60), project: projectOf(size, rate) };
const square: [number, number][] = [
  [0.25, 0.25],
  [0.5, 0.25],
  [0.5, 0.75],
  [0.25, 0.75],
];
const moment: CoverMoment = {
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'cover-swap',
  name: 'The lid',
  start: 8,
  lands: 10,
  end: 16,
  settings: { objects: 1, frames: 4, soft: 0, patch: square },
  slots: { swap: { take: 'swap' } },
};
const set = (settings: Partial<CoverMoment['settings']>, more: Partial<CoverMoment> = {}): CoverMoment => ({
  ...moment,
  ...more,
  settings: { ...moment.settings, ...settings },
});
const material = (takes: Material['takes'] = {}): Material => ({
  takes: {
    plate: chosenTake('plate', size, rate, 100),
    swap: chosenTake('swap', size, rate, 250),
    patch: null,
    ...takes,
  },
  solved: {},
});
const codes = (given: CoverMoment, of = material()) =>
  coverSwap.examine(given, ruler, of).map(({ severity, code }) => `${severity} ${code}`);
const lights: Record<string, number> = { 'media-swap': 200, 'media-plate': 40, 'media-patch': 90 };
const lightAt = (given: CoverMoment, frame: number, [x, y]: [number, number], of = material()) =>
  paintFrame(coverSwap.build(given, ruler, of), frame, size, (media) =>
    painted(size, () => [lights[media], lights[media], lights[media]]),
  ).data[4 * (y * size.width + x)];
const { lands, start, gone } = coverFrames(moment, ruler);
const under: [number, number] = [36, 27];
const beside: [number, number] = [80, 27];

describe('the cover swap', () => {
  it('hides what lies under its patch until the frame of its beat, and nothing else', () => {
    expect(lands).toBe(frameOfBeat(ruler.grid, rate, 10));
    expect([start, lands - 1].map((frame) => lightAt(moment, frame, under))).toEqual([40, 40]);
    expect(lightAt(moment, start, beside)).toBe(200);
    const fading = [lands, lands + 1, lands + 2].map((frame) => lightAt(moment, frame, under));
    expect(fading).toEqual([80, 120, 160]);
    expect(lightAt(moment, gone, under)).toBe(200);
    const cut = set({ frames: 1 });
    expect([lands - 1, lands].map((frame) => lightAt(cut, frame, under))).toEqual([40, 200]);
  });

  it('covers with a take of the untouched object where there is one', () => {
    const with_ = material({ patch: chosenTake('patch', size, rate, 100) });
    expect(lightAt(moment, start, under, with_)).toBe(90);
  });

  it('is painted on planes, and built as far as it can be', () => {
    for (const given of [moment, set({ patch: null }), { ...moment, lands: 8 }, { ...moment, lands: 16 }]) {
      const tree = coverSwap.build(given, ruler, material());
      for (let frame = tree.from; frame < tree.until; frame += 3) expect(canPaint(tree, frame)).toBe(true);
    }
    expect(mediaIn(coverSwap.build(moment, ruler, { takes: {}, solved: {} }))).toEqual([]);
  });

  it('says what is missing, not drawn, cramped, too short, out of turn, or covered too', () => {
    expect(codes(moment)).toEqual(['fine cover.lands']);
    expect(codes(moment, material({ swap: null, plate: null })).slice(0, 2)).toEqual([
      'stop cover.missing',
      'stop cover.missing',
    ]);
    expect(codes(set({ patch: null }))).toContain('fix cover.not-drawn');
    expect(codes(set({ frames: 120 }))).toContain('fix cover.cramped');
    expect(codes(moment, material({ swap: chosenTake('swap', size, rate, 20) }))).toContain(
      'stop cover.short',
    );
    expect(codes({ ...moment, lands: 8 })).toContain('stop cover.never-lands');
    const moves = (spans: UnderSpan[]) => ({
      ...material(),
      solved: { under: { method: 'under-1' as const, spans } },
    });
    const found = (spans: UnderSpan[]) =>
      coverSwap
        .examine(moment, ruler, moves(spans))
        .filter(({ code }) => code === 'cover.somebody')
        .map(({ facts }) => [facts?.first, facts?.last]);
    const at = (frame: number) => timeOfFrame(rate, frame - start);
    expect(codes(moment, moves([]))).toEqual(['fine cover.lands']);
    expect(found([{ from: at(start + 4), to: at(start + 9), share: 0.3 }])).toEqual([[start + 4, start + 8]]);
    // What goes on while the patch is gone is no concern of it.
    expect(found([{ from: at(gone - 2), to: at(gone + 40), share: 0.3 }])).toEqual([[gone - 2, gone - 1]]);
    expect(found([{ from: at(gone), to: at(gone + 40), share: 0.3 }])).toEqual([]);
  });

  it('says itself in a sentence and in numbers', () => {
    const said = coverSwap.say(moment, ruler, material()).filter((part) => typeof part !== 'string');
    expect(said).toContainEqual({ field: 'frames' });
    expect(coverSwap.outline(moment, material(), ruler, 0)).toMatchObject({
      setting: 'patch',
      state: 'drawn',
    });
    const [, patch] = coverSwap.explain(
      moment,
      ruler,
      material(),
      coverSwap.build(moment, ruler, material()),
    );
    expect(patch.text).toContain(`begins to go on frame ${lands}`);
    expect(patch.rows).toContainEqual(expect.objectContaining({ what: 'mask point 1, across', value: 24 }));
    expect(
      patch.rows.filter(({ what }) => what === 'opacity').map(({ frame, value }) => [frame, value]),
    ).toEqual([
      [lands - 1, 100],
      [gone, 0],
    ]);
  });
});

describe('a patch that goes along with what is tapped', () => {
  const taps = [{ time: 0.4, at: [0.4, 0.5] as [number, number] }];
  const along = set({}, { slots: { swap: { take: 'swap', taps } } });
  /** The object goes to the right by a tenth of the frame a second, and lies at 0.4 when it is tapped. */
  const at = (seconds: number): [number, number] => [0.4 + 0.1 * (seconds - 0.4), 0.5];
  const found = (lost: number[] = []): Material => ({
    ...material(),
    solved: {
      'track-swap': {
        method: 'track-2',
        track: {
          points: Array.from({ length: 60 }, (_, index) => ({
            time: index / 25,
            at: at(index / 25),
            tap: 0,
            scale: 1,
            rotation: 0,
          })),
          lost,
        },
      },
    },
  });

  it('lies as it was drawn on the picture that was tapped, and with the object on all others', () => {
    for (const frame of [start, start + 10, lands - 1]) {
      const moved = Math.round((at((frame - start) / 25)[0] - 0.4) * 96);
      const [left, right] = [24 + moved, 48 + moved];
      const light = (x: number) => lightAt(along, frame, [x, 27], found());
      expect([light(left - 2), light(left + 2), light(right - 2), light(right + 2)]).toEqual([
        200, 40, 40, 200,
      ]);
    }
    // Its landing is where the object then is.
    const landing = coverSwap.landing(along, ruler, found());
    expect(landing?.at[0]).toBeCloseTo(0.375 + at((lands - start) / 25)[0] - 0.4, 3);
  });

  it('asks where the object is instead of what moves under it, and says what it found', () => {
    expect(coverSwap.works(moment, ruler, material()).map(({ is }) => is)).toEqual(['under']);
    expect(coverSwap.works(along, ruler, material()).map(({ is }) => is)).toEqual(['track']);
    expect(codes(along, found())).toContain('fine cover.follows');
    expect(codes(along, found([1]))).toContain('fix cover.lost');
    expect(coverSwap.say(along, ruler, found()).join(' ')).toContain('goes along');
    // Before anything was found it lies as it was drawn.
    expect(lightAt(along, lands - 1, under)).toBe(40);
    expect(codes(along)).not.toContain('fine cover.follows');
  });
});
