import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { painted } from '../../__tests__/scene';
import { mapPoint } from '../../geometry/affine';
import { describeFrame } from '../../picture/draw-list';
import { layerAt } from '../../picture/layer-at';
import { matrixAt, mediaIn } from '../../picture/node';
import { paintFrame } from '../../picture/reference/paint';
import { frameOfBeat, regularGrid } from '../../time/grid';
import { base, chosenTake, projectOf } from '../__tests__/chosen';
import type { Material } from '../material';
import { splitScreen } from '.';
import { slotsOf, splitFrames, type SplitMoment } from './build';
import { panelsOf } from './panels';

const size = { width: 192, height: 108 };
const rate = { num: 25, den: 1 };
const ruler = { grid: regularGrid(120, 0.1, 60), project: projectOf(size, rate) };
const moment: SplitMoment = {
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'split-screen',
  name: 'Chorus',
  start: 8,
  lands: 10,
  end: 16,
  settings: { panels: 3 },
  slots: {},
};
const set = (settings: Partial<SplitMoment['settings']>, more: Partial<SplitMoment> = {}): SplitMoment => ({
  ...moment,
  ...more,
  settings: { ...moment.settings, ...settings },
});
const material = (given = moment, pictures = 250, own = size): Material => ({
  takes: Object.fromEntries(slotsOf(given).map(({ key }) => [key, chosenTake(key, own, rate, pictures)])),
  solved: {},
});
const codes = (given: SplitMoment, of = material(given)) =>
  splitScreen.examine(given, ruler, of).map(({ severity, code }) => `${severity} ${code}`);
const light = (media: string) => 60 + 20 * Number(media.slice(-1));
const paint = (given: SplitMoment, frame: number) =>
  paintFrame(splitScreen.build(given, ruler, material(given)), frame, size, (media) =>
    painted(size, () => [light(media), light(media), light(media)]),
  );
const at = (given: SplitMoment, frame: number, x: number, y: number) =>
  paint(given, frame).data[4 * (y * size.width + x)];

describe('a cut that is drawn', () => {
  const ring: [number, number][] = [
    [0, 0],
    [0.5, 0],
    [0.3, 1],
    [0, 1],
  ];
  const drawn = set({ drawn: { 'panel-1': ring } });

  it('is where its panel shows, filled by its take', () => {
    expect(at(drawn, 180, 40, 4)).toBe(80);
    expect(at(drawn, 180, 62, 104)).not.toBe(80);
    const [panel] = panelsOf(drawn.settings, size);
    expect([panel.box.left, panel.box.right]).toEqual([0, 96]);
    const outline = splitScreen.outline(drawn, material(), ruler, 0, 'panel-1');
    expect(outline).toMatchObject({ state: 'drawn', setting: 'drawn.panel-1', rings: [ring] });
    expect(splitScreen.outline(moment, material(), ruler, 0, 'panel-3')).toMatchObject({ state: 'guessed' });
    expect(splitScreen.outline(moment, material(), ruler, 0, 'panel-4')).toBeNull();
  });

  it('that leaves much of the frame black is said', () => {
    const small: [number, number][] = ring.map(([x, y]) => [x * 0.4, y]);
    expect(codes(set({ drawn: { 'panel-1': small } }))).toContain('watch split.open');
    expect(
      codes(
        set({
          drawn: {
            'panel-1': [
              [0, 0],
              [0.34, 0],
              [0.34, 1],
              [0, 1],
            ],
          },
        }),
      ),
    ).not.toContain('watch split.open');
    expect(codes(set({ gutter: 60 }))).not.toContain('watch split.open');
  });
});

