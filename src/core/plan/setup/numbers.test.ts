import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { day, mark, moment, pass, plan, project, setup, zone } from '../../__tests__/plan';
import type { Finding } from '../../finding/finding';
import { daySchema, setupSchema } from '../../model/plan-records';
import { sayFinding } from '../../finding/say';
import { adviseStyle, kindsOf, pictureEnergy } from '../advice/style';
import { bedEnergy, coverageOf, examineCoverage, picturesWanted } from '../advice/coverage';
import { cautionsOf } from '../lists/danger';
import { examineSetup } from './examine-setup';
import { setupNumbers } from './numbers';
import { packingOf } from '../lists/packing';
import { priceOf } from '../advice/price';
import { setupSheet } from './sheet';
import { planMoments } from '../shots';
import { crosses, examineZones, overlapOf, reachOver } from './zones';

const names = { takes: {}, grid: null, things: { a: 'Bench' } };
const examine = (input: ReturnType<typeof plan>) =>
  examineSetup(input, input.setups[0], setupNumbers(input, input.setups[0]));
/** Codes of findings, each of which must have whole words. */
const codes = (findings: readonly Finding[]) =>
  findings.map((finding) => {
    expect(sayFinding(finding, names).text).not.toMatch(/undefined|NaN|null/);
    return finding.code;
  });
const withSetup = (more: Parameters<typeof setup>[1], rest: Parameters<typeof plan>[0] = {}) =>
  plan({ setups: [setup('a', more)], ...rest });

