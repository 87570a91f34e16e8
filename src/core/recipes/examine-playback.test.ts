import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sayFinding } from '../finding/say';
import type { Alignment } from '../footage/align-sound';
import type { Lips } from '../footage/lips';
import { films } from './films';
import type { Moment } from '../model/records';
import { regularGrid, timeOfBeat } from '../time/grid';
import { chosenTake, projectOf } from './__tests__/chosen';
import { clone } from './clone';
import type { CloneMoment } from './clone/material';
import { examinePlayback } from './examine-playback';
import { speedRamp } from './speed-ramp';
import type { Recipe } from './recipe';

const rate = { num: 24, den: 1 };
const size = { width: 1280, height: 720 };
const ruler = { grid: regularGrid(96, 0.4, 120), project: projectOf(size, rate) };
const recipe = clone as unknown as Recipe;
/** A clone over beats 8 to 16 whose copy comes in on beat 12. */
const moment = (at = 0): CloneMoment =>
  ({
    id: 'm',
    start: 8,
    lands: 12,
    end: 16,
    settings: films.clone.start,
    slots: { left: { take: 'l', at, taps: [] } },
  }) as unknown as CloneMoment;
const takes = { left: chosenTake('l', size, rate, 480), right: null, plate: chosenTake('p', size, rate, 48) };
const heard = (offset: number, more: Partial<Alignment> = {}): Alignment => ({
  offset,
  drift: 0,
  confidence: 0.9,
  ...more,
});
const look = (one: Moment, playback: Alignment | null, kind = recipe, lips: Lips | null = null) =>
  examinePlayback(one, kind, ruler, { takes, solved: {} }, (slot) =>
    slot === 'left' ? { heard: playback, lips } : { heard: null, lips: null },
  );

