import type { Stance } from './stance';
import { long, minus, plus, times, unit, type Vector } from './vector';

/** What a part of the figure is of, which says its colour. */
export type Of = 'skin' | 'lips' | 'brow' | 'eye' | 'pupil' | 'hair' | 'shirt' | 'trousers' | 'shoe';

/**
 * Two distances as one: the shapes melt into each other over so many metres.
 * Source: the polynomial smooth minimum, common practice in modelling by distance fields.
 */
function melted(a: number, b: number, over: number): number {
  const near = Math.max(over - Math.abs(a - b), 0) / over;
  return Math.min(a, b) - (near * near * over) / 4;
}

/** Metres to a rod that is so thick at its two ends. Called a million times a picture: written out. */
function toRod(p: Vector, a: Vector, b: Vector, thick: number, thin: number): number {
  const [ax, ay, az] = a;
  const [x, y, z] = [p[0] - ax, p[1] - ay, p[2] - az];
  const [bx, by, bz] = [b[0] - ax, b[1] - ay, b[2] - az];
  const share = Math.min(1, Math.max(0, (x * bx + y * by + z * bz) / (bx * bx + by * by + bz * bz)));
  const [dx, dy, dz] = [x - share * bx, y - share * by, z - share * bz];
  return Math.sqrt(dx * dx + dy * dy + dz * dz) - (thick + (thin - thick) * share);
}

/** Metres to an egg, as good as exact near its surface. */
function toEgg(p: Vector, middle: Vector, half: Vector): number {
  const [a, b, c] = half;
  const [x, y, z] = [(p[0] - middle[0]) / a, (p[1] - middle[1]) / b, (p[2] - middle[2]) / c];
  const out = Math.sqrt(x * x + y * y + z * z);
  const [sx, sy, sz] = [x / a, y / b, z / c];
  return (out * (out - 1)) / (Math.sqrt(sx * sx + sy * sy + sz * sz) || 1e-9);
}

const sides = [-1, 1] as const;

function toFace(p: Vector): number {
  let to = melted(
    toEgg(p, [0, 1.665, 0], [0.082, 0.115, 0.1]),
    toEgg(p, [0, 1.6, 0.03], [0.06, 0.065, 0.06]),
    0.05,
  );
  to = melted(to, toRod(p, [0, 1.675, 0.09], [0, 1.635, 0.118], 0.01, 0.016), 0.02);
  to = melted(to, toEgg(p, [0, 1.6, 0.086], [0.026, 0.011, 0.012]), 0.012);
  to = melted(to, toEgg(p, [0, 1.557, 0.075], [0.022, 0.02, 0.018]), 0.03);
  for (const side of sides) {
    to = Math.max(to, -toEgg(p, [side * 0.034, 1.68, 0.108], [0.022, 0.012, 0.016]));
    to = melted(to, toEgg(p, [side * 0.084, 1.655, 0], [0.012, 0.032, 0.022]), 0.01);
    to = melted(to, toRod(p, [side * 0.018, 1.702, 0.095], [side * 0.05, 1.7, 0.085], 0.008, 0.007), 0.015);
  }
  return Math.min(to, toRod(p, [0, 1.45, -0.01], [0, 1.58, 0], 0.055, 0.05));
}

const toHair = (p: Vector): number =>
  Math.max(toEgg(p, [0, 1.7, -0.02], [0.095, 0.11, 0.105]), -toEgg(p, [0, 1.63, 0.1], [0.078, 0.1, 0.09]));

function toHand(p: Vector, wrist: Vector, way: Vector): number {
  const palm = toEgg(p, plus(wrist, times(way, 0.07)), [0.038, 0.05, 0.025]);
  const fingers = [-0.024, -0.008, 0.008, 0.024].map((aside) =>
    toRod(
      p,
      plus(plus(wrist, times(way, 0.09)), [aside, 0, 0]),
      plus(plus(wrist, times(way, 0.17 - Math.abs(aside) / 2)), [aside * 1.4, 0, 0]),
      0.01,
      0.008,
    ),
  );
  return melted(palm, Math.min(...fingers), 0.02);
}

function toArm(p: Vector, shoulder: Vector, elbow: Vector, wrist: Vector): number {
  const arm = melted(toRod(p, shoulder, elbow, 0.047, 0.038), toRod(p, elbow, wrist, 0.038, 0.026), 0.02);
  const hand = long(minus(p, wrist)) - 0.2;
  return hand > 0.05 ? Math.min(arm, hand) : melted(arm, toHand(p, wrist, unit(minus(wrist, elbow))), 0.02);
}

