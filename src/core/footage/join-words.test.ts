import { describe, expect, it } from 'vitest';
import { writeJoinList } from '../formats/join-list';
import { gravestOf, jumpOf, sayJoin, sayJump, sayPans, sayUnfilled } from './join-words';

describe('what is said of a join', () => {
  it('turns with how much more changes there than from one picture to the next', () => {
    const at = (cost: number) => sayJump({ cost, step: 4 }, 1);
    expect(at(5.9)).toMatchObject({ severity: 'fine', text: expect.stringContaining('1.5 times') as string });
    expect(at(6.2).severity).toBe('watch');
    expect(at(14.9).severity).toBe('watch');
    expect(at(15.2).severity).toBe('stop');
    // Pictures that stand and are as good as the same: what is left is noise, and no jump.
    expect(sayJump({ cost: 1.2, step: 0.1 }, 1).severity).toBe('fine');
    expect(sayJump({ cost: 9, step: 4 }, 12).text).toContain('more pictures');
  });

  it('turns where the two move otherwise', () => {
    const right = { dx: 0.02, dy: 0 };
    expect(sayPans({ dx: 0.001, dy: 0 }, { dx: 0, dy: -0.002 }, 1920)).toBeNull();
    expect(sayPans(right, { dx: 0.025, dy: 0.002 }, 1920)).toEqual({
      severity: 'fine',
      text: 'Both move right: 38 px a picture and 48 px a picture.',
    });
    expect(sayPans(right, { dx: 0.04, dy: 0 }, 1920)).toMatchObject({
      severity: 'watch',
      text: expect.stringContaining('2.0 times as fast') as string,
    });
    expect(sayPans(right, { dx: 0, dy: 0 }, 1920)?.severity).toBe('watch');
    const back = sayPans(right, { dx: -0.02, dy: 0 }, 1920);
    expect(back?.severity).toBe('stop');
    expect(back?.text).toContain('right and the second left, 180° apart');
    // Across the seam of the angles: a little up and a little down of left are the same way.
    expect(sayPans({ dx: -0.02, dy: 0.001 }, { dx: -0.02, dy: -0.001 }, 1920)?.severity).toBe('fine');
    expect(sayPans({ dx: 0.02, dy: -0.02 }, { dx: 0.02, dy: -0.02 }, 1920)?.text).toContain('up right');
  });

  it('turns where the set jumps though hardly anything else changes, unless the camera moves', () => {
    const stands = { dx: 0, dy: 0 };
    const join = { a: 9, b: 5, cost: 3, step: 4, seconds: [0.4, 0.2] as [number, number] };
    const of = (off: number | null, pan = stands) =>
      gravestOf(sayJoin({ ...join, off, pans: [pan, pan], filled: [0, 0] }, { over: 1, at: 'any' }, 1920));
    expect(of(0.9 / 1920)).toBe('fine');
    expect(of(1.2 / 1920)).toBe('watch');
    expect(of(5.1 / 1920)).toBe('stop');
    expect(of(null)).toBe('fine');
    expect(of(5.1 / 1920, right)).toBe('fine');
  });

  it('turns where the set shows round what passes, behind which it may jump as it likes', () => {
    const stands = { dx: 0, dy: 0 };
    const join = { a: 9, b: 5, cost: 3, step: 4, seconds: [0.4, 0.2] as [number, number], off: 0.02 };
    const of = (filled: [number, number]) =>
      sayJoin({ ...join, pans: [stands, stands], filled }, { over: 1, at: 'filled' }, 1920);
    expect(gravestOf(of([0.95, 0.91]))).toBe('fine');
    expect(of([0.95, 0.91])[1].text).toContain('95 % of the first picture and 91 % of the second');
    expect(of([0.95, 0.89])[1].severity).toBe('watch');
    // The set jumps, and is seen to.
    expect(gravestOf(of([0.95, 0.89]))).toBe('stop');
    expect(sayUnfilled('Left 1', { picture: 12, share: 0.34 })).toMatch(
      /^Nothing .* of Left 1: 34 % .* 12\. Let/,
    );
  });

  it('is kept as numbers for any editor', () => {
    const join = { a: 77, b: 33, cost: 6, step: 4, pans: [right, right] as [typeof right, typeof right] };
    const filled: [number, number] = [0, 0];
    const list = writeJoinList(
      [{ ...join, filled, off: null, seconds: [3.2115, 1.3764] }],
      ['Left 1', 'Left, 2'],
      1,
    );
    expect(list.split('\r\n')[1]).toBe('Left 1,77,3.2115,"Left, 2",33,1.3764,1,1.50');
    expect(jumpOf(join)).toBe(1.5);
  });
});

const right = { dx: 0.02, dy: 0 };
