import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { SeamMeasure } from '../../model/measures';
import type { Moment } from '../../model/records';
import { canPaint, describeFrame } from '../../picture/draw-list';
import { mediaIn } from '../../picture/node';
import { frameOfBeat, regularGrid } from '../../time/grid';
import { base, chosenTake, heldTake, projectOf } from '../__tests__/chosen';
import { slotsInUse } from '../built';
import type { Material } from '../material';
import type { Recipe } from '../recipe';
import { clone } from '.';
import { furtherSlots, mostCopies, ringsOfFurther, seamOfFurther } from './copies';
import type { CloneMoment } from './material';

const size = { width: 640, height: 360 };
const rate = { num: 25, den: 1 };
const ruler = { grid: regularGrid(120, 0.1, 60), project: projectOf(size, rate) };
const names = ['plate', 'left', 'right', ...furtherSlots.map(({ key }) => key)];

const chosen = (id: string) => heldTake(id, size, rate, 400);
const seam: SeamMeasure = {
  rings: [
    [
      [0.4, 0.1],
      [0.6, 0.1],
      [0.6, 0.9],
      [0.4, 0.9],
    ],
  ],
  shares: [0.8, 0.2],
  visible: [{ frame: 100, difference: 1 }],
  moves: [],
  contact: null,
  crossing: [],
  found: [true, true],
  losses: [],
  borders: [null, null],
  shadows: [null, null],
};
const solved = (...works: string[]): Material['solved'] =>
  Object.fromEntries(works.map((name) => [name, { method: 'seam-7' as const, seam }]));
const material = (works: string[] = []): Material => ({
  takes: Object.fromEntries(names.map((name) => [name, chosen(name)])),
  solved: solved(...works),
});
const momentOf = (copies: number, set: Partial<CloneMoment> = {}): CloneMoment => ({
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'clone',
  name: 'A row of them',
  start: 8,
  lands: 12,
  end: 24,
  settings: { first: 'left', fade: 0, feather: 12, seam: null, copies },
  slots: Object.fromEntries(names.map((name) => [name, { take: name, at: 0.5 }])),
  ...set,
});
const codes = (moment: CloneMoment, given: Material) =>
  clone.examine(moment, ruler, given).map(({ severity, code }) => `${severity} ${code}`);

