import { describe, expect, it } from 'vitest';
import { painted } from '../__tests__/scene';
import type { Answer } from '../footage/task';
import type { Point } from '../geometry/size';
import type { Moment } from '../model/records';
import { mediaIn, type Node } from '../picture/node';
import { psnr } from '../picture/psnr';
import { paintFrame } from '../picture/reference/paint';
import { base, chosenTake, projectOf } from '../recipes/__tests__/chosen';
import { explainHand } from '../hand/explain';
import { withLayersMoved, withWholeMoved } from '../hand/move';
import type { HandKey } from '../hand/schema';
import { builtKinds, recipeOf } from '../recipes/built';
import { films, type MomentKind } from '../recipes/films';
import type { Material } from '../recipes/material';
import type { Recipe } from '../recipes/recipe';
import { regularGrid } from '../time/grid';
import { followSheet } from './__tests__/follow-sheet';
import { keyframeCsv } from './keyframe-sheet';

const size = { width: 96, height: 54 };
const rate = { num: 25, den: 1 };
const plain = { grid: regularGrid(120, 0.1, 60), project: projectOf(size, rate) };

/** Somebody in the middle, in shares of the frame. */
const rings: Point[][] = [
  [
    [0.35, 0.2],
    [0.62, 0.25],
    [0.66, 0.9],
    [0.3, 0.85],
  ],
];
const cutout: Answer = { method: 'cutout-2', cutout: { rings, share: 0.2, faint: 0 } };
/** Somebody who walks to the right, picture by picture. */
const figures: Answer = {
  method: 'figures-2',
  figures: Array.from({ length: 400 }, (_, index) => ({
    seconds: index / 25,
    rings: [rings[0].map(([x, y]): Point => [x - 0.3 + 0.004 * (index % 100), y])],
    share: 0.2,
    faint: 0,
  })),
};
const flight: Answer = { method: 'flight-1', flight: { leaves: 1, highest: 1.5, meets: 1.4 } };
const seam = {
  method: 'seam-7',
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
/** A join round somebody in the middle. */
const around = { method: 'seam-7', seam: { rings } } as unknown as Answer;
/** A point that walks from the left of a take to its right and back. */
const walker: Answer = {
  method: 'track-2',
  track: {
    points: Array.from({ length: 200 }, (_, index) => ({
      time: index / 25,
      at: [0.5 - 0.3 * Math.cos(index / 25), 0.5],
      tap: 0,
      scale: 1,
      rotation: 0,
    })),
    lost: [],
  },
};
const solved = {
  pose: cutout,
  figures,
  'up-raised': figures,
  'up-cutout': cutout,
  'down-cutout': cutout,
  'up-flight': flight,
  'down-flight': flight,
  seam,
  'seam-copy-3': around,
  'track-panel-2': walker,
};

/** A moment of a kind whose takes are larger than the delivery, so that they have to be placed. */
function given(kind: MomentKind, settings: object, hand: Partial<Moment>) {
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
    ...hand,
  } as Moment;
  const material: Material = {
    takes: Object.fromEntries(
      recipe.slots.map(({ key }) => [key, chosenTake(key, { width: 128, height: 80 }, rate, 400)]),
    ),
    solved,
  };
  const { across = 0, down = 0 } = moment.framing ?? {};
  const ruler = { ...plain, project: { ...plain.project, push: { across, down } } };
  const anchors = recipe.anchors(moment, ruler);
  const layered = withLayersMoved(recipe.build(moment, ruler, material), moment, anchors, ruler);
  const tree = withWholeMoved(layered, moment, anchors, ruler);
  const steps = [
    ...recipe.explain(moment, ruler, material, layered),
    ...explainHand(moment, layered, anchors, ruler),
  ];
  return { tree, csv: keyframeCsv(steps, rate, tree.from), lands: anchors.find(isLanding)?.frame ?? 0 };
}
const isLanding = ({ name }: { name: string }) => name === 'lands';

