import { describe, expect, it } from 'vitest';
import { painted } from '../__tests__/scene';
import type { Answer } from '../footage/task';
import type { Point } from '../geometry/size';
import type { Moment } from '../model/records';
import { mediaIn, type Node } from '../picture/node';
import { psnr } from '../picture/psnr';
import { paintFrame } from '../picture/reference/paint';
import { base, chosenTake, projectOf } from '../recipes/__tests__/chosen';
import { builtKinds, recipeOf } from '../recipes/built';
import { films, type MomentKind } from '../recipes/films';
import type { Material } from '../recipes/material';
import type { Recipe } from '../recipes/recipe';
import { regularGrid } from '../time/grid';
import { followSheet } from './__tests__/follow-sheet';
import { keyframeCsv } from './keyframe-sheet';

const size = { width: 96, height: 54 };
const rate = { num: 25, den: 1 };
const ruler = { grid: regularGrid(120, 0.1, 60), project: projectOf(size, rate) };

/** Somebody in the middle, in shares of the frame. */
const rings: Point[][] = [
  [
    [0.35, 0.2],
    [0.62, 0.25],
    [0.66, 0.9],
    [0.3, 0.85],
  ],
];
const cutout: Answer = { method: 'cutout-1', cutout: { rings, share: 0.2, faint: 0 } };
const flight: Answer = { method: 'flight-1', flight: { leaves: 1, highest: 1.5, meets: 1.4 } };
const seam = {
  method: 'seam-3',
  seam: {
    rings: [
      [
        [0.5, 0],
        [1, 0],
        [1, 1],
        [0.45, 1],
      ],
    ],
  },
} as unknown as Answer;
const solved = {
  pose: cutout,
  'up-cutout': cutout,
  'down-cutout': cutout,
  'up-flight': flight,
  'down-flight': flight,
  seam,
};

/** A moment of a kind whose takes are larger than the delivery, so that they have to be placed. */
function given(kind: MomentKind, settings: object = {}) {
  const recipe = recipeOf({ recipe: kind } as Moment) as Recipe;
  const moment = {
    ...base,
    id: 'm',
    kind: 'moment',
    recipe: kind,
    name: kind,
    start: 8,
    lands: 12,
    end: 16,
    settings: { ...films[kind].start, ...settings },
    slots: Object.fromEntries(recipe.slots.map(({ key }) => [key, { take: key, at: 0.5 }])),
  } as Moment;
  const material: Material = {
    takes: Object.fromEntries(
      recipe.slots.map(({ key }) => [key, chosenTake(key, { width: 128, height: 80 }, rate, 400)]),
    ),
    solved,
  };
  return { recipe, moment, material, tree: recipe.build(moment, ruler, material) };
}

/** What a file shows at some seconds: soft waves of its own, which move on. */
function filmed(media: string, seconds: number) {
  const own = [...media].reduce((sum, letter) => sum + letter.charCodeAt(0), 0);
  return painted({ width: 128, height: 80 }, (x, y) => [
    128 + 60 * Math.sin(x / 11 + own + seconds) + 40 * Math.cos(y / 9),
    110 + 70 * Math.cos((x + y) / 13 + own * 2 + seconds),
    120 + 50 * Math.sin(y / 7 - own + seconds * 2),
  ]);
}

/** PSNR of the frame that somebody paints who has only the sheet, against the reference painter's. */
function followed(tree: Node, csv: string, frame: number): number {
  const names = new Map(mediaIn(tree).map(({ name, content }) => [name, content.media]));
  const byHand = followSheet(csv, (layer, seconds) => filmed(names.get(layer) ?? '', seconds), size, frame);
  return psnr(byHand, paintFrame(tree, frame, size, filmed));
}

const cases: [string, MomentKind, object][] = [
  ...builtKinds().map((kind): [string, MomentKind, object] => [kind, kind, {}]),
  ['built-whip scaled', 'built-whip', { edges: 'scaled' }],
  ['masked-reveal in a circle', 'masked-reveal', { edge: 'circle' }],
  ['masked-reveal falling', 'masked-reveal', { edge: 'falling' }],
  ['freeze-stack from above, running on', 'freeze-stack', { from: 'above', after: 'runs', turn: 90 }],
];

describe('the keyframe sheet', () => {
  // 35 dB: the pictures are soft, the follower samples and feathers by other means than the painters do.
  it.each(cases)(
    'of %s, followed by somebody who has nothing else, gives the picture back',
    (_, kind, settings) => {
      const { recipe, moment, material, tree } = given(kind, settings);
      const csv = keyframeCsv(recipe.explain(moment, ruler, material, tree), rate, tree.from);
      const lands = recipe.anchors(moment, ruler).find(({ name }) => name === 'lands')?.frame ?? 0;
      const frames = [
        tree.from,
        lands - 11,
        lands - 5,
        lands - 1,
        lands,
        lands + 1,
        lands + 4,
        tree.until - 1,
      ];
      for (const frame of frames.filter((one) => one >= tree.from && one < tree.until))
        expect(followed(tree, csv, frame), `frame ${frame - lands} from the landing`).toBeGreaterThan(35);
    },
  );
});
