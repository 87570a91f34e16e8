import { describe, expect, it } from 'vitest';
import { inPlace } from '../geometry/placement';
import { cameraPath } from '../footage/camera-path';
import { pictureTimes } from '../footage/picture-times';
import { beginsAfter } from '../footage/take-words';
import { examineTake } from '../footage/take-findings';
import type { TakeMatch } from '../footage/colour-match';
import type { Comparison, TakeMeasure } from '../model/measures';
import type { Take } from '../model/records';
import { byGravity, openCount } from './finding';
import { books, sayFinding } from './say';
import { sayQuantity } from './say-quantity';

const size = { width: 1920, height: 1080 };
const take = { id: 't', name: 'Take 3', steady: false, match: false } as Take;
const starts = Float64Array.from({ length: 200 }, (_, index) => index / 25);
/** How a camera stood, one shift in pixels for each picture. */
const pathOf = (shift: (index: number) => number) =>
  cameraPath(
    Array.from(starts, (_, index) => ({ ...inPlace, dx: shift(index) })),
    starts,
    size,
  );
const measure = (set: Partial<TakeMeasure> = {}): TakeMeasure => ({
  size,
  analysis: { width: 960, height: 540 },
  times: pictureTimes(starts),
  colours: { matrix: 'bt709', fullRange: false, assumed: false },
  motion: { share: 0, across: 0.5 },
  light: { dark: 0, blown: 0, flicker: 0 },
  ...set,
});
const light = (stops: number, before: number, after = 0.6, drift = 0): TakeMatch => ({
  light: [],
  slope: [1, 1, 1],
  offset: [0, 0, 0],
  power: [1, 1, 1],
  saturation: 1,
  stops,
  before,
  after,
  drift,
});
const comparison = (set: Partial<Comparison> = {}): Comparison => ({
  path: pathOf(() => 0),
  left: 0,
  colour: light(0, 0.4),
  agreement: 0.95,
  covered: new Uint8Array(),
  standing: { times: [], packed: [] },
  ...set,
});
const delivery = { ...size, rate: { num: 25, den: 1 } };
const names = { takes: { t: 'Take 3' }, grid: null };
const say = (given: Comparison | null, m = measure(), plate: TakeMeasure | null = measure()) =>
  examineTake(take, m, given, plate, delivery).map(
    (finding) => `${finding.severity}: ${sayFinding(finding, names).text}`,
  );

