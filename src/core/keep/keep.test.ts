import { describe, expect, it } from 'vitest';
import type { Moment } from '../model/records';
import { base } from '../recipes/__tests__/chosen';
import { recipeOf } from '../recipes/built';
import type { Recipe } from '../recipes/recipe';
import { fieldsBetween, fitStyle, movedKept, nextLetter, styleOf, versionOf, withKept } from './keep';

const moment = {
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'built-whip',
  name: 'Out to the yard',
  start: 8,
  lands: 12,
  end: 18,
  pins: { 'pose-2': 14 },
  settings: { direction: 'right', frames: 20 },
  slots: { out: { take: 'one', at: 1 } },
  sounds: { lands: { sound: 'whoosh' }, start: { sound: 'my own' } },
  look: { glow: 40, blur: 12, when: 'hit', dies: 12 },
  keys: {
    whole: { size: [{ from: 'lands', by: 12, unit: 'frames', value: 120, ease: 'hold' }] },
  },
} as unknown as Moment;
const recipe = recipeOf(moment) as Recipe;
const film = (num: number, width: number) => ({ rate: { num, den: 1 }, width, height: 1080 });

describe('what is kept of a moment', () => {
  it('brings all of it back, wherever it lands meanwhile', () => {
    const changed = {
      ...moment,
      start: 30,
      lands: 32,
      end: 33,
      pins: {},
      settings: { direction: 'left', frames: 8, blur: 90 },
      slots: {},
      keys: {},
    } as unknown as Moment;
    const back = withKept(changed, versionOf(moment));
    expect([back.start, back.lands, back.end, back.pins]).toEqual([28, 32, 38, { 'pose-2': 34 }]);
    for (const part of ['settings', 'slots', 'keys', 'look'] as const)
      expect(back[part]).toEqual(moment[part]);
    expect(fieldsBetween(moment, withKept(moment, versionOf(moment)))).toEqual({});
    expect(fieldsBetween(changed, back)).toMatchObject({ start: 28, 'settings.frames': 20 });
    expect('settings.blur' in fieldsBetween(changed, back)).toBe(true);
  });

  it('is a style without takes, marks on takes and own sounds', () => {
    const style = styleOf(moment, recipe);
    expect([style.slots, style.sounds]).toEqual([undefined, { lands: { sound: 'whoosh' } }]);
    const ramp = {
      ...moment,
      recipe: 'speed-ramp',
      settings: { slow: 40, instants: { 1: 2 } },
    } as unknown as Moment;
    expect(styleOf(ramp, recipeOf(ramp) as Recipe).settings).toEqual({ slow: 40 });
    const used = withKept(
      { ...ramp, settings: { slow: 90, instants: { 1: 3 } } } as unknown as Moment,
      styleOf(ramp, recipeOf(ramp) as Recipe),
    );
    expect(used.settings).toEqual({ slow: 40, instants: { 1: 3 } });
  });

  // By arithmetic: 20 frames at 24 a second are 25 at 30; 12 are 15.
  it('lasts as long at another rate, and is as wide at another size', () => {
    const fitted = fitStyle(styleOf(moment, recipe), film(24, 1920), film(30, 1280), recipe);
    expect([fitted.settings.frames, fitted.keys?.whole.size[0].by]).toEqual([25, 15]);
    // A blur of 12 px is one of 8; how much it glows is the same.
    expect(fitted.look).toEqual({ glow: 40, blur: 8, when: 'hit', dies: 15 });
    expect(fitStyle(fitted, film(24, 1920), film(24, 1920), recipe).settings).toEqual(fitted.settings);
    const reveal = {
      ...moment,
      recipe: 'masked-reveal',
      settings: { edge: 'line', frames: 24, soft: 30 },
    } as unknown as Moment;
    const soft = fitStyle(
      styleOf(reveal, recipeOf(reveal) as Recipe),
      film(24, 1920),
      film(24, 1280),
      recipeOf(reveal) as Recipe,
    );
    expect(soft.settings).toMatchObject({ frames: 24, soft: 20 });
  });

  it('keeps its seconds when the beats are counted anew', () => {
    const doubled = movedKept(versionOf(moment), 12, (position) => 2 * position);
    expect(doubled.span).toEqual({ before: 8, after: 12, pins: { 'pose-2': 4 } });
  });

  it('begins no earlier than the song, and has letters that nothing else has', () => {
    const early = { ...moment, start: 1, lands: 2, end: 4 } as Moment;
    expect(withKept(early, versionOf(moment)).start).toBe(0);
    expect([nextLetter([]), nextLetter(['A', 'C'])]).toEqual(['A', 'B']);
    expect(nextLetter([...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'])).toBe('AA');
  });
});
