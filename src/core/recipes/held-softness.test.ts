import { describe, expect, it } from 'vitest';
import { tellingOf } from '../finding/words';
import type { Moment } from '../model/records';
import { still } from '../motion/keyframes';
import { mediaIn, nodeOf, type Node } from '../picture/node';
import type { Rate } from '../time/rate';
import type { Material } from './material';
import { base, chosenTake } from './__tests__/chosen';
import { layerOf, pictureOf, span } from './__tests__/layers';
import {
  examineSoftness,
  explainSoftness,
  softnessWords,
  softnessWorks,
  withSoftness,
} from './held-softness';

const rate: Rate = { num: 25, den: 1 };
const size = { width: 1920, height: 1080 };
/** a photograph of twice the size */
const large = { width: 3840, height: 2160 };
const moment = { ...base, id: 'm' } as unknown as Moment;
const left = { ...moment, look: { held: 'left' } } as Moment;

const held = (media: string, more: Partial<Node> = {}): Node => {
  const layer = layerOf(media, 0, large, rate);
  return nodeOf({ ...layer, content: { ...layer.content, time: still(0) } as Node['content'], ...more });
};
const street = layerOf('media-street', 4.2, size, rate);
const takes: Material['takes'] = {
  street: chosenTake('street', size, rate, 1500),
  photo: chosenTake('photo', large, rate, 10),
};
const tree = pictureOf(size, street, held('media-photo'));
const solvedAs = (sharper: number | null): Material['solved'] => ({
  'softness-photo-street': {
    method: 'softness-1',
    softness: sharper === null ? null : { sharper, across: 1920 },
  },
});
const softened = (solved: Material['solved'], of = moment) =>
  mediaIn(withSoftness(tree, of, { takes, solved })).map(({ content }) => content.softened ?? 0);
const names = { takes: { street: 'Street', photo: 'Photo' }, grid: null };
const said = (solved: Material['solved'], of = moment) =>
  examineSoftness(of, tree, { takes, solved }).map((one) => {
    const words = softnessWords[one.code]?.(tellingOf(one, names));
    return `${one.severity} ${words} [${one.fix?.command}]`;
  });

describe('a picture that is held beside another film', () => {
  it('is held against half a second of what runs, once for each pair of takes', () => {
    const twice = pictureOf(size, street, held('media-photo'), held('media-photo', { id: 'again' }));
    expect(softnessWorks(twice, takes).map(({ name, task }) => [name, task()])).toEqual([
      [
        'softness-photo-street',
        {
          is: 'softness',
          media: 'media-street',
          from: 4,
          until: 4.5,
          held: { media: 'media-photo', seconds: 0 },
        },
      ],
    ]);
  });

  it('asks nothing of its own film, of nothing that runs, nor of what stands too short', () => {
    const own = pictureOf(size, street, held('media-street'));
    const alone = pictureOf(size, held('media-photo'));
    const short = pictureOf(size, street, held('media-photo', { until: span.from + 2 }));
    for (const one of [own, alone, short]) expect(softnessWorks(one, takes)).toEqual([]);
  });

  it('is softened where it is sharper, in pixels of its own file, and never what runs', () => {
    expect(softened(solvedAs(1.2))).toEqual([0, 2.4]);
    for (const solved of [solvedAs(0.4), solvedAs(-2), solvedAs(null), {}])
      expect(withSoftness(tree, moment, { takes, solved })).toBe(tree);
    expect(withSoftness(tree, left, { takes, solved: solvedAs(1.2) })).toBe(tree);
  });

  it('is said to be evened, to be sharper where it was left, and to be softer, which nothing mends', () => {
    expect(said(solvedAs(1.2))).toEqual([
      'fine media-photo is held beside Street, and was sharper: softened by 1.2 px of that take, it is as sharp. [leaveHeld]',
    ]);
    expect(said(solvedAs(1.2), left)).toEqual([
      'watch media-photo is held beside Street, and sharper: 1.2 px of that take. Where they meet it looks pasted in. Even it out, or focus that take anew. [evenHeld]',
    ]);
    const softer = expect.stringMatching(
      /^watch media-photo is held beside Street, and softer: 2.0 px .*\[undefined\]/,
    );
    for (const of of [moment, left]) expect(said(solvedAs(-2), of)).toEqual([softer]);
    for (const solved of [solvedAs(0.4), solvedAs(-0.4), solvedAs(null), {}])
      expect(said(solved)).toEqual([]);
  });

  it('is told to other editors', () => {
    const [step] = explainSoftness(withSoftness(tree, moment, { takes, solved: solvedAs(1) }));
    expect(step.rows).toMatchObject([{ layer: 'media-photo', value: 2, unit: 'px', of: 3840 }]);
    expect(explainSoftness(tree)).toEqual([]);
  });
});
