import { seeded } from '../random';

/** How far a held picture is off at an instant: pixels and degrees for a strength of one pixel. */
type Sway = (seconds: number) => { x: number; y: number; rotation: number };

/** waves of each direction; the slow ones are the wide ones, as a hand's are */
const waves = 5;
/** degrees for each pixel of sway at 1000 pixels of width */
const turning = 0.04;

/**
 * The sway of a hand that holds a camera: slow, smooth, never the same twice within minutes. Its root mean square
 * is the strength in both directions.
 * @param pace sways a second of the widest wave; each further one is about 1.7 times as fast and half as wide
 * @param seed another one is another hand
 * @see common practice, no published source
 */
export function swayOf(strength: number, pace: number, seed: number): Sway {
  const random = seeded(seed);
  const direction = () => {
    const parts = Array.from({ length: waves }, (_, index) => ({
      wide: 0.5 ** index,
      turns: pace * 1.7 ** index * (0.85 + 0.3 * random()),
      phase: random(),
    }));
    const power = Math.sqrt(parts.reduce((sum, { wide }) => sum + wide ** 2 / 2, 0));
    return (seconds: number) =>
      parts.reduce(
        (sum, { wide, turns, phase }) => sum + wide * Math.sin(2 * Math.PI * (turns * seconds + phase)),
        0,
      ) / power;
  };
  const [x, y, rotation] = [direction(), direction(), direction()];
  return (seconds) => ({
    x: strength * x(seconds),
    y: strength * y(seconds),
    rotation: strength * turning * rotation(seconds),
  });
}
