import { bar, box, disc, type Canvas, type Rgb } from './canvas';

/** Where the mechanic is and what she does: stage units, angles in radians. */
export type Pose = {
  x: number;
  lean: number;
  head: number;
  leftHand: [number, number];
  rightHand: [number, number];
  suit: Rgb;
  /** stage units from the floor to her feet; unset is none */
  up?: number;
};

const skin: Rgb = [196, 150, 116];
const hair: Rgb = [58, 42, 36];

/** Two bars from shoulder over elbow to hand. */
function arm(canvas: Canvas, from: [number, number], hand: [number, number], bend: number, suit: Rgb): void {
  const middle: [number, number] = [
    (from[0] + hand[0]) / 2 + bend * (hand[1] - from[1]) * 0.35,
    (from[1] + hand[1]) / 2 + 14,
  ];
  canvas.fill(bar(from[0], from[1], middle[0], middle[1], 26, 22), suit);
  canvas.fill(disc(middle[0], middle[1], 11), suit);
  canvas.fill(bar(middle[0], middle[1], hand[0], hand[1], 21, 15), suit);
  canvas.fill(disc(hand[0], hand[1], 11, 10), skin);
}

/** Draws the mechanic standing behind the bench: feet at 655, about 330 units tall. */
export function drawMechanic(stage: Canvas, pose: Pose): void {
  const { x, lean, suit, up = 0 } = pose;
  const dark = suit.map((value) => value * 0.78) as Rgb;
  const shoulder = x + lean;
  // Whoever is in the air throws a wider and weaker shadow.
  const far = 1 + up / 90;
  stage.shade(x + 6, 652, 74 * far, 18 * far, 0.45 / far ** 2);
  const canvas = stage.raised(up);
  canvas.fill(bar(x - 17, 480, x - 20, 648, 34, 28), dark);
  canvas.fill(bar(x + 17, 480, x + 20, 648, 34, 28), suit);
  canvas.fill(box(x - 38, 642, 36, 14), [46, 38, 34]);
  canvas.fill(box(x + 4, 642, 36, 14), [46, 38, 34]);
  canvas.fill(
    [
      [shoulder - 42, 372],
      [shoulder + 42, 372],
      [x + 36, 500],
      [x - 36, 500],
    ],
    suit,
  );
  canvas.fill(box(x - 36, 468, 72, 9), [70, 54, 40]);
  canvas.fill(box(shoulder - 20, 400, 18, 16), dark);
  canvas.fill(bar(shoulder, 374, shoulder + pose.head * 0.4, 350, 22), skin);
  const hx = shoulder + pose.head;
  canvas.fill(disc(hx, 326, 27, 32), skin);
  canvas.fill(disc(hx, 306, 30, 20), hair);
  canvas.fill(box(hx - 30, 302, 60, 10), [164, 52, 44]);
  canvas.fill(disc(hx - pose.head * 0.2 - 26, 320, 9, 22), hair);
  canvas.fill(disc(hx + pose.head * 0.25 - 9, 328, 2.6, 3), [40, 30, 28]);
  canvas.fill(disc(hx + pose.head * 0.25 + 9, 328, 2.6, 3), [40, 30, 28]);
  arm(canvas, [shoulder - 38, 384], pose.leftHand, -0.4, dark);
  arm(canvas, [shoulder + 38, 384], pose.rightHand, 0.4, suit);
}