describe('the split screen', () => {
  it('lays panels side by side that fill the frame but for its gutters, however it is cut', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 9 }),
        fc.constantFrom('columns', 'rows', 'grid' as const),
        fc.integer({ min: -30, max: 30 }),
        (panels, cut, lean) => {
          const rings = panelsOf({ panels, cut, lean, gutter: 0 } as SplitMoment['settings'], size).map(
            ({ ring }) => ring,
          );
          expect(rings).toHaveLength(panels);
          const area = (ring: readonly (readonly number[])[]) =>
            Math.abs(
              ring.reduce((sum, [x, y], index) => {
                const [nextX, nextY] = ring[(index + 1) % ring.length];
                return sum + x * nextY - nextX * y;
              }, 0) / 2,
            );
          // Shoelace formula: without gutters the panels are the frame, whatever the lean.
          expect(rings.reduce((sum, ring) => sum + area(ring), 0)).toBeCloseTo(size.width * size.height, 3);
        },
      ),
    );
  });

  it('shows each panel from its beat on, the last where it lands, and black until then', () => {
    const { comes, start, end } = splitFrames(moment, ruler);
    expect(comes).toEqual([8, 9, 10].map((beat) => frameOfBeat(ruler.grid, rate, beat)));
    expect([at(moment, start, 30, 50), at(moment, start, 96, 50), at(moment, start, 160, 50)]).toEqual([
      80, 0, 0,
    ]);
    expect([at(moment, comes[1] - 1, 96, 50), at(moment, comes[1], 96, 50)]).toEqual([0, 100]);
    expect([at(moment, comes[2] - 1, 160, 50), at(moment, comes[2], 160, 50)]).toEqual([0, 120]);
    expect(at(moment, end - 1, 64, 50)).toBe(0);
    const pinned = { ...moment, pins: { 'panel-2': 8.5 } };
    expect(splitFrames(pinned, ruler).comes[1]).toBe(frameOfBeat(ruler.grid, rate, 8.5));
  });

  it('fills every panel with its picture and nothing beside it', () => {
    for (const cut of ['columns', 'rows', 'grid'] as const)
      for (const pushed of [-100, 0, 100]) {
        const given = set({
          panels: 5,
          cut,
          gutter: 0,
          lean: 12,
          pushed: { 1: pushed, 2: pushed, 5: pushed },
        });
        const { data } = paint(given, splitFrames(given, ruler).end - 1);
        for (let pixel = 0; pixel < data.length; pixel += 4) expect(data[pixel]).toBeGreaterThanOrEqual(70);
      }
  });

  it('pushes a picture aside as far as there is something to show', () => {
    const leftOf = (pushed: number) => {
      const tree = splitScreen.build(set({ pushed: { 1: pushed } }), ruler, material());
      return describeFrame(tree, splitFrames(moment, ruler).start)?.[0][0].matrix[4] ?? NaN;
    };
    expect(leftOf(100)).toBeCloseTo(0, 6);
    expect(leftOf(0)).toBeCloseTo((60 - 192) / 2, 6);
    expect(leftOf(-100)).toBeCloseTo(60 - 192, 6);
  });

  it('says what is missing, too short, soft, twice, or out of turn', () => {
    expect(codes(moment)).toEqual(['fine split.lands']);
    expect(
      codes(moment, { takes: {}, solved: {} }).filter((code) => code === 'stop split.missing'),
    ).toHaveLength(3);
    expect(codes(moment, material(moment, 50))).toContain('stop split.short');
    expect(codes({ ...moment, lands: 16 })).toContain('stop split.never-lands');
    const small = { width: 128, height: 72 };
    expect(codes(moment, material(moment, 250, small))).toContain('watch split.soft');
    const one = chosenTake('one', size, rate, 250);
    const twice = { takes: { 'panel-1': one, 'panel-2': one, 'panel-3': one }, solved: {} };
    const together = { ...moment, lands: 8.25, pins: { 'panel-2': 8 } };
    expect(codes(together, twice)).toContain('watch split.twice');
    expect(codes(moment, twice)).toEqual(['fine split.lands']);
  });

  it('is built as far as it can be, and says itself in a sentence and in numbers', () => {
    const tree = splitScreen.build(moment, ruler, { takes: {}, solved: {} });
    expect(mediaIn(tree)).toEqual([]);
    const said = splitScreen.say(moment, ruler, material()).filter((part) => typeof part !== 'string');
    expect(said).toContainEqual({ field: 'pushed.2', value: 0 });
    const steps = splitScreen.explain(
      moment,
      ruler,
      material(),
      splitScreen.build(moment, ruler, material()),
    );
    expect(steps.map(({ title }) => title)).toEqual([
      'First panel: panel-1',
      'Second panel: panel-2',
      'Third panel: panel-3',
    ]);
    const value = (what: string) => steps[1].rows.find((row) => row.what === what)?.value;
    expect(value('size of the file')).toBe(100);
    expect(value('left edge of the file')).toBeCloseTo(-0, 6);
    expect(value('mask point 1, across')).toBe(68);
  });
});