describe('numbers of a setup', () => {
  it('finds marks that are not sharp, with the f-number, stops and ISO that hold them', () => {
    const marks = [mark('Near', -0.5, 1), mark('Far', 0.5, 4)];
    const [finding] = examine(withSetup({ aperture: 2.8, focus: 4, height: 1.59 }, { marks }));
    expect(finding).toMatchObject({ code: 'plan.unsharp', severity: 'fix' });
    const { set } = finding.fix?.args as { set: { aperture: number; focus: number; iso: number } };
    // Thin lens: focus 2 · 1 · 4 / (1 + 4) = 1.6 m, and the f-number from f² / (c · reach).
    expect(set.focus).toBeCloseTo(1.6, 2);
    expect(set).toMatchObject({ aperture: 8, iso: 6400 });
    expect(sayFinding(finding, names).text).toMatch(/f\/8 focused at 160 cm .* 3 stops/);
    const mended = withSetup({ aperture: set.aperture, focus: set.focus, height: 1.59 }, { marks });
    const sharp = examine(mended).find(({ code }) => code === 'plan.sharp') as Finding;
    expect(sayFinding(sharp, names).text).toMatch(
      /\(refocused to 160 cm, f\/[\d.]+ or a higher number holds them\)/,
    );
  });

  it('says when no f-number holds every mark, and when no camera is fast enough', () => {
    const marks = [mark('Near', 0, 0.6), mark('Far', 0.2, 30)];
    const deep = examine(withSetup({ focal: 85, aperture: 2.8, height: 1.59 }, { marks }));
    expect(deep.find(({ code }) => code === 'plan.too-deep')?.severity).toBe('stop');
    const slow = moment('speed-ramp', 0, 8, { settings: { slow: 5, fast: 100, poses: 1 } });
    expect(codes(examine(plan({ moments: [slow] })))).toContain('plan.no-rate');
  });

  it('finds marks behind the camera and beside the frame', () => {
    expect(codes(examine(plan({ marks: [mark('Lost', 0, -1)] })))).toContain('plan.mark-behind');
    expect(codes(examine(plan({ marks: [mark('Aside', 3, 2)] })))).toContain('plan.mark-outside');
  });

  it('answers for every setup that can be stored, wherever the marks stand', () => {
    const above = (most: number) => fc.double({ min: 0.001, max: most, noNaN: true });
    const changes = fc.record({
      focal: above(2000),
      aperture: above(64),
      shutter: above(10000),
      focus: above(1000),
      height: above(1000),
      tilt: fc.double({ min: -60, max: 80, noNaN: true }),
    });
    const place = fc.double({ min: -100, max: 100, noNaN: true });
    fc.assert(
      fc.property(changes, place, place, (more, x, y) => {
        const input = withSetup(more, { marks: [mark('One', x, y), mark('Two', y, 0.01)] });
        fc.pre(setupSchema.safeParse(input.setups[0]).success);
        codes(examine(input));
      }),
    );
    expect(setupSchema.safeParse(setup('a', { focus: 0.02 })).success).toBe(false);
    expect(daySchema.safeParse(day({ zone: 'Nowhere/City' })).success).toBe(false);
  });

  it('wants equal eyes and distances for a touch only', () => {
    const marks = [mark('Left', -0.7, 2.5), mark('Right', 0.7, 2.9, { stature: 1.8 })];
    const contact = moment('clone', 0, 8, { settings: { way: 'contact' } as never });
    expect(codes(examine(plan({ marks, moments: [contact] })))).toEqual(
      expect.arrayContaining(['plan.eye-height', 'plan.distance']),
    );
    expect(codes(examine(plan({ marks, moments: [moment('clone', 0, 8)] })))).not.toContain('plan.distance');
  });

  it('finds lamps that flicker, and a shutter longer than a picture', () => {
    expect(codes(examine(withSetup({ shutter: 50 })))).not.toContain('plan.flicker');
    const american = withSetup({ shutter: 50 }, { day: day({ mains: 60 }) });
    expect(examine(american).find(({ code }) => code === 'plan.flicker')?.fix?.args).toMatchObject({
      set: { shutter: 60 },
    });
    expect(codes(examine(withSetup({ shutter: 20 })))).toContain('plan.shutter-long');
    expect(codes(examine(withSetup({ shutter: 500 })))).toContain('plan.shutter');
  });

  it('asks for the capture rate of the slowest speed, and tells the playback', () => {
    const moments = [moment('speed-ramp', 0, 8)];
    const finding = examine(plan({ moments })).find(({ code }) => code === 'plan.too-slow');
    // 60000/1001 at 24000/1001 is exactly 40 %.
    expect(finding?.fix?.args).toMatchObject({ set: { 'capture.rate': { num: 60000, den: 1001 } } });
    const rate = { num: 60000, den: 1001 };
    const fast = withSetup({ capture: { width: 1920, height: 1080, rate, megabits: 100 } }, { moments });
    expect(setupNumbers(fast, fast.setups[0]).speed.playback).toBeCloseTo(2.5, 12);
    expect(codes(examine(fast))).toContain('plan.playback');
  });

  it('adds up what eats picture against the capture', () => {
    const moments = [moment('speed-ramp', 0, 8), moment('creep-orbit', 8, 12)];
    const small = setupNumbers(plan({ moments }), setup('a'));
    expect(small.reserve.needed).toBeCloseTo(1.1 * 1.08 * 1.1, 10);
    expect(codes(examine(plan({ moments })))).toContain('plan.reserve');
    const capture = { width: 3840, height: 2160, rate: project.rate, megabits: 100 };
    expect(codes(examine(withSetup({ capture }, { moments })))).not.toContain('plan.reserve');
    const upright = { ...project, upright: true };
    expect(codes(examine(plan({ moments, project: upright })))).toContain('plan.upright');
    // 1080 × 1920 out of 3840 × 2160 takes 1215 × 2160: 1.125 px filmed for each px shown.
    const cut = withSetup({ capture }, { project: upright });
    expect(setupNumbers(cut, cut.setups[0]).reserve.sharpness).toBeCloseTo(1.125, 10);
  });

  it('finds backdrops that leave the frame open, rigs without room, doors too narrow', () => {
    const piece = {
      id: 'x',
      project: 'p',
      created: 0,
      changed: 0,
      alive: true,
      kind: 'piece' as const,
      setup: 'a',
    };
    const backdrop = {
      ...piece,
      what: 'backdrop' as const,
      name: 'Paper',
      x: 0,
      y: 3,
      width: 3,
      depth: 0.1,
      height: 3,
    };
    const open = examine(plan({ pieces: [backdrop] })).find(({ code }) => code === 'plan.backdrop');
    // At 3 m the frame is 4.5 m wide: 3 m of paper leave a sixth open at each side.
    expect(open?.measured?.value).toBeCloseTo(1 / 6, 2);
    expect(codes(examine(plan({ pieces: [{ ...backdrop, width: 9, height: 5 }] })))).toContain(
      'plan.backdrop',
    ); // below
    expect(codes(examine(withSetup({ walls: { left: 0.3, right: 2, ahead: 4, behind: 1 } })))).toContain(
      'plan.footprint',
    );
    const door = {
      ...piece,
      what: 'door' as const,
      name: 'Door',
      x: 1,
      y: 4,
      width: 0.6,
      depth: 0.1,
      height: 2,
    };
    expect(codes(examine(withSetup({ rig: 'dolly' }, { pieces: [door] })))).toContain('plan.door');
  });

  it('repeats a first place in a second: same size, same height', () => {
    const setups = [setup('a', { matches: 'b', focal: 48 }), setup('b', { order: 2, height: 0.9 })];
    const marks = [mark('There', 0, 3, { setup: 'b' }), mark('Here', 0, 3)];
    const { match } = setupNumbers(plan({ setups, marks }), setups[0]);
    expect(match?.distance).toBeCloseTo(6, 6); // twice the focal length, twice as far
    expect(match?.height).toBe(0.9);
    expect(codes(examine(plan({ setups, marks })))).toContain('plan.second-place');
    expect(codes(examine(plan({ setups, marks: [marks[0], mark('Here', 0, 6)] })))).not.toContain(
      'plan.second-place',
    );
  });

  it('counts card and battery from the minutes planned', () => {
    const passes = [pass('one', { times: 50 })];
    const findings = codes(examine(withSetup({ card: 16, battery: 20 }, { passes })));
    expect(findings).toEqual(expect.arrayContaining(['plan.storage', 'plan.battery']));
  });

  it('writes a sheet with every number, in either unit', () => {
    const input = plan({ marks: [mark('Left', -0.7, 2.5)] });
    const numbers = setupNumbers(input, input.setups[0]);
    const text = (units: 'metric' | 'imperial') =>
      setupSheet(input.setups[0], numbers, units)
        .map((line) => line.text)
        .join('\n');
    expect(text('metric')).toMatch(/Left: 260 cm from the lens foot, 70 cm to the left/);
    expect(text('imperial')).toMatch(/Left: 8′ 6″ from the lens foot, 2′ 3½″ to the left/);
    expect(text('metric')).toMatch(/stabilisation off/);
  });
});

