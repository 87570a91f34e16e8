import { describe, expect, it } from 'vitest';
import type { Moment } from '../model/records';
import { regularGrid } from '../time/grid';
import { timeOfFrame } from '../time/rate';
import { base, projectOf } from './__tests__/chosen';
import { builtKinds, recipeOf } from './built';
import { examineSounds, heardAround } from './examine-sounds';
import { films, type MomentKind } from './films';
import type { Recipe } from './recipe';
import { explainSounds, soundsIn } from './sounds';
import { wholeSound } from '../sounds/sound';

const rate = { num: 25, den: 1 };
const ruler = { grid: regularGrid(120, 0, 60), project: projectOf({ width: 320, height: 180 }, rate) };
const momentOf = (kind: MomentKind, sounds: Moment['sounds'] = {}): [Moment, Recipe] => {
  const recipe = recipeOf({ recipe: kind } as Moment) as Recipe;
  const moment = {
    ...base,
    id: 'm',
    kind: 'moment',
    recipe: kind,
    name: kind,
    start: 8,
    lands: 12,
    end: 20,
    settings: films[kind].start,
    sounds,
  } as Moment;
  return [moment, recipe];
};
const secondsOf = (frame: number) => timeOfFrame(rate, frame);
const shot = { from: 4, to: 10 };

describe('what sounds in a moment', () => {
  it.each(builtKinds())('%s has a usual sound where it lands, and is silent until asked', (kind) => {
    const [moment, recipe] = momentOf(kind);
    const events = soundsIn(moment, recipe, ruler);
    expect(events.find(({ anchor }) => anchor === 'lands')?.usual).not.toBeNull();
    expect(events.every(({ settings }) => settings.sound === null)).toBe(true);
    expect(events.find(({ anchor }) => anchor === 'lands')?.frame).toBe(150);
    expect(explainSounds(events, String)).toBeNull();
  });

  it('follows the beat: another tempo, another frame', () => {
    const [moment, recipe] = momentOf('built-whip', { lands: { sound: 'whoosh' } });
    const slower = { ...ruler, grid: regularGrid(60, 0, 60) };
    expect(soundsIn(moment, recipe, slower).find(({ anchor }) => anchor === 'lands')?.frame).toBe(300);
  });

  it('is explained with every number', () => {
    const [moment, recipe] = momentOf('built-whip', {
      lands: { sound: 'whoosh', lead: 40, level: -9, backwards: true, fade: 120 },
    });
    const step = explainSounds(soundsIn(moment, recipe, ruler), (sound) => sound);
    expect(step?.text).toContain(
      'whoosh: its loudest point on frame 150, played backwards, 40 ms before it, at -9 dB, dying away over 120 ms.',
    );
    expect(step?.rows).toHaveLength(1);
  });

  const length = { seconds: 2, loudest: 1.5 };
  it.each([
    ['start', false, 0, 2],
    ['loudest', false, 1.5, 0.5],
    ['loudest', true, 0.5, 1.5],
    ['end', false, 2, 0],
  ] as const)(
    'by its %s, backwards %s, it is heard so long before and after',
    (by, backwards, before, after) => {
      const heard = heardAround(wholeSound({ by, backwards, lead: 100 }, null), length);
      expect(heard.before).toBeCloseTo(before + 0.1, 9);
      expect(heard.after).toBeCloseTo(after - 0.1, 9);
    },
  );

  it('says what is gone or cut off at either end, and nothing of what is whole', () => {
    const found = (anchor: string, more: object = {}, known: typeof length | null | undefined = length) => {
      const [moment, recipe] = momentOf('built-whip', { [anchor]: { sound: 'own', ...more } });
      return examineSounds('m', soundsIn(moment, recipe, ruler), secondsOf, shot, () => known);
    };
    expect(found('lands')).toEqual([]);
    expect(found('lands', {}, undefined)).toEqual([]);
    expect(found('lands', {}, null)).toMatchObject([{ code: 'sound.gone', severity: 'fix' }]);
    expect(found('start')).toMatchObject([
      { code: 'sound.cut', facts: { side: 'before' }, measured: { value: 1.5 } },
    ]);
    expect(found('start', { by: 'start' })).toEqual([]);
    expect(found('end')).toMatchObject([
      { code: 'sound.cut', facts: { side: 'after' }, measured: { value: 0.5 } },
    ]);
    expect(found('end', { by: 'end' })).toEqual([]);
  });
});