describe('a panel that follows a point', () => {
  const wide = { width: 384, height: 216 };
  const taps = [{ time: 1, at: [0.2, 0.5] as [number, number] }];
  const tapped = set({}, { slots: { 'panel-2': { take: 'panel-2', at: 1, taps } } });
  const { comes, end } = splitFrames(tapped, ruler);
  const length = end - comes[1];
  /** Where the point is after a share of what shows. */
  const material2 = (way: (share: number) => number, lost: number[] = []): Material => ({
    ...material(tapped, 250, wide),
    solved: {
      'track-panel-2': {
        method: 'track-2',
        track: {
          points: Array.from({ length: length + 1 }, (_, index) => ({
            time: 1 + index / 25,
            at: [way(index / length), 0.5] as [number, number],
            tap: 0,
            scale: 1,
            rotation: 0,
          })),
          lost,
        },
      },
    },
  });
  const walks = material2((share) => 0.2 + 0.6 * share);
  const nodeIn = (given: Material) => {
    const node = mediaIn(splitScreen.build(tapped, ruler, given)).find(({ id }) => id === 'panel-2');
    if (!node) throw new Error('There is no second panel.');
    return node;
  };
  const { box } = panelsOf(tapped.settings, size)[1];
  const frames = Array.from({ length }, (_, index) => comes[1] + index);

  it('keeps it in its middle and stays filled, and others are as they were', () => {
    const node = nodeIn(walks);
    const off = frames.map((frame) => {
      const matrix = matrixAt(node, frame);
      const share = (frame - comes[1]) / length;
      const [x] = mapPoint(matrix, [(0.2 + 0.6 * share) * wide.width, 0.5 * wide.height]);
      const [[left, top], [right, bottom]] = [
        mapPoint(matrix, [0, 0]),
        mapPoint(matrix, [wide.width, wide.height]),
      ];
      expect(left).toBeLessThanOrEqual(box.left + 1e-6);
      expect(right).toBeGreaterThanOrEqual(box.right - 1e-6);
      expect([top, bottom]).toEqual([0, size.height]);
      return Math.abs(x - (box.left + box.right) / 2);
    });
    expect(Math.max(...off)).toBeLessThan(1);
    const plain = mediaIn(splitScreen.build(set({}), ruler, material(tapped, 250, wide)));
    const others = mediaIn(splitScreen.build(tapped, ruler, walks));
    for (const index of [0, 2]) expect(others[index].transforms).toEqual(plain[index].transforms);
  });

  it('is pushed without a jerk where the point jumps', () => {
    const node = nodeIn(material2((share) => (share < 0.5 ? 0.4 : 0.6)));
    const lefts = frames.map((frame) => mapPoint(matrixAt(node, frame), [0, 0])[0]);
    const steps = lefts.slice(1).map((left, index) => left - lefts[index]);
    const jerks = steps.slice(1).map((step, index) => Math.abs(step - steps[index]));
    expect(Math.abs(lefts[lefts.length - 1] - lefts[0])).toBeCloseTo(0.2 * 192, 0);
    expect(Math.max(...jerks)).toBeLessThan(1);
  });

  it('asks to follow what was tapped alone, and says whether it was found, lost, or beyond its picture', () => {
    const [work, ...more] = splitScreen.works(tapped, ruler, material(tapped, 250, wide));
    expect(more).toEqual([]);
    expect(work).toMatchObject({ name: 'track-panel-2', is: 'track' });
    expect(work.task()).toMatchObject({ is: 'track', media: 'media-panel-2', taps: [{ time: 1 }] });
    expect(splitScreen.works(moment, ruler, material())).toEqual([]);
    expect(codes(tapped, walks)).toContain('fine split.follows');
    expect(codes(tapped, walks).filter((code) => code.startsWith('fix'))).toEqual([]);
    expect(
      codes(
        tapped,
        material2((share) => share, [2.5]),
      ),
    ).toContain('fix split.lost');
    // The picture has an edge: somebody who stands at it cannot be in the middle, and is in the panel all the same.
    expect(
      codes(
        tapped,
        material2(() => 0.02),
      ),
    ).not.toContain('fix split.leaves');
    expect(
      codes(
        tapped,
        material2(() => 1.02),
      ),
    ).toContain('fix split.leaves');
    const jumps = material2((share) => (share < 0.5 ? 0.1 : 0.9));
    expect(codes(tapped, jumps)).toContain('fix split.leaves');
    expect(codes(set({}, { slots: {} }), walks)).not.toContain('fine split.follows');
  });

  it('is told by the point in which panel it lies', () => {
    const layers = mediaIn(splitScreen.build(tapped, ruler, walks));
    const [first, second] = panelsOf(tapped.settings, size);
    const middle = (second.box.left + second.box.right) / 2;
    const found = layerAt(layers, end - 30, [middle, 54]);
    expect(found?.layer.id).toBe('panel-2');
    // In its own picture the point is where the walker is then.
    const share = (end - 30 - comes[1]) / length;
    expect((found?.inContent[0] ?? 0) / wide.width).toBeCloseTo(0.2 + 0.6 * share, 1);
    expect(layerAt(layers, end - 30, [first.box.left + 2, 20])?.layer.id).toBe('panel-1');
    expect(layerAt(layers, end - 30, [(first.box.right + second.box.left) / 2, 54])).toBeNull();
    expect(layerAt(layers, comes[1] - 1, [middle, 54])).toBeNull();
  });
});