/** Keys by hand on the whole picture and on every layer of a kind, and a hand that sways. */
function byHand(kind: MomentKind): Partial<Moment> {
  const key = (by: number, value: number, ease: HandKey['ease'] = [0.75, 0, 0.25, 1]): HandKey => ({
    from: 'lands',
    by,
    unit: 'beats',
    value,
    ease,
  });
  const layers = recipeOf({ recipe: kind } as Moment)?.slots.map(({ key: slot }) => slot) ?? [];
  return {
    handheld: { strength: 1 },
    keys: {
      whole: { turn: [key(-1, 0), key(1, 8)], size: [key(-2, 100), key(2, 130)] },
      ...Object.fromEntries(
        layers.map((layer) => [
          layer,
          { across: [key(-1, 0), key(1, 5)], opacity: [key(-1, 100), key(1, 60)] },
        ]),
      ),
    },
  };
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
function agreement(tree: Node, csv: string, frame: number): number {
  const names = new Map(mediaIn(tree).map(({ name, content }) => [name, content.media]));
  const followed = followSheet(csv, (layer, seconds) => filmed(names.get(layer) ?? '', seconds), size, frame);
  return psnr(followed, paintFrame(tree, frame, size, filmed));
}

const cases: [string, MomentKind, object, Partial<Moment>?][] = [
  ...builtKinds().flatMap((kind): [string, MomentKind, object, Partial<Moment>][] => [
    [kind, kind, {}, {}],
    [`${kind} moved by hand`, kind, {}, byHand(kind)],
  ]),
  ['speed-ramp blended and zoomed', 'speed-ramp', { lacking: 'blends', zoom: 40, slow: 30 }],
  ['a clone of three', 'clone', { copies: 3 }],
  ['a clone whose frame is pushed', 'clone', {}, { framing: { across: 60, down: -80 } }],
  ['built-whip scaled', 'built-whip', { edges: 'scaled' }],
  ['masked-reveal in a circle', 'masked-reveal', { edge: 'circle' }],
  ['masked-reveal falling', 'masked-reveal', { edge: 'falling' }],
  [
    'split-screen with a drawn cut',
    'split-screen',
    {
      panels: 2,
      drawn: {
        'panel-1': [
          [0, 0],
          [0.6, 0],
          [0.4, 1],
          [0, 1],
        ],
      },
    },
  ],
  [
    'split-screen whose second panel follows a point',
    'split-screen',
    { panels: 3 },
    { slots: { 'panel-2': { take: 'panel-2', at: 0.5, taps: [{ time: 1, at: [0.5, 0.5] }] } } },
  ],
  ['freeze-stack leaning', 'freeze-stack', { pieces: 3, lean: 25 }],
  ['masked-reveal falling fast, then closer', 'masked-reveal', { edge: 'falling', fast: 200, closer: 30 }],
  [
    'clone with a hand-over',
    'clone',
    {
      way: 'shared',
      seam: [
        [0.5, 0],
        [1, 0],
        [1, 1],
        [0.5, 1],
      ],
      seams: {
        handed: [
          [0.3, 0],
          [0.6, 0],
          [1, 0],
          [1, 1],
          [0.3, 1],
        ],
      },
    },
  ],
  ['take-off raised', 'take-off', { way: 'raised', raise: 12 }],
  ['masked-reveal drawn', 'masked-reveal', { edge: 'drawn' }],
  ['freeze-stack from above, running on', 'freeze-stack', { from: 'above', after: 'runs', turn: 90 }],
];

describe('the keyframe sheet', () => {
  // 35 dB: the pictures are soft, the follower samples and feathers by other means than the painters do.
  it.each(cases)(
    'of %s, followed by somebody who has nothing else, gives the picture back',
    (_, kind, settings, hand = {}) => {
      const { tree, csv, lands } = given(kind, settings, hand);
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
        expect(agreement(tree, csv, frame), `frame ${frame - lands} from the landing`).toBeGreaterThan(35);
    },
  );
});
