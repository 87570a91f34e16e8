import { median } from '../../statistics';
import type { Analyser } from './analyser';

/** How the light of a take can be read. */
export type Light = {
  /** share of its pictures in which nothing can be seen, 0..1 */
  dark: number;
  /** share of the picture that is burnt out to white, in the middle of all its pictures, 0..1 */
  blown: number;
  /** share of the light by which it swings in one steady beat, lightest less darkest; 0 where it does not */
  flicker: number;
};

/** every how manieth pixel and row is looked at */
const stride = 4;
/** codes, as a share of the way from black to white, below which nothing is seen, and from which all is burnt out */
const [black, white] = [0.08, 0.985];
/** share of a black picture that may be lighter: what shines into a bag or past a cap */
const speck = 0.01;
/** codes are about the light to the power of one over this. @see ITU-R BT.1886 */
const gamma = 2.4;
/** beats a second from which on light flickers; what is slower is somebody who passes, or a cloud */
const slowest = 1.5;
/** pictures that a beat is looked for in, and that are needed at least */
const [most, fewest] = [512, 24];
/** share of all change that has to be in one beat. By trial */
const oneBeat = 0.5;

/** The values less what changes more slowly than over some neighbours. */
function withoutSlow(values: readonly number[], reach: number): number[] {
  return values.map((value, at) => {
    const near = values.slice(Math.max(0, at - reach), at + reach + 1);
    return value - near.reduce((sum, one) => sum + one, 0) / near.length;
  });
}

/** By how much of itself a light swings in one beat. @see Goertzel 1958, written out */
function flickerOf(lights: readonly number[], rate: number): number {
  const mean = lights.reduce((sum, one) => sum + one, 0) / lights.length;
  if (lights.length < fewest || !(rate > 2 * slowest) || mean <= 0) return 0;
  const fast = withoutSlow(lights, Math.round(rate / slowest / 2));
  const all = fast.reduce((sum, one) => sum + one * one, 0);
  let strongest = 0;
  const half = fast.length / 2;
  for (let turn = Math.ceil((slowest / rate) * fast.length); turn <= half; turn++) {
    let [real, imaginary] = [0, 0];
    fast.forEach((value, at) => {
      real += value * Math.cos((2 * Math.PI * turn * at) / fast.length);
      imaginary += value * Math.sin((2 * Math.PI * turn * at) / fast.length);
    });
    const power = (real ** 2 + imaginary ** 2) * (turn === half ? 0.5 : 1);
    strongest = Math.max(strongest, power);
  }
  // A beat between two of the turns falls on both; half of it is seen at least.
  const [share, swing] = [(2 * strongest) / fast.length / all, (4 * Math.sqrt(strongest)) / fast.length];
  return all > 0 && share >= oneBeat ? swing / mean : 0;
}

/** How dark and how light a take is, and whether its light flickers as a whole. */
export const light: Analyser<Light> = {
  begin({ analysis, fullRange }) {
    const [from, range] = fullRange ? [0, 255] : [16, 219];
    const counts = new Uint32Array(256);
    const [lights, blown]: [number[], number[]] = [[], []];
    let [first, last, pictures, dark] = [0, 0, 0, 0];
    return {
      push(luma, time) {
        counts.fill(0);
        for (let y = 0; y < analysis.height; y += stride)
          for (let x = 0; x < analysis.width; x += stride) counts[luma[y * analysis.width + x]]++;
        let [all, seen, burnt, sum] = [0, 0, 0, 0];
        counts.forEach((count, code) => {
          const share = Math.min(1, Math.max(0, (code - from) / range));
          all += count;
          if (share > black) seen += count;
          if (share >= white) burnt += count;
          sum += count * share ** gamma;
        });
        if (pictures++ === 0) first = time;
        last = time;
        if (seen <= speck * all) dark++;
        blown.push(burnt / all);
        if (lights.length < most) lights.push(sum / all);
      },
      finish() {
        const rate = last > first ? (pictures - 1) / (last - first) : 0;
        const small = {
          dark: pictures ? dark / pictures : 0,
          blown: median(blown),
          flicker: flickerOf(lights, rate),
        };
        return { small, curve: null };
      },
    };
  },
};