describe('a take that was filmed to the song', () => {
  const shown = timeOfBeat(ruler.grid, 8);

  it('runs with the film once it is laid as offered, whatever was off, with a clock that drifts too', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -4, max: 0.5, noNaN: true }),
        fc.integer({ min: -80, max: 80 }),
        (off, drift) => {
          // Planted: at two seconds of the take the song was that far off what the film plays there.
          const playback = heard(shown - 2 + off, { drift });
          const [found] = look(moment(2), playback);
          const ahead = off + (2 * drift) / 1e6;
          if (Math.abs(ahead) <= 0.021) {
            expect(found.code).toBe('playback.on');
            return;
          }
          expect(found.measured?.value).toBeCloseTo(ahead, 9);
          expect(found).toMatchObject({
            code: 'playback.off',
            severity: 'watch',
            fix: { command: 'layOnSong' },
          });
          const { at } = found.fix?.args as { at: number };
          const [left] = look(moment(at), playback);
          expect(left).toMatchObject({ code: 'playback.on', severity: 'fine' });
          expect(Math.abs(left.measured?.value ?? 1)).toBeLessThan(0.001);
        },
      ),
    );
  });

  it('is told where the song was played at another speed: as filmed it never runs with it', () => {
    const [found, ...more] = look(moment(), heard(shown, { speed: 2.5 }));
    expect(more).toEqual([]);
    expect(found).toMatchObject({ code: 'playback.faster', severity: 'watch', where: { take: 'l' } });
    const said = (one: typeof found) => sayFinding(one, { takes: { l: 'Left 2' }, grid: null }).text;
    expect(said(found)).toMatch(
      /heard in Left 2 was played at 250 % of its speed, .* as much faster\. .* show it at 40 % in a speed ramp/,
    );
    expect(said(look(moment(), heard(shown, { speed: 0.5 }))[0])).toMatch(/as much slower\. .* at 200 %/);
  });

  it('is told where it never reaches the passage, and nothing where the song is not heard, or not meant to be', () => {
    expect(look(moment(1), heard(shown + 3)).map(({ code, fix }) => [code, fix])).toEqual([
      ['playback.out', undefined],
    ]);
    expect(look(moment(), heard(shown - 30)).map(({ code }) => code)).toEqual(['playback.out']);
    expect(look(moment(), heard(shown - 1, { confidence: 0.2 }))).toEqual([]);
    expect(look(moment(), null)).toEqual([]);
    expect(look(moment(), heard(shown - 1), speedRamp as unknown as Recipe)).toEqual([]);
  });

  it('is said in words with which way it is off', () => {
    const say = (off: number, more: Partial<Alignment> = {}) =>
      sayFinding(look(moment(2), heard(shown - 2 + off, more))[0], {
        takes: { l: 'Take 4' },
        grid: ruler.grid,
      }).text;
    expect(say(0.25)).toMatch(
      /^The song that is heard in Take 4 runs .* ahead of the film’s where the left begins .* comes early/,
    );
    expect(say(-0.25)).toMatch(/ 0\.25 s behind the film’s .* comes late/);
    expect(say(0.004)).toMatch(/^The song is heard in Take 4, and its left runs with it/);
    expect(say(0.25, { by: 'beep' })).toMatch(
      /^The song that was played after the slate’s beep in Take 4 runs/,
    );
    expect(say(0.004, { by: 'beep' })).toMatch(
      /^The song is not heard in Take 4, but the beep of its slate is/,
    );
    // What is seen is known to a picture of 42 ms, and no more is asked of it.
    expect(say(0.035, { by: 'white' })).toMatch(
      /^The song is not heard in Take 4, but the white picture of its slate is seen/,
    );
    expect(say(0.05, { by: 'white' })).toMatch(
      /^The song that was played after the slate’s white picture in Take 4 runs .* \(allowed 42 ms\)/,
    );
  });

  describe('with lips that are seen', () => {
    const lips = (late: number, sure = 1): Lips => ({ late, sure });
    const codes = (off: number, seen: Lips | null) =>
      look(moment(2), heard(shown - 2 + off), recipe, seen).map(({ code }) => code);

    it('goes by its sound where they go with it, or nobody can be sure that they do not', () => {
      expect(codes(0, lips(0.05))).toEqual(['playback.on', 'playback.lips']);
      expect(codes(0, lips(-0.15))).toEqual(['playback.on', 'playback.lips']);
      expect(codes(0, null)).toEqual(['playback.on']);
      expect(codes(0, lips(0.3, 0.4))).toEqual(['playback.on']);
      expect(codes(0.25, lips(0.05))).toEqual(['playback.off']);
    });

    it('is laid by them as offered where they come late or early, wherever it lay, and is fine then', () => {
      fc.assert(
        fc.property(
          fc.double({ min: -1, max: 0.4, noNaN: true }),
          fc.constantFrom(-0.4, -0.2, 0.1, 0.3),
          (off, late) => {
            const playback = heard(shown - 2 + off);
            const [found, ...more] = look(moment(2), playback, recipe, lips(late));
            expect(more).toEqual([]);
            if (Math.abs(off - late) <= 0.021) {
              expect(found.code).toBe('playback.lips-on');
              return;
            }
            expect(found).toMatchObject({
              code: 'playback.lips-off',
              severity: 'watch',
              measured: { value: late },
            });
            const { at } = found.fix?.args as { at: number };
            // What the singer does `late` seconds after the sound has to show where that sound belongs.
            expect(at).toBeCloseTo(2 - off + late, 9);
            expect(look(moment(at), playback, recipe, lips(late)).map(({ code }) => code)).toEqual([
              'playback.lips-on',
            ]);
          },
        ),
      );
    });

    it('is said where the take does not reach far enough for it', () => {
      const [found] = look(moment(0.1), heard(shown - 0.1), recipe, lips(-0.4));
      expect(found).toMatchObject({ code: 'playback.lips-off', facts: { reaches: 0 } });
      expect(found.fix).toBeUndefined();
      expect(sayFinding(found, { takes: { l: 'Take 4' }, grid: null }).text).toMatch(
        /^Lips in Take 4 come 0\.40 s before what is sung.* \(allowed 0\.18 s\).* Choose another one/,
      );
    });
  });
});
