import { describe, expect, it } from 'vitest';
import { tellingOf } from '../finding/words';
import type { VeilTrack } from '../footage/veil';
import type { Hidden } from '../model/hidden';
import type { Moment } from '../model/records';
import { mediaIn, nodeOf, type Node } from '../picture/node';
import type { Rate } from '../time/rate';
import type { Material } from './material';
import { base, chosenTake } from './__tests__/chosen';
import { layerOf, pictureOf } from './__tests__/layers';
import {
  examineVeils,
  explainVeils,
  hiddenHere,
  hidesSomebody,
  veilWorks,
  veilWords,
  withVeils,
} from './veils';

const rate: Rate = { num: 25, den: 1 };
const size = { width: 1920, height: 1080 };
const moment = { ...base, id: 'm' } as unknown as Moment;

const somebody = (...seconds: number[]): Hidden => ({
  taps: seconds.map((time) => ({ time, at: [0.3, 0.4] })),
  reach: 0.05,
  covers: 'face',
});
const takeOf = (id: string, veils?: Record<string, Partial<Hidden>>) =>
  chosenTake(id, size, rate, 1500, veils ? { veils } : {});

const layer = (media: string, at: number) => layerOf(media, at, size, rate);
const treeOf = (...layers: Node[]) => pictureOf(size, ...layers);

const found: VeilTrack = {
  places: [
    { time: 3.9, at: [0.3, 0.4], reach: 0.05 },
    { time: 6.1, at: [0.5, 0.4], reach: 0.05 },
  ],
  lost: [],
  looks: 6,
  met: 6,
  beside: [],
  again: [],
};
const solvedAs = (track: Partial<VeilTrack>, id = 'v'): Material['solved'] => ({
  [`veil-${id}`]: { method: 'veil-1', veil: { ...found, ...track } },
});

