import { describe, expect, it } from 'vitest';
import { tellingOf } from '../finding/words';
import type { Moment } from '../model/records';
import { still } from '../motion/keyframes';
import { mediaIn, nodeOf, type Node } from '../picture/node';
import type { Grain } from '../picture/regrain';
import type { Rate } from '../time/rate';
import type { Material } from './material';
import { base, chosenTake } from './__tests__/chosen';
import { layerOf, pictureOf, span } from './__tests__/layers';
import { examineGrain, explainGrain, grainWords, grainWorks, withGrain } from './held-grain';

const rate: Rate = { num: 25, den: 1 };
const size = { width: 1920, height: 1080 };
const moment = { ...base, id: 'm' } as unknown as Moment;
const left = { ...moment, look: { held: 'left' } } as Moment;

const held = (media: string, more: Partial<Node> = {}): Node => {
  const layer = layerOf(media, 0, size, rate);
  return nodeOf({ ...layer, content: { ...layer.content, time: still(2) } as Node['content'], ...more });
};
const takes: Material['takes'] = {
  street: chosenTake('street', size, rate, 1500),
  plate: chosenTake('plate', size, rate, 100),
};
const tree = pictureOf(size, held('media-plate'), layerOf('media-street', 4, size, rate));

const grain = (strength: number): Grain => ({
  across: 1920,
  luma: Array<number>(8).fill(strength),
  chroma: strength / 2,
  soft: 0.7,
});
const solvedAs = (street: number | null, plate: number | null): Material['solved'] => ({
  'grain-street': { method: 'grain-1', grain: street === null ? null : grain(street) },
  'grain-plate': { method: 'grain-1', grain: plate === null ? null : grain(plate) },
});
const laid = (given: Node, solved: Material['solved'], of = moment) =>
  mediaIn(withGrain(given, of, { takes, solved })).map(
    ({ content }) => `${content.media} ${content.grain?.luma[0] ?? 'none'}`,
  );
const names = { takes: { street: 'Street', plate: 'Plate' }, grid: null };
const said = (solved: Material['solved'], of = moment) =>
  examineGrain(of, tree, { takes, solved }).map((one) => {
    const words = grainWords[one.code]?.(tellingOf(one, names));
    return `${one.severity} ${words} [${one.fix?.command}]`;
  });

describe('a picture that is held beside one that runs', () => {
  it('asks for the grain of both films, near what shows of them', () => {
    const works = grainWorks(tree, takes).map(({ task }) => task());
    expect(works).toEqual([
      { is: 'grain', media: 'media-street', from: 3.75, until: 4.25 },
      { is: 'grain', media: 'media-plate', from: 1.75, until: 2.25 },
    ]);
  });

  it('asks for none where nothing is held, or too short to be seen', () => {
    expect(grainWorks(pictureOf(size, layerOf('media-street', 4, size, rate)), takes)).toEqual([]);
    const short = held('media-plate', { until: span.from + 2 });
    expect(grainWorks(pictureOf(size, short, layerOf('media-street', 4, size, rate)), takes)).toEqual([]);
  });

  it('gets the grain of what runs beside it, and of its own film where nothing does or that is not known', () => {
    for (const plate of [5, 2.5, 0, null])
      expect(laid(tree, solvedAs(3, plate))).toEqual(['media-plate 3', 'media-street none']);
    expect(laid(tree, solvedAs(null, 2.5))).toEqual(['media-plate 2.5', 'media-street none']);
    expect(laid(pictureOf(size, held('media-plate')), solvedAs(9, 2))).toEqual(['media-plate 2']);
    // What runs without grain is matched by what has none either.
    expect(laid(tree, solvedAs(0.2, 3))).toEqual(['media-plate none', 'media-street none']);
  });

  it('stays as it is where there is nothing to see, nothing known, or the person wants that', () => {
    for (const solved of [solvedAs(0.5, 0.5), solvedAs(null, null), {}]) {
      expect(withGrain(tree, moment, { takes, solved })).toBe(tree);
      expect(said(solved)).toEqual([]);
    }
    expect(withGrain(tree, left, { takes, solved: solvedAs(3, 3) })).toBe(tree);
  });

  it('is said to be evened, and to stand out where it was left', () => {
    expect(said(solvedAs(3, 0))).toEqual([
      'fine media-plate is held beside what runs: grain like that of Street, 3.0 codes of 255, is laid over it, new in every frame, so that it does not stand out as a still. [leaveHeld]',
    ]);
    expect(said(solvedAs(3, 0), left)).toEqual([
      'watch media-plate is held while the grain of Street runs beside it, 3.0 codes of 255: it stands out as a still. Even it out, or film with more light. [evenHeld]',
    ]);
  });

  it('is told to other editors in shares of full scale', () => {
    const [step] = explainGrain(withGrain(tree, moment, { takes, solved: solvedAs(2.55, 0) }));
    expect(step.rows.map(({ layer, value }) => [layer, Number(value?.toFixed(3))])).toEqual([
      ['media-plate', 1],
      ['media-plate', 1],
      ['media-plate', 1],
      ['media-plate', 0.5],
      ['media-plate', 0.7],
    ]);
    expect(explainGrain(tree)).toEqual([]);
  });
});
