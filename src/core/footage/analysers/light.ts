import { median } from '../../statistics';
import type { Analyser } from './analyser';

/** How the light of a take can be read. */
export type Light = {
  /** share of its pictures in which nothing can be seen, 0..1 */
  dark: number;
  /** share of the picture that is burnt out to white, in the middle of all its pictures, 0..1 */
  blown: number;
  /** share of the light by which it swings in one steady beat, all of it or band by band, lightest less darkest; 0 where it does not */
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
/** bands of rows, in which lamps may light one after the other, and parts of each from left to right */
const [bandsDown, partsAcross] = [16, 6];
/** cosine of the angle by which parts of a band may be apart in their beat. By trial */
const inPhase = 0.7;

/** The values less what changes more slowly than over some neighbours. */
function withoutSlow(values: readonly number[], reach: number): number[] {
  return values.map((value, at) => {
    const near = values.slice(Math.max(0, at - reach), at + reach + 1);
    return value - near.reduce((sum, one) => sum + one, 0) / near.length;
  });
}

/** A light that swings steadily: how often in all of its pictures, where in its swing it begins, and by how much of itself. */
type Beat = { turn: number; phase: number; swing: number };

/** The one beat in which a light swings; null where it does not, or not in one. @see Goertzel 1958, written out */
function beatOf(lights: readonly number[], rate: number): Beat | null {
  const mean = lights.reduce((sum, one) => sum + one, 0) / lights.length;
  if (lights.length < fewest || !(rate > 2 * slowest) || mean <= 0) return null;
  const fast = withoutSlow(lights, Math.round(rate / slowest / 2));
  const { length } = fast;
  const all = fast.reduce((sum, one) => sum + one * one, 0);
  const strongest = { turn: 0, phase: 0, power: 0 };
  for (let turn = Math.ceil((slowest / rate) * length); turn <= length / 2; turn++) {
    const [across, up] = [Math.cos((2 * Math.PI * turn) / length), Math.sin((2 * Math.PI * turn) / length)];
    let [real, imaginary, cosine, sine] = [0, 0, 1, 0];
    for (let at = 0; at < length; at++) {
      real += fast[at] * cosine;
      imaginary += fast[at] * sine;
      const next = cosine * across - sine * up;
      sine = sine * across + cosine * up;
      cosine = next;
    }
    const power = (real ** 2 + imaginary ** 2) * (turn === length / 2 ? 0.5 : 1);
    if (power > strongest.power)
      Object.assign(strongest, { turn, phase: Math.atan2(imaginary, real), power });
  }
  const { turn, phase, power } = strongest;
  // A beat between two of the turns falls on both; half of it is seen at least.
  if (all === 0 || (2 * power) / length / all < oneBeat) return null;
  return { turn, phase, swing: (4 * Math.sqrt(power)) / length / mean };
}

/** True where two parts of a picture swing at once. */
const together = (one: Beat, other: Beat): boolean =>
  Math.abs(one.turn - other.turn) <= 1 && Math.cos(one.phase - other.phase) > inPhase;

/**
 * By how much of itself the light swings in bands that run through the picture, as a shutter that opens line by line
 * sees lamps on the mains: at once from left to right, which nobody who moves does.
 * @param bands for each band of rows the lights of its parts from left to right
 */
function rollingFlicker(bands: readonly (readonly number[][])[], rate: number): number {
  return median(
    bands.map((parts) => {
      const beats = parts.flatMap((lights) => beatOf(lights, rate) ?? []);
      const groups = beats.map((one) => beats.filter((other) => together(one, other)));
      const largest = groups.reduce<Beat[]>((most, one) => (one.length > most.length ? one : most), []);
      return largest.length > parts.length / 2 ? median(largest.map(({ swing }) => swing)) : 0;
    }),
  );
}

/** How dark and how light a take is, and whether its light flickers, as a whole or in bands. */
export const light: Analyser<Light> = {
  begin({ analysis, fullRange }) {
    const [from, range] = fullRange ? [0, 255] : [16, 219];
    const counts = new Uint32Array(256);
    const shares = Float64Array.from(counts, (_, code) => Math.min(1, Math.max(0, (code - from) / range)));
    const lit = shares.map((share) => share ** gamma);
    const [lights, blown]: [number[], number[]] = [[], []];
    const bands = Array.from({ length: bandsDown }, () =>
      Array.from({ length: partsAcross }, (): number[] => []),
    );
    const sums = new Float64Array(bandsDown * partsAcross);
    let [first, last, pictures, dark] = [0, 0, 0, 0];
    return {
      push(luma, time) {
        counts.fill(0);
        sums.fill(0);
        for (let y = 0; y < analysis.height; y += stride) {
          const band = Math.floor((y * bandsDown) / analysis.height) * partsAcross;
          for (let x = 0; x < analysis.width; x += stride) {
            const code = luma[y * analysis.width + x];
            counts[code]++;
            sums[band + Math.floor((x * partsAcross) / analysis.width)] += lit[code];
          }
        }
        let [all, seen, burnt, sum] = [0, 0, 0, 0];
        counts.forEach((count, code) => {
          all += count;
          if (shares[code] > black) seen += count;
          if (shares[code] >= white) burnt += count;
          sum += count * lit[code];
        });
        if (pictures++ === 0) first = time;
        last = time;
        if (seen <= speck * all) dark++;
        blown.push(burnt / all);
        if (lights.length >= most) return;
        lights.push(sum / all);
        bands.forEach((parts, band) =>
          parts.forEach((values, part) => values.push(sums[band * partsAcross + part])),
        );
      },
      finish() {
        const rate = last > first ? (pictures - 1) / (last - first) : 0;
        const small = {
          dark: pictures ? dark / pictures : 0,
          blown: median(blown),
          flicker: Math.max(beatOf(lights, rate)?.swing ?? 0, rollingFlicker(bands, rate)),
        };
        return { small, curve: null };
      },
    };
  },
};
