import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sayFinding } from '../finding/say';
import { body as posed, high, ratio, stature } from './__tests__/upright';
import { bodiesOf, bodyGap, bodyOf, usualBody, type Bodies } from './bodies';
import { examineAtMark, examineMeeting, type Stander } from './examine-bodies';

const seen = (...asked: Parameters<typeof posed>) => bodyOf(posed(...asked), ratio) ?? expect.fail('unseen');
const stands = (name: string, ...asked: Parameters<typeof posed>): Stander => ({
  take: name,
  name,
  body: seen(...asked),
});
const names = { takes: { one: 'Left 1', other: 'Right 2' }, grid: null };
const told = (findings: ReturnType<typeof examineMeeting>) =>
  findings.map((finding) => `${finding.severity}: ${sayFinding(finding, names).text}`).join();
const meet = (one: Stander, other: Stander) => told(examineMeeting(one, other, stature, {}));

describe('a body in a picture', () => {
  it('has its eyes where they are, and is as tall as it is drawn', () => {
    const { across, eyes, stature: tall } = seen();
    expect(across).toBeCloseTo(0.5, 6);
    // 0.93 of 1.7 m above the ground (Drillis and Contini 1966, from memory), which lies 0.9 m below the middle.
    expect(eyes).toBeCloseTo(0.5 + (0.9 - 0.93 * stature) / high, 6);
    expect(tall).toBeCloseTo(stature / high, 1);
    expect(bodyOf(posed({ hidden: ['head'] }), ratio)).toBeNull();
    expect(bodiesOf([posed({ size: 0.5 }), posed(), posed({ hidden: ['head'] })], ratio)).toEqual([
      seen(),
      seen({ size: 0.5 }),
    ]);
  });

  it('is told from another one by the metres and the sizes between them, whatever both are', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.4, max: 0.4, noNaN: true }),
        fc.double({ min: 0.6, max: 1.3, noNaN: true }),
        (up, size) => {
          const gap = bodyGap(seen({ by: [0.2, -up], size }), seen({ size }), stature);
          expect(gap.higher).toBeCloseTo((up * stature) / (seen().stature * high), 5);
          expect(gap.larger).toBeCloseTo(1, 5);
          expect(bodyGap(seen({ size }), seen(), stature).larger).toBeCloseTo(size, 5);
        },
      ),
    );
  });

  it('stands in the middle of all looks, whoever else is in them', () => {
    const looks = [0, 0.02, 0.04, 0.5, 0.01].map((down, index) => ({
      time: index,
      bodies: bodiesOf([posed({ size: 0.4 }), posed({ by: [0, down] })], ratio),
    }));
    const some: Bodies = { ratio, looks: [...looks, { time: 9, bodies: [] }] };
    expect(usualBody(some)?.eyes).toBeCloseTo(seen().eyes + 0.02 / high, 6);
    expect(usualBody(some, 2.5, 3.5)?.eyes).toBeCloseTo(seen().eyes + 0.5 / high, 6);
    expect(usualBody(some, 8, 10)).toBeNull();
    expect(usualBody({ ratio, looks: [] })).toBeNull();
  });
});

describe('two who are to meet', () => {
  const other = stands('other');

  it('are level within what finding them is off, and not where a touch would miss', () => {
    expect(meet(stands('one'), other)).toMatch(
      /^fine: The eyes in Left 1 and other are at one height \(0 cm apart/,
    );
    expect(meet(stands('one', { by: [0.3, -0.03] }), other)).toMatch(/^fine/);
    expect(meet(stands('one', { by: [0, -0.12] }), other)).toMatch(
      /^watch: Whoever stands in Left 1 has eyes 1[123] cm higher than in other\. Where/,
    );
    expect(meet(stands('one', { by: [0, 0.12] }), other)).toMatch(/eyes 1[123] cm lower than/);
    // Larger about the picture's middle, below which the eyes are not.
    expect(meet(stands('one', { size: 1.1 }), other)).toMatch(/higher and a body 10 % larger than in other/);
    expect(meet(stands('one', { size: 0.9 }), other)).toMatch(/lower and a body 10 % smaller/);
  });

  it('are not called level where one of them was not found', () => {
    const nobody = { take: 'one', name: 'one', body: null };
    for (const said of [meet(nobody, other), meet(nobody, nobody)])
      expect(said).toMatch(/^watch: Nobody's eyes are found in Left 1/);
    expect(meet(other, nobody)).toMatch(/^watch: Nobody's eyes are found in Left 1/);
  });
});

describe('somebody at a mark', () => {
  const marks = [
    { name: 'crate', stature, body: seen() },
    { name: 'door', stature, body: { ...seen(), across: 0.9 } },
  ];
  const at = (stander: Stander) => told(examineAtMark(stander, marks));

  it('stands as it has it, or is said not to; elsewhere nothing is said', () => {
    expect(at(stands('one'))).toMatch(/^fine: .* as the mark “crate” has it/);
    expect(at(stands('one', { by: [0, 0.2] }))).toMatch(
      /^watch: Whoever stands in Left 1 has eyes (19|2[012]) cm lower than the mark “crate” has it/,
    );
    expect(at(stands('one', { by: [-1.7, 0] }))).toBe('');
    expect(told(examineAtMark({ take: 'one', name: 'one', body: null }, marks))).toBe('');
    expect(told(examineAtMark(stands('one'), []))).toBe('');
  });
});
