import { describe, expect, it } from 'vitest';
import { writeJoinList } from '../formats/join-list';
import { gravestOf, jumpOf, sayJoin, sayJump, sayPans } from './join-words';

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
      gravestOf(sayJoin({ ...join, off, pans: [pan, pan] }, 1, 1920));
    expect(of(0.9 / 1920)).toBe('fine');
    expect(of(1.2 / 1920)).toBe('watch');
    expect(of(5.1 / 1920)).toBe('stop');
    expect(of(null)).toBe('fine');
    expect(of(5.1 / 1920, right)).toBe('fine');
  });

  it('is kept as numbers for any editor', () => {
    const join = { a: 77, b: 33, cost: 6, step: 4, pans: [right, right] as [typeof right, typeof right] };
    const list = writeJoinList([{ ...join, off: null, seconds: [3.2115, 1.3764] }], ['Left 1', 'Left, 2'], 1);
    expect(list.split('\r\n')[1]).toBe('Left 1,77,3.2115,"Left, 2",33,1.3764,1,1.50');
    expect(jumpOf(join)).toBe(1.5);
  });
});

const right = { dx: 0.02, dy: 0 };
