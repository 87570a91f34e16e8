import { describe, expect, it } from 'vitest';
import { median, shot, texture } from '../__tests__/scene';
import { seeded } from '../random';
import { quantile } from '../statistics';
import {
  between,
  chain,
  cornerMove,
  inPlace,
  inverted,
  placementMatrix,
  type Placement,
} from '../geometry/placement';
import { invertAffine, multiplyAffine } from '../geometry/affine';
import { prepareReference } from './reference';
import { registerFrame } from './register';

const size = { width: 480, height: 270 };

/** Furthest corner between a measured and a true placement. */
const cornerError = (found: Placement, truth: Placement) => {
  const difference = multiplyAffine(placementMatrix(found, size), invertAffine(placementMatrix(truth, size)));
  const corners = [
    [0, 0],
    [size.width, 0],
    [0, size.height],
    [size.width, size.height],
  ];
  const [a, b, c, d, e, f] = difference;
  return Math.max(...corners.map(([x, y]) => Math.hypot(a * x + c * y + e - x, b * x + d * y + f - y)));
};

describe('registration', () => {
  /** Corner errors of pictures that moved by at most `reach` px and `turn` degrees, behind somebody before 40 % of them. */
  const behind = (reach: number, turn: number, rounds: number) => {
    const next = seeded(7);
    return Array.from({ length: rounds }, (_, round) => {
      const scene = texture(100 + (round % 6), size);
      const truth = {
        dx: (next() * 2 - 1) * reach,
        dy: (next() * 2 - 1) * reach,
        rotation: (next() * 2 - 1) * turn,
        scale: turn > 0 ? 1 + (next() - 0.5) * 0.002 : 1,
        agreement: 1,
      };
      const dark = round % 3 === 2 ? { level: 35 } : {};
      const performer = { x: 20 + next() * 210, y: 44, w: 230, h: 226, ...dark };
      const reference = prepareReference(shot(scene, size, inPlace, { noise: 3, seed: round + 900 }));
      const frame = shot(scene, size, truth, { gain: 0.85 + next() * 0.3, noise: 3, seed: round, performer });
      return cornerError(registerFrame(reference, frame), truth);
    });
  };

  // Both limits are the project's own; SOURCES.md names 0.037 px (median) for Evangelidis & Psarakis 2008 on real footage.
  it('finds moves up to 4 px and 0.3° behind a performer who covers 40 %', () => {
    const errors = behind(4, 0.3, 18);
    expect(median(errors)).toBeLessThanOrEqual(0.02);
    expect(quantile(errors, 0.95)).toBeLessThanOrEqual(0.05);
  });

  it('takes no camera that stands for one that moved, and finds hard knocks, behind them as well', () => {
    expect(Math.max(...behind(0, 0, 6))).toBeLessThanOrEqual(0.05);
    expect(Math.max(...behind(16, 0.3, 6))).toBeLessThanOrEqual(0.1);
  });

  it('takes the light of the set, whatever that of a performer before 40 % of it is', () => {
    const large = { width: 768, height: 576 };
    // Moves and performers of a thousand random ones at which the light was once taken from him.
    for (const [scene, dx, dy, rotation, x, gain, level] of [
      [106, -3.69, -3.41, -0.178, 56, 0.88, null],
      [108, -2.63, -3.87, 0.044, 196, 0.89, null],
      [108, -1.79, -3.17, -0.114, 384, 1.02, 90],
      [105, 2.75, 2.44, 0.161, 122, 1.04, 90],
      [102, -3.76, 3.42, -0.104, 198, 1.07, 90],
    ] as const) {
      const at = texture(scene, large);
      const truth = { ...inPlace, dx, dy, rotation };
      const performer = { x, y: 116, w: 384, h: 460, ...(level ? { level } : {}) };
      const found = registerFrame(
        shot(at, large, inPlace, { noise: 3, seed: scene }),
        shot(at, large, truth, { gain, noise: 3, seed: scene + 1, performer }),
      );
      expect(cornerMove(between(truth, found), large), `${scene}`).toBeLessThan(0.05);
    }
  });

  it('is not led astray where somebody large and dark hides which shift is the likeliest', () => {
    const large = { width: 768, height: 576 };
    const scene = texture(104, large);
    const truth = { ...inPlace, dx: -2, dy: 3, rotation: -0.19 };
    const performer = { x: 137, y: 85, w: 288, h: 460 };
    const found = registerFrame(
      shot(scene, large, inPlace, { noise: 3, seed: 904 }),
      shot(scene, large, truth, { gain: 0.9, noise: 3, seed: 4, performer }),
    );
    expect(Math.hypot(found.dx - truth.dx, found.dy - truth.dy)).toBeLessThan(0.1);
    expect(found.agreement).toBeGreaterThan(0.6);
  });

  it('follows a hard knock of the tripod', () => {
    const scene = texture(5, size);
    const truth = { dx: 31, dy: -12, rotation: 1.1, scale: 1, agreement: 1 };
    const found = registerFrame(shot(scene, size, inPlace), shot(scene, size, truth, { noise: 2 }));
    expect(cornerError(found, truth)).toBeLessThan(0.3);
    expect(found.agreement).toBeGreaterThan(0.6);
  });

  it('says that a picture of another place does not fit', () => {
    const found = registerFrame(shot(texture(1, size), size, inPlace), shot(texture(2, size), size, inPlace));
    expect(found.agreement).toBeLessThan(0.45);
  });

  it('answers with confidence 0 on a picture without texture, and refuses other sizes', () => {
    const flat = { ...size, data: new Float32Array(size.width * size.height).fill(90) };
    expect(registerFrame(flat, flat).agreement).toBe(0);
    expect(() => registerFrame(flat, { width: 10, height: 10, data: new Float32Array(100) })).toThrow(
      expect.objectContaining({ code: 'sizes-differ' }),
    );
    expect(() => prepareReference([])).toThrow(expect.objectContaining({ code: 'no-reference' }));
  });
});

describe('placements', () => {
  it('chains like the maps that they stand for', () => {
    const one = { dx: 3, dy: -2, rotation: 1.5, scale: 1.01, agreement: 1 };
    const two = { dx: -1, dy: 4, rotation: -0.7, scale: 0.99, agreement: 1 };
    const both = multiplyAffine(placementMatrix(two, size), placementMatrix(one, size));
    placementMatrix(chain(one, two), size).forEach((value, index) =>
      expect(value).toBeCloseTo(both[index], 8),
    );
  });

  it('go back and forth, and from one frame to another', () => {
    const one = { dx: 45, dy: -12, rotation: 1.5, scale: 1.03, agreement: 1 };
    const two = { dx: -7, dy: 4, rotation: -2.7, scale: 0.97, agreement: 1 };
    expect(cornerMove(chain(one, inverted(one)), size)).toBeCloseTo(0, 9);
    expect(cornerMove(between(two, chain(two, one)), size)).toBeCloseTo(cornerMove(one, size), 9);
  });

  it('measures the corner that moves most', () => {
    expect(cornerMove({ ...inPlace, dx: 3, dy: 4 }, size)).toBeCloseTo(5, 9);
  });
});
