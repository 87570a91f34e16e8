import type { Pose } from './mechanic';

const swing = (time: number, period: number, phase = 0) => Math.sin((2 * Math.PI * time) / period + phase);
const step = (time: number, from: number, to: number) => {
  const t = Math.min(1, Math.max(0, (time - from) / (to - from)));
  return t * t * (3 - 2 * t);
};

/** Works at the vice, in the left half of the picture, then looks up and lifts a spanner to greet. `take` varies it a little. */
export function worksAtVice(time: number, take: number): Pose {
  const x = 470 + 5 * swing(time, 4.1, take);
  const greet = step(time, 2.6, 3.3) - step(time, 6.4, 7.2);
  return {
    x,
    lean: 5 * swing(time, 3.3, take * 2) + 6 * greet,
    head: 5 + 10 * greet + 3 * swing(time, 2.7),
    leftHand: [x - 46 + 8 * swing(time, 1.15, take), 440 + 7 * swing(time, 0.58)],
    rightHand: [
      x + 62 + 10 * swing(time, 1.15) * (1 - greet),
      436 - 92 * greet + 8 * swing(time, 0.7) * greet,
    ],
    suit: [152, 50, 40],
  };
}

/** Stands in her place, in the right half, from the first picture and answers with a nod and a lifted hand. */
export function standsInPlace(time: number, take: number): Pose {
  const x = 806 + 5 * swing(time, 3.7, take + 1);
  const answer = step(time, 1.6, 2.3) - step(time, 5.6, 6.4);
  return {
    x,
    lean: 5 * swing(time, 2.9, take) - 6 * answer,
    head: -6 - 9 * answer + 3 * swing(time, 1.9, take),
    leftHand: [
      x - 58 + 8 * swing(time, 1.4) * (1 - answer),
      438 - 84 * answer + 7 * swing(time, 0.8) * answer,
    ],
    rightHand: [x + 44 + 9 * swing(time, 1.3, take), 438 + 6 * swing(time, 0.65)],
    suit: [44, 84, 128],
  };
}