/** Cloth lies in folds. */
const folds = ([x, y]: Vector, fine: number): number =>
  0.003 * Math.sin(fine * y + 25 * x + 3 * Math.sin(18 * x)) * Math.sin(30 * x + 13 * y);

function toShirt(p: Vector, stance: Stance): number {
  let to = melted(toEgg(p, [0, 1.3, 0], [0.17, 0.17, 0.11]), toEgg(p, [0, 1.08, 0], [0.145, 0.16, 0.1]), 0.1);
  to = melted(to, toRod(p, stance.shoulderLeft, stance.shoulderRight, 0.06, 0.06), 0.08);
  for (const [shoulder, elbow] of [
    [stance.shoulderLeft, stance.elbowLeft],
    [stance.shoulderRight, stance.elbowRight],
  ])
    to = melted(
      to,
      toRod(p, shoulder, plus(shoulder, times(minus(elbow, shoulder), 0.55)), 0.062, 0.062),
      0.04,
    );
  return to + folds(p, 40);
}

const toLeg = (p: Vector, hip: Vector, knee: Vector, ankle: Vector): number =>
  melted(toRod(p, hip, knee, 0.088, 0.062), toRod(p, knee, ankle, 0.062, 0.05), 0.05);

function toTrousers(p: Vector, stance: Stance): number {
  const hips = toEgg(p, [0, 0.94, 0], [0.155, 0.11, 0.105]);
  const left = toLeg(p, stance.hipLeft, stance.kneeLeft, stance.ankleLeft);
  const right = toLeg(p, stance.hipRight, stance.kneeRight, stance.ankleRight);
  return melted(melted(hips, left, 0.05), right, 0.05) + folds(p, 35);
}

const toShoe = (p: Vector, ankle: Vector): number =>
  toEgg(p, plus(ankle, [0, -0.04, 0.07]), [0.045, 0.045, 0.13]);

/** What is painted on the skin. */
const skinAt = ([x, y, z]: Vector): Of => {
  if (z > 0.06 && y > 1.69 && y < 1.712) return 'brow';
  return z > 0.06 && Math.abs(x) < 0.028 && Math.abs(y - 1.6) < 0.009 ? 'lips' : 'skin';
};

/** A part that lies within a ball: what is further off than its ball is not asked for more than that. */
type Part = { middle: Vector; within: number; to: (p: Vector) => number; of: (p: Vector) => Of };

/** How near a figure is, and what of it is nearest. */
export class Body {
  private readonly parts: Part[];

  constructor(private readonly stance: Stance) {
    const part = (middle: Vector, within: number, to: Part['to'], of: Of | Part['of']): Part => ({
      middle,
      within,
      to,
      of: typeof of === 'string' ? () => of : of,
    });
    const { elbowLeft, elbowRight, ankleLeft, ankleRight } = stance;
    this.parts = [
      part([0, 1.63, 0], 0.25, toFace, skinAt),
      part([0, 1.7, -0.02], 0.13, toHair, 'hair'),
      ...sides.map((side) =>
        part(
          [side * 0.034, 1.68, 0.083],
          0.017,
          (p) => toEgg(p, [side * 0.034, 1.68, 0.083], [0.016, 0.016, 0.016]),
          (p) => (Math.hypot(p[0] - side * 0.034, p[1] - 1.68) < 0.0085 ? 'pupil' : 'eye'),
        ),
      ),
      part([0, 1.22, 0], 0.42, (p) => toShirt(p, stance), 'shirt'),
      part(elbowLeft, 0.55, (p) => toArm(p, stance.shoulderLeft, elbowLeft, stance.wristLeft), 'skin'),
      part(elbowRight, 0.55, (p) => toArm(p, stance.shoulderRight, elbowRight, stance.wristRight), 'skin'),
      part([0, 0.55, 0], 0.75, (p) => toTrousers(p, stance), 'trousers'),
      ...[ankleLeft, ankleRight].map((ankle) => part(ankle, 0.25, (p) => toShoe(p, ankle), 'shoe')),
    ];
  }

  /** Metres from a point to the figure. */
  to(point: Vector): number {
    const p = minus(point, this.stance.at);
    let least = Infinity;
    for (const { middle, within, to } of this.parts) {
      const ball = long(minus(p, middle)) - within;
      if (ball < least) least = ball > 0.05 ? ball : Math.min(least, to(p));
    }
    return least;
  }

  /** What is at a point of its surface. */
  at(point: Vector): Of {
    const p = minus(point, this.stance.at);
    const far = this.parts.map((part) => part.to(p));
    return this.parts[far.indexOf(Math.min(...far))].of(p);
  }
}
