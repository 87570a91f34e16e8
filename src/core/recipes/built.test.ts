import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Moment, Take } from '../model/records';
import { canPaint } from '../picture/draw-list';
import { nodesIn } from '../picture/node';
import { frameOfBeat, regularGrid, timeOfBeat } from '../time/grid';
import { timeOfFrame } from '../time/rate';
import { base, chosenTake, projectOf } from './__tests__/chosen';
import { builtKinds, candidatesFor, pairsOf, recipeOf, slotInName, slotsInUse } from './built';
import { films, type MomentKind } from './films';
import type { Material } from './material';
import type { Pairs, Recipe } from './recipe';

const sizes = [
  { width: 1920, height: 1080 },
  { width: 1080, height: 1920 },
];
const rates = [
  { num: 24000, den: 1001 },
  { num: 24, den: 1 },
  { num: 30, den: 1 },
  { num: 60000, den: 1001 },
];
const position = fc.double({ min: -20, max: 400, noNaN: true });
const given = fc.record({
  start: position,
  lands: position,
  end: position,
  pins: fc.dictionary(fc.constantFrom('pose-2', 'panel-2', 'panel-3', 'piece-2', 'leaves'), position),
  at: fc.double({ min: 0, max: 100, noNaN: true }),
  size: fc.constantFrom(...sizes),
  rate: fc.constantFrom(...rates),
  own: fc.constantFrom({ width: 1280, height: 720 }, { width: 720, height: 1280 }),
  filmed: fc.constantFrom(...rates),
  pictures: fc.constantFrom(1, 2, 40, 600),
  missing: fc.integer({ min: 0, max: 9 }),
  tempo: fc.double({ min: 40, max: 220, noNaN: true }),
});
type Given = typeof given extends fc.Arbitrary<infer One> ? One : never;

/** A moment of a kind with whatever was done to it, and what it is built from. */
function odd(kind: MomentKind, one: Given) {
  const recipe = recipeOf({ recipe: kind } as Moment) as Recipe;
  const { start, lands, end, pins } = one;
  const slots = Object.fromEntries(recipe.slots.map(({ key }) => [key, { take: key, at: one.at }]));
  const moment = {
    ...base,
    id: 'm',
    kind: 'moment',
    recipe: kind,
    name: kind,
    start,
    lands,
    end,
    pins,
    settings: films[kind].start,
    slots,
  } as Moment;
  const ruler = {
    grid: regularGrid(one.tempo, 0.3, 120),
    project: { ...projectOf(one.size, one.rate) },
  };
  const material: Material = {
    takes: Object.fromEntries(
      recipe.slots.map(({ key }, index) => [
        key,
        index === one.missing ? null : chosenTake(key, one.own, one.filmed, one.pictures),
      ]),
    ),
    solved: {},
  };
  return { recipe, moment, ruler, material };
}

/** Slots that a kind is whole without. */
const isSpared = (kind: MomentKind, slot: string): boolean =>
  slot === 'patch' || (kind === 'ghost-trail' && slot === 'plate');

const every = builtKinds().map((kind) => [kind] as const);