describe('zones', () => {
  const join = zone('seam', 'Join', [0.5, 0], [0.5, 1]);
  const left = zone('copy', 'Left', [0.1, 0.2], [0.45, 0.9]);
  const right = zone('copy', 'Right', [0.55, 0.2], [0.9, 0.9]);

  it('are clear when each copy keeps to its side', () => {
    expect(codes(examineZones('a', [join, left, right]))).toEqual(['zone.clear']);
    expect(codes(examineZones('a', [left, right]))).toEqual(['zone.no-seam']);
  });

  it('show overlap, reaching over, things that move under a join, and shadows across it', () => {
    const over = zone('copy', 'Right', [0.4, 0.2], [0.8, 0.9]);
    expect(codes(examineZones('a', [join, left, over]))).toEqual(['zone.overlap', 'zone.reach']);
    const cloth = zone('moves', 'Cloth', [0.48, 0.1], [0.6, 0.4]);
    expect(codes(examineZones('a', [join, left, right, cloth]))).toEqual(['zone.moving']);
    const shadow = zone('shadow', 'Lamp', [0.1, 0.1], [0.3, 0.15]);
    expect(codes(examineZones('a', [join, left, right, shadow]))).toEqual(['zone.shadow']);
  });

  it('measure what they say', () => {
    const box = { left: 0, right: 0.4, top: 0, bottom: 1 };
    expect(overlapOf(box, { left: 0.3, right: 0.5, top: 0, bottom: 1 })).toBeCloseTo(0.5, 10);
    expect(reachOver([0.3, 0], [0.3, 1], box)).toBeCloseTo(0.25, 2);
    expect(crosses([0.5, 0], [0.5, 1], box)).toBe(false);
    expect(crosses([-1, 0.5], [1, 0.5], box)).toBe(true);
  });
});