describe('somebody who is hidden in a take', () => {
  const tree = treeOf(layer('media-street', 4), layer('media-other', 4));
  const takes = { one: takeOf('street', { v: somebody(5) }), two: takeOf('other') };

  it('is followed over what shows of it, from a tap near that', () => {
    const [work, ...more] = veilWorks(hiddenHere(tree, takes));
    expect(more).toEqual([]);
    expect(work).toMatchObject({ name: 'veil-v', is: 'veil' });
    // Seconds 4 to 5.96 show; a tenth more lies to each side.
    expect(work.task()).toMatchObject({ media: 'media-street', from: 3.9, until: 6.1, reach: 0.05 });
    const late = { one: takeOf('street', { v: somebody(8) }) };
    expect(veilWorks(hiddenHere(tree, late))[0].task()).toMatchObject({ from: 3.9, until: 8.1 });
  });

  it('is hidden wherever the take shows, also as a copy in a group, and nobody else is', () => {
    const copies = nodeOf({
      id: 'trail',
      name: 'trail',
      from: 50,
      until: 100,
      content: { is: 'copies', size, node: layer('media-street', 4), copies: [{ later: 0, opacity: 1 }] },
    });
    const many = treeOf(layer('media-street', 4), layer('media-other', 4), treeOf(copies));
    const veiled = mediaIn(withVeils(many, { takes, solved: solvedAs({}) }));
    expect(veiled.map(({ content }) => content.veils?.length ?? 0)).toEqual([1, 0, 1]);
    expect(veiled[0].content.veils).toEqual([{ covers: 'face', places: found.places }]);
  });

  it('is hidden where they were tapped until they are followed, and where nothing was found', () => {
    const tapped = [{ time: 5, at: [0.3, 0.4], reach: 0.05 }];
    for (const solved of [{}, solvedAs({ places: [] })])
      expect(mediaIn(withVeils(tree, { takes, solved }))[0].content.veils).toEqual([
        { covers: 'face', places: tapped },
      ]);
  });

  it('changes nothing where nobody is hidden, nobody any more, or in no take at all', () => {
    const nobody: Material['takes'][] = [
      { one: takeOf('street') },
      { one: takeOf('street', { v: { taps: [] } }) },
      { one: null },
      {},
    ];
    for (const none of nobody) {
      expect(hidesSomebody(none)).toBe(false);
      expect(withVeils(tree, { takes: none, solved: {} })).toBe(tree);
      expect(examineVeils(moment, tree, { takes: none, solved: {} })).toEqual([]);
    }
  });

  it('may be one of two, in a take that fills two slots', () => {
    const pair = takeOf('street', { v: somebody(5), w: somebody(4.5) });
    const twice = { one: pair, two: pair };
    expect(veilWorks(hiddenHere(tree, twice)).map(({ name }) => name)).toEqual(['veil-v', 'veil-w']);
    const solved = { ...solvedAs({}), ...solvedAs({ lost: [4.2] }, 'w') };
    expect(mediaIn(withVeils(tree, { takes: twice, solved }))[0].content.veils).toHaveLength(2);
    expect(examineVeils(moment, tree, { takes: twice, solved }).map(({ code }) => code)).toEqual([
      'veil.hidden',
      'veil.lost',
    ]);
  });

  it('is fine only where a face was found under the veil time and again, and nothing speaks against it', () => {
    const codes = (solved: Material['solved'], hidden = somebody(5)) =>
      examineVeils(moment, tree, { takes: { one: takeOf('street', { v: hidden }) }, solved }).map(
        ({ code, severity }) => `${code} ${severity}`,
      );
    expect(codes(solvedAs({}))).toEqual(['veil.hidden fine']);
    expect(codes(solvedAs({ met: 2 }))).toEqual(['veil.unchecked watch']);
    expect(codes(solvedAs({ met: 0 }))).toEqual(['veil.unchecked watch']);
    expect(codes(solvedAs({ met: 0, looks: null }))).toEqual(['veil.unchecked watch']);
    expect(codes(solvedAs({ met: 0, looks: 0 }))).toEqual(['veil.unchecked watch']);
    expect(codes(solvedAs({ lost: [5.2] }))).toEqual(['veil.lost fix']);
    expect(codes(solvedAs({ places: found.places.slice(1) }))).toEqual(['veil.one-picture fix']);
    expect(codes(solvedAs({ places: [] }))).toEqual(['veil.one-picture fix']);
    expect(codes(solvedAs({ beside: [5, 5.4] }))).toEqual(['veil.beside watch']);
    expect(codes(solvedAs({ again: [5] }))).toEqual(['veil.again watch']);
    expect(codes(solvedAs({}), somebody(40))).toEqual(['veil.elsewhere watch']);
    expect(codes({})).toEqual([]);
  });

  it('has words for each finding, which say where and what to do', () => {
    const say = (track: Partial<VeilTrack>) =>
      examineVeils(moment, tree, { takes, solved: solvedAs(track) }).map((finding) =>
        veilWords[finding.code](tellingOf(finding, { takes: { street: 'Street' }, grid: null })),
      );
    expect(say({})[0]).toContain('In 6 of 6 pictures');
    expect(say({ lost: [5.2] })[0]).toMatch(/Street is lost at 0:05.*tap them again/s);
    expect(say({ looks: null, met: 0 })[0]).toContain('not in this browser');
    expect(say({ looks: 6, met: 1 })[0]).toContain('only 1 of 6');
  });

  it('stands in the sheet with places and sizes in pixels of the file', () => {
    expect(explainVeils(tree)).toEqual([]);
    const [step] = explainVeils(withVeils(tree, { takes, solved: solvedAs({}) }));
    const rows = (what: string) => step.rows.filter((row) => row.what === what);
    const across = rows('middle in the file, across');
    expect(across[0]).toMatchObject({ frame: 50, unit: 'px', of: 1920 });
    // From 0.3 to 0.5 of the width over 2.2 seconds: at second 4 a 22nd of the way.
    expect(across[0].value).toBeCloseTo(1920 * (0.3 + (0.2 * 0.1) / 2.2), 3);
    expect(across[across.length - 1]).toMatchObject({ frame: 99, then: 'stays' });
    expect(rows('middle in the file, down')).toMatchObject([{ value: 432 }]);
    expect(rows('width in the file')[0].value).toBeCloseTo(192, 3);
  });
});