describe('a clone of more than two', () => {
  it('uses as many slots as there are copies, and asks for as many shots', () => {
    for (let copies = 2; copies <= mostCopies; copies++) {
      const moment = momentOf(copies);
      const used = slotsInUse(moment as Moment, clone as unknown as Recipe).map(({ key }) => key);
      expect(used).toEqual(names.slice(0, 1 + copies));
      const shots = clone.film(moment.settings, { seconds: 4, handle: 2, beat: 0.5 } as never).shots;
      expect(shots.filter(({ what }) => what === 'action').map(({ key }) => key)).toEqual(used.slice(1));
    }
  });

  it('each appears on the frame of its own beat, inside its own outline, over those before it', () => {
    const moment = momentOf(4, { pins: { 'copy-3': 15, 'copy-4': 17.5 } });
    const tree = clone.build(moment, ruler, material([seamOfFurther('copy-3')]));
    const shown = (frame: number) => (describeFrame(tree, frame)?.[0] ?? []).map(({ node }) => node);
    const [third, fourth] = [15, 17.5].map((beat) => frameOfBeat(ruler.grid, rate, beat));
    expect(shown(third - 1)).toEqual(['plate', 'left', 'right']);
    expect(shown(third)).toEqual(['plate', 'left', 'right', 'copy-3']);
    expect(shown(fourth - 1)).toEqual(['plate', 'left', 'right', 'copy-3']);
    expect(shown(fourth)).toEqual(['plate', 'left', 'right', 'copy-3', 'copy-4']);
    const [matte] = mediaIn(tree).find(({ id }) => id === 'copy-3')?.mattes ?? [];
    expect(matte.shape.is === 'outline' && matte.shape.keys[0].rings[0][0]).toEqual([256, 36]);
    // One that was not solved yet shows in a strip where its take moves.
    expect(ringsOfFurther(moment, material(), 'copy-4')).toHaveLength(1);
  });

  it('shows inside an outline that was drawn, which is judged anew and which nothing else loses', () => {
    const drawn: [number, number][] = [
      [0.4, 0.1],
      [0.6, 0.1],
      [0.6, 0.9],
    ];
    const plain = momentOf(4);
    const moment = { ...plain, settings: { ...plain.settings, seams: { 'copy-3': drawn } } };
    const solved = material(['seam', 'seam-copy-3']);
    const [, third, fourth] = clone.works(moment, ruler, solved);
    expect(third.task()).toMatchObject({ outline: drawn });
    expect(fourth.task()).toMatchObject({ outline: null });
    const [, before] = clone.works(plain, ruler, solved);
    expect(JSON.stringify(third.parts)).not.toBe(JSON.stringify(before.parts));
    expect(ringsOfFurther(moment, solved, 'copy-3')).toEqual([drawn]);
    const outline = clone.outline(moment, solved, ruler, 0, 'copy-3');
    expect(outline).toMatchObject({ setting: 'seams.copy-3', state: 'drawn', rings: [drawn] });
    expect(clone.outline(moment, solved, ruler, 0)).toMatchObject({ setting: 'seam' });
  });

  it('is joined one after the other, each with all that came before it', () => {
    const moment = momentOf(4);
    const worksWith = (...done: string[]) => clone.works(moment, ruler, material(done));
    expect(worksWith().map(({ name }) => name)).toEqual(['seam']);
    expect(worksWith('seam').map(({ name }) => name)).toEqual(['seam', 'seam-copy-3']);
    const all = worksWith('seam', 'seam-copy-3');
    expect(all.map(({ name }) => name)).toEqual(['seam', 'seam-copy-3', 'seam-copy-4']);
    const task = all[2].task();
    if (task.is !== 'seam') throw new Error('A join is a seam.');
    expect(task.sides[0].all).toBe(true);
    expect(mediaIn(task.sides[0].node).map(({ id }) => id)).toEqual(['plate', 'left', 'right', 'copy-3']);
    expect(mediaIn(task.sides[1].node).map(({ id }) => id)).toEqual(['copy-4']);
    // The first join is the same work whether others follow or not.
    const [alone] = clone.works(momentOf(2), ruler, material());
    expect(JSON.stringify(alone.parts)).toBe(JSON.stringify(all[0].parts));
  });

  it('says when one is missing, shown twice, too short, out of turn, or cut', () => {
    const moment = momentOf(3);
    const done = ['seam', 'seam-copy-3'];
    expect(codes(moment, material(done))).toEqual([
      'fine clone.lands',
      'fine clone.further-lands',
      'fine clone.join-hidden',
      'fine clone.join-hidden',
    ]);
    const given = material(done);
    const with_ = (takes: Material['takes']) => ({ ...given, takes: { ...given.takes, ...takes } });
    expect(codes(moment, with_({ 'copy-3': null }))).toContain('stop clone.missing');
    expect(codes(moment, with_({ 'copy-3': given.takes.left }))).toContain('stop clone.same-take');
    const short = {
      ...chosenTake('copy-3', size, rate, 20),
      comparison: given.takes.left?.comparison ?? null,
    };
    expect(codes(moment, with_({ 'copy-3': short }))).toContain('stop clone.short');
    for (const beat of [11, 24]) {
      const early = momentOf(3, { pins: { 'copy-3': beat } });
      expect(codes(early, given)).toContain('stop clone.out-of-turn');
    }
    const cut: SeamMeasure = {
      ...seam,
      losses: [
        {
          side: 0,
          kept: true,
          whole: false,
          share: 0.3,
          frames: { count: 9, first: 110, last: 118 },
          at: [0.3, 0.5],
        },
      ],
    };
    const lossy = {
      ...given,
      solved: { ...given.solved, 'seam-copy-3': { method: 'seam-7' as const, seam: cut } },
    };
    expect(clone.examine(moment, ruler, lossy)).toContainEqual(
      expect.objectContaining({
        code: 'clone.cuts',
        severity: 'stop',
        facts: expect.objectContaining({ slot: 'others' }),
      }),
    );
  });

  it('is always a picture, whatever was done to it', () => {
    const beat = fc.double({ min: -5, max: 40, noNaN: true });
    const odd = fc.record({
      copies: fc.integer({ min: 2, max: 6 }),
      lands: beat,
      end: beat,
      third: beat,
      fifth: beat,
    });
    fc.assert(
      fc.property(odd, ({ copies, lands, end, third, fifth }) => {
        const moment = momentOf(copies, { lands, end, pins: { 'copy-3': third, 'copy-5': fifth } });
        const tree = clone.build(moment, ruler, material());
        for (const frame of [tree.from, (tree.from + tree.until) >> 1, tree.until - 1])
          expect(canPaint(tree, frame)).toBe(true);
        expect(clone.examine(moment, ruler, material(['seam'])).length).toBeGreaterThan(0);
        for (const { task } of clone.works(moment, ruler, material(['seam', 'seam-copy-3', 'seam-copy-4'])))
          task();
      }),
      { numRuns: 60 },
    );
  });
});