describe('findings about a take', () => {
  it('says where a take has not one picture for each of the film’s, and which it lacks', () => {
    const filmed = { ...take, slot: 'left' };
    const at = (rate: number) =>
      measure({ times: pictureTimes(Float64Array.from({ length: 200 }, (_, index) => index / rate)) });
    const told = (rate: number, film = delivery.rate, set: Partial<Take> = {}) =>
      examineTake({ ...filmed, ...set }, at(rate), null, null, { ...size, rate: film })
        .filter(({ code }) => code === 'take.rate')
        .map((finding) => sayFinding(finding, names).text);
    expect([25, 50, 100].flatMap((rate) => told(rate))).toEqual([]);
    // Film's 24 and its 23.976 are not told apart.
    expect(told(24, { num: 24000, den: 1001 })).toEqual([]);
    expect(told(30)).toEqual([
      expect.stringMatching(/^Take 3 runs at 30.* the film at 25.*: some of its pictures are left out/),
    ]);
    expect(told(24)).toEqual([expect.stringMatching(/some of its pictures are shown twice/)]);
    expect(told(60, { num: 24, den: 1 })).toHaveLength(1);
    for (const slot of [null, 'none', 'film']) expect(told(30, delivery.rate, { slot })).toEqual([]);
    // One that varies is placed by its real times, which is said of it.
    const uneven = Float64Array.from(
      { length: 200 },
      (_, index) => (index + (index % 3 === 0 ? 0.4 : 0)) / 30,
    );
    const varying = examineTake(filmed, measure({ times: pictureTimes(uneven) }), null, null, delivery);
    expect(varying.map(({ code }) => code)).toContain('take.varying-rate');
    expect(varying.map(({ code }) => code)).not.toContain('take.rate');
  });

  it('says of a take that is black, burnt out or flickers what to do, and nothing of one that fills no slot', () => {
    const filmed = { ...take, slot: 'left' };
    const lit = (given: Partial<NonNullable<TakeMeasure['light']>>, set: Partial<Take> = {}) =>
      examineTake(
        { ...filmed, ...set },
        measure({ light: { dark: 0, blown: 0, flicker: 0, ...given } }),
        null,
        null,
        delivery,
      ).map(({ code, severity }) => `${severity} ${code}`);
    expect(lit({ dark: 0.9, flicker: 0.3 })).toEqual(['stop take.dark']);
    expect(lit({ blown: 0.3, flicker: 0.1 })).toEqual(['watch take.blown', 'watch take.flicker']);
    expect(lit({ blown: 0.8 })).toEqual(['stop take.blown']);
    expect(lit({ dark: 0.3, blown: 0.1, flicker: 0.03 })).toEqual([]);
    expect(lit({ dark: 1 }, { slot: null })).toEqual([]);
  });

  it('says where a take is softer than its plate, or the plate than it, and nothing of less than is seen', () => {
    const told = (...by: number[]) =>
      say(comparison({ softer: by.map((one, index) => ({ time: 2 + 2 * index, by: one })) })).filter((one) =>
        one.includes('softer'),
      );
    expect(told(0.5, -1, 2.7)).toEqual([]);
    expect(told()).toEqual([]);
    expect(told(0.2, 3.4)).toEqual([
      expect.stringMatching(
        /^watch: Take 3 is softer than its plate at 0:04.*, as if by a blur of 3\.4 px \(allowed 2\.9 px\)/,
      ),
    ]);
    expect(told(8, 5)).toEqual([expect.stringMatching(/^fix: Take 3 is softer than its plate, as if by/)]);
    expect(told(-4, -3)).toEqual([
      expect.stringMatching(/^watch: The clean plate is softer than Take 3, as if/),
    ]);
  });

  it('says of a still only that it stands in, whatever was measured of it', () => {
    const far = comparison({ agreement: 0.1 });
    const told = examineTake({ ...take, sketch: true }, measure(), far, measure(), delivery);
    expect(told.map(({ severity, code }) => `${severity} ${code}`)).toEqual(['fix take.sketch']);
    expect(examineTake(take, measure(), far, measure(), delivery)[0].code).toBe('take.other-view');
  });

  it('says one frame, and two frames', () => {
    expect([0, 1, 2].map((value) => sayQuantity({ value, unit: 'frames' }))).toEqual([
      '0 frames',
      '1 frame',
      '2 frames',
    ]);
  });

  it('says a bump with its size, direction, time and what to do', () => {
    const path = pathOf((index) => (index < 130 ? 0 : 2.4));
    const [finding] = examineTake(take, measure(), comparison({ path }), measure(), delivery);
    expect(sayFinding(finding, names)).toEqual({
      text: 'Take 3 moved 2.4 px to the right at 0:05.20 (allowed 0.3 px). The join will show. Steadying leaves 0.00 px.',
      fix: 'Steady it',
    });
    expect(finding.fix).toEqual({ command: 'steadyTake', args: { take: 't' } });
    // Whoever shows only what was filmed before the bump has nothing to put right.
    expect([beginsAfter(finding, 5), beginsAfter(finding, 5.3)]).toEqual([true, false]);
    const [off] = examineTake(take, measure(), comparison({ path: pathOf(() => 2.4) }), measure(), delivery);
    expect(beginsAfter(off, 0)).toBe(false);
  });

  it('says of a take that repeats a move how far beside it that was, and how much later', () => {
    const nowhere = { times: new Float64Array(), placements: new Float32Array() };
    const repeat = { late: -0.32, lead: nowhere, own: nowhere, travels: { lead: 300, own: 290 } };
    const beside = comparison({ repeat, path: pathOf((index) => (index < 130 ? 1 : 2.4)), left: 0.12 });
    const one = (set: Partial<Take>, given = beside) => {
      const [finding] = examineTake({ ...take, ...set }, measure(), given, measure(), delivery);
      return `${finding.severity}: ${sayFinding(finding, names).text}`;
    };
    expect(one({})).toBe(
      "fix: Take 3 repeats the plate's move 0.32 s earlier, up to 2.4 px beside it at 0:05.20 (allowed 0.3 px). The join will show. Corrected picture by picture, 0.12 px is left.",
    );
    expect(one({ steady: true })).toMatch(/^fine: .* corrected picture by picture, which leaves 0\.12 px/);
    // What is near and what is far move against each other: no correction puts both right.
    const near = { ...beside, left: 1.4 };
    expect(one({ steady: true }, near)).toMatch(/^fix: .* 1\.40 px is left .*The join will show/);
    expect(one({}, { ...beside, path: pathOf(() => 0.1) })).toMatch(/^fine: .* at most 0\.1 px beside it/);
    // A camera that stood while the plate's moved, laid where it lies least far off.
    const stood = { ...beside, path: pathOf((index) => index / 4) };
    expect(one({ steady: true }, stood)).toMatch(
      /^stop: Take 3 does not repeat the plate's move: its camera lies up to 49\.8 px .*allowed 45\.0 px/,
    );
    const cut = { ...beside, repeat: { ...repeat, travels: { lead: 300, own: 120 } } };
    expect(one({ steady: true }, cut)).toMatch(/^watch: Take 3 goes 40 % of the way/);
    expect(one({}, { ...beside, agreement: 0.2 })).toMatch(/^stop: Take 3 does not repeat the plate's move/);
  });

  it('counts in delivery pixels', () => {
    const path = pathOf(() => 2.4);
    const [finding] = examineTake(take, measure(), comparison({ path }), measure(), {
      ...delivery,
      width: 960,
      height: 540,
    });
    expect(finding.measured?.value).toBeCloseTo(1.2, 6);
  });

  it('says a darker take, another place, other sizes and a varying rate', () => {
    expect(say(comparison({ colour: light(-0.34, 3.8) }))).toContainEqual(
      'fix: Take 3 is 0.34 stop (× 1.27) darker than the plate, ΔE 3.8 (allowed ΔE 2.3). The join will show. Matching leaves ΔE 0.6.',
    );
    expect(say(comparison({ agreement: 0.2 }))[0]).toMatch(
      /^stop: Take 3 does not show the plate's view: 20 %/,
    );
    expect(say(null, measure({ size: { width: 1080, height: 1920 } }))[0]).toMatch(
      /^stop: Take 3 is 1080 × 1920, the plate 1920 × 1080/,
    );
    const uneven = Float64Array.from({ length: 60 }, (_, index) => index / 25 + (index > 30 ? 0.03 : 0));
    expect(say(null, measure({ times: pictureTimes(uneven) }))[0]).toMatch(/varying rate, 14\.3 to 25\.0/);
  });

  it('says how much the film’s shape cuts off, and who is steadied only in part', () => {
    const tall = { width: 1440, height: 1080 };
    expect(say(null, measure({ size: tall }), null)).toContainEqual(
      'watch: The film is 1920 × 1080: 25 % of Take 3’s height is cut off, half on each side. Keep everything inside the rest, or choose another shape in Hand over.',
    );
    expect(say(null)).toEqual([]);
    const path = pathOf((index) => (index < 130 ? 0 : 2.4));
    const steady = { ...take, steady: true };
    const codes = (left: number) =>
      examineTake(steady, measure(), comparison({ path, left }), measure(), delivery).map(
        ({ severity, code }) => `${severity} ${code}`,
      );
    expect(codes(0.2)).toContain('fine take.steadied');
    expect(codes(2.7)).toContain('fix take.steadied-in-part');
  });

  it('says what a match leaves, and that none follows a light that changes', () => {
    const matched = (colour: TakeMatch) =>
      examineTake({ ...take, match: true }, measure(), comparison({ colour }), measure(), delivery).map(
        (finding) => `${finding.severity}: ${sayFinding(finding, names).text}`,
      );
    expect(matched(light(-0.34, 5.1))).toContainEqual(
      'fine: Take 3 was 0.34 stop (× 1.27) darker, ΔE 5.1; it is matched to the plate, which leaves ΔE 0.6 (allowed ΔE 2.3).',
    );
    expect(matched(light(-0.34, 5.1, 3.4, 0.5))).toContainEqual(
      'fix: Take 3 was 0.34 stop (× 1.27) darker, ΔE 5.1; matched to the plate, ΔE 3.4 is left (allowed ΔE 2.3). Its light changes by 0.50 stop during the take, which no one match follows. The join will show: film it again in one light, or choose another part of it.',
    );
  });

  it('finds nothing to mend in a good take', () => {
    const findings = examineTake(take, measure(), comparison(), measure(), delivery);
    expect(openCount(findings)).toBe(0);
    expect(findings.map((finding) => finding.severity)).toEqual(['fine', 'fine']);
  });

  it('have words for each code in one place alone', () => {
    const codes = books.flatMap((book) => Object.keys(book));
    expect(codes.length).toBeGreaterThan(90);
    expect(new Set(codes).size).toBe(codes.length);
  });

  it('lists the gravest first', () => {
    const order = byGravity([
      { code: 'a', severity: 'fine', where: {} },
      { code: 'b', severity: 'stop', where: {} },
      { code: 'c', severity: 'watch', where: {} },
    ]);
    expect(order.map((finding) => finding.code)).toEqual(['b', 'c', 'a']);
  });
});