describe('a moment of any kind, whatever was done to it', () => {
  it.each(every)('%s is always a picture that can be painted, a sentence and findings', (kind) => {
    fc.assert(
      fc.property(given, (one) => {
        const { recipe, moment, ruler, material } = odd(kind, one);
        const tree = recipe.build(moment, ruler, material);
        expect(tree.until).toBeGreaterThan(tree.from);
        for (const node of nodesIn(tree)) expect([node.from, node.until].every(Number.isFinite)).toBe(true);
        for (const share of [0, 0.3, 0.7, 0.99])
          expect(canPaint(tree, Math.floor(tree.from + share * (tree.until - tree.from)))).toBe(true);
        expect(recipe.say(moment, ruler, material).length).toBeGreaterThan(3);
        expect(
          recipe
            .explain(moment, ruler, material, tree)
            .every(({ rows }) => rows.every((row) => row.value === null || Number.isFinite(row.value))),
        ).toBe(true);
        for (const finding of recipe.examine(moment, ruler, material)) {
          expect(Number.isFinite(finding.measured?.value ?? 0)).toBe(true);
          expect(recipe.words).toHaveProperty([finding.code]);
        }
      }),
      { numRuns: 60 },
    );
  });

  it.each(every)(
    '%s says so in red or amber where it does not land, and never only that all is fine',
    (kind) => {
      fc.assert(
        fc.property(given, (one) => {
          const { recipe, moment, ruler, material } = odd(kind, one);
          const { start, lands, end } = moment;
          const frame = (beat: number) => frameOfBeat(ruler.grid, ruler.project.rate, beat);
          const lost = slotsInUse(moment, recipe).some(
            ({ key }) => !material.takes[key] && !isSpared(kind, key),
          );
          const turned = frame(lands) < frame(start) || frame(lands) >= frame(end);
          if (!lost && !turned) return;
          const grave = recipe
            .examine(moment, ruler, material)
            .filter(({ severity }) => severity === 'stop' || severity === 'fix');
          expect(grave).not.toEqual([]);
        }),
        { numRuns: 60 },
      );
    },
  );

  it.each(every)('%s keeps every instant within half a frame of its beat, at any tempo and rate', (kind) => {
    fc.assert(
      fc.property(given, (one) => {
        const { recipe, moment, ruler } = odd(kind, one);
        const { rate } = ruler.project;
        for (const { frame, position: beat } of recipe.anchors(moment, ruler))
          expect(Math.abs(timeOfFrame(rate, frame) - timeOfBeat(ruler.grid, beat))).toBeLessThanOrEqual(
            timeOfFrame(rate, 0.5) + 1e-9,
          );
      }),
      { numRuns: 60 },
    );
  });
});

describe('the slot in a file’s name', () => {
  it('is one that takes are filmed for, never one that any take may fill', () => {
    expect(slotInName('Bench left 2.mp4')).toBe('left');
    expect(slotInName('clean plate.mov')).toBe('plate');
    for (const name of ['After the show.mp4', 'patch.mov', 'Fall tour.mp4'])
      expect(slotInName(name)).toBeNull();
  });
});

describe('what is paired', () => {
  const take = (id: string, slot: string | null, more = {}) => ({ id, slot, ...more }) as unknown as Take;
  const of = (recipe: MomentKind, settings: object = {}) =>
    ({ ...base, recipe, settings: { ...films[recipe].start, ...settings } }) as unknown as Moment;

  it('follows from the kind and its settings', () => {
    const keys = (moment: Moment | null) => pairsOf(moment)?.slots.map(({ key }) => key) ?? null;
    expect(keys(null)).toEqual(['left', 'right']);
    expect(keys(of('clone'))).toEqual(['left', 'right']);
    expect(keys(of('masked-reveal'))).toEqual(['before', 'after']);
    expect(keys(of('masked-reveal', { edge: 'falling' }))).toEqual(['before', 'fall']);
    expect(keys(of('take-off', { way: 'both' }))).toEqual(['up', 'down']);
    expect(keys(of('take-off', { way: 'take-off' }))).toBeNull();
    expect(keys(of('cover-swap'))).toEqual(['swap', 'patch']);
    for (const kind of ['speed-ramp', 'ghost-trail', 'freeze-stack', 'built-whip', 'split-screen'] as const)
      expect(keys(of(kind)), kind).toBeNull();
    for (const kind of builtKinds()) {
      const by = pairsOf(of(kind))?.by ?? [];
      expect(new Set(by).size).toBe(by.length);
      // Nobody stands beside another in the same place.
      expect(by.includes('pose') && by.includes('overlap')).toBe(false);
    }
  });

  it('is chosen from what was filmed for it, else from whatever could be', () => {
    const [before, after] = (pairsOf(of('masked-reveal')) as Pairs).slots;
    const [left, right] = (pairsOf(of('clone')) as Pairs).slots;
    const takes = [
      ...[take('l', 'left'), take('r', 'right'), take('open', null), take('plate', 'plate')],
      ...[take('out', 'none'), take('film', 'film'), take('still', null, { sketch: true })],
    ];
    const ids = (found: readonly Take[]) => found.map(({ id }) => id);
    expect(ids(candidatesFor(takes, left, right))).toEqual(['l']);
    expect(ids(candidatesFor(takes, before, after))).toEqual(['l', 'r', 'open']);
    const told = [...takes, take('b', 'before')];
    expect(ids(candidatesFor(told, before, after))).toEqual(['b']);
    expect(ids(candidatesFor(told, after, before))).toEqual(['l', 'r', 'open']);
    expect(candidatesFor([], before, after)).toEqual([]);
  });
});