describe('style, price and coverage', () => {
  const sections = [
    { name: 'Verse', from: 0, until: 16, song: 0.2 },
    { name: 'Chorus', from: 16, until: 32, song: 1 },
  ];
  const planned = planMoments(
    plan({
      moments: [
        moment('camera-whip', 0, 8),
        moment('clone', 8, 16, { story: 'Alone.' }),
        moment('flash', 16, 17),
      ],
    }),
  );

  it('counts kinds, runs without rest, and energy that parts from the song', () => {
    expect(kindsOf(planned).map(({ times }) => times)).toEqual([1, 1, 1]);
    const advice = adviseStyle(planned, sections, { kinds: 2, bed: 0.1 });
    expect(codes(advice)).toEqual(
      expect.arrayContaining(['style.kinds', 'style.no-rest', 'style.too-wild', 'style.too-calm']),
    );
    expect(advice.every(({ severity }) => severity === 'watch')).toBe(true);
    expect(advice.filter(({ code }) => code === 'style.story')).toHaveLength(2);
    expect(pictureEnergy(planned, sections[0], 0.1)).toBeCloseTo((1 + 0.4) / 2, 10);
  });

  it('prices a moment before it is filmed, and says what on the set would save', () => {
    const [, clone] = planned;
    expect(priceOf(clone, []).mask).toBe(0);
    const shadow = priceOf(clone, [{ code: 'zone.shadow', severity: 'fix', where: {} }]);
    expect(shadow.mask).toBe(Math.round(clone.frames / 2));
    expect(shadow.saving).toMatch(/lamp/);
    const contact = planMoments(
      plan({ moments: [moment('clone', 0, 8, { settings: { way: 'contact' } as never })] }),
    );
    expect(priceOf(contact[0], []).mend).toBeGreaterThan(0);
    // A whip is joined by nothing but its blur: zones cost it nothing.
    expect(priceOf(planned[0], [{ code: 'zone.shadow', severity: 'fix', where: {} }]).mask).toBe(0);
  });

  it('asks for more pictures where the song is loud', () => {
    expect(picturesWanted(0)).toBe(2);
    expect(picturesWanted(1)).toBe(5);
    expect(codes(examineCoverage([], sections))).toEqual(['coverage.none']);
    const wide = pass('wide');
    expect(codes(examineCoverage([wide], sections))).toEqual(['coverage.few', 'coverage.few']);
    const five = ['front', 'side', 'behind', 'above', 'below'].map((angle) =>
      pass(angle, { angle: angle as 'front' }),
    );
    expect(codes(examineCoverage(five, sections))).toEqual(['coverage.still']);
    const close = pass('close', { size: 'close', steadiness: 'handheld' });
    expect(examineCoverage([...five, close], sections)).toEqual([]);
    expect(coverageOf([{ ...wide, from: 16 }], sections).map(({ there }) => there.length)).toEqual([0, 1]);
    expect(bedEnergy([close])).toBeGreaterThan(bedEnergy([wide]));
  });
});

describe('lists to take along', () => {
  const input = plan({
    moments: [
      moment('masked-reveal', 0, 8, { settings: { edge: 'falling', frames: 20 } }),
      moment('clone', 8, 16),
    ],
    day: day({ start: '20:00', end: '03:00' }),
  });

  it('name everything once, with what needs it', () => {
    const items = packingOf(input, [{ id: 'mine', text: 'thermos' }]);
    const texts = items.map(({ text }) => text);
    expect(new Set(texts).size).toBe(texts.length);
    expect(items.find(({ text }) => text === 'tripod')?.for).toEqual(['Masked reveal', 'Clone']);
    expect(texts).toEqual(
      expect.arrayContaining(['second clothes', 'broom', 'thermos', 'second sound recorder']),
    );
    expect(packingOf(plan(), [])).toEqual([]);
  });

  it('show the cautions that the moments, places and hours involve', () => {
    expect(cautionsOf(input).map(({ kind }) => kind)).toEqual(['matter', 'rigging', 'lights', 'alone']);
    expect(cautionsOf(plan({ setups: [setup('a', { place: 'outside' })] })).map(({ kind }) => kind)).toEqual([
      'outside',
    ]);
    expect(cautionsOf(plan())).toEqual([]);
  });
});
