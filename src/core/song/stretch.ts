import { refuse } from '../error';

/**
 * Sound at another speed with its pitch kept: overlapping pieces, each taken where it continues the one before best.
 * A time t of the input lies at t / speed of the output, to within 40 ms from 40 % to 250 %: a
 * piece is 40 ms long and plays at its own speed.
 * @param channels planar samples, all of one length
 * @param speed 0.1..8; 0.5 is half as fast
 * @throws CoreError `speed` outside that
 * @see Verhelst & Roelands 1993 (waveform similarity overlap-add)
 */
export function stretch(
  channels: readonly Float32Array[],
  sampleRate: number,
  speed: number,
): Float32Array[] {
  if (!(speed >= 0.1 && speed <= 8)) refuse('speed', 'Give a speed between 10 % and 800 %.');
  const length = channels[0].length;
  const out = channels.map(() => new Float32Array(Math.round(length / speed)));
  if (speed === 1) return channels.map((data) => data.slice());
  // Fast in one go would leave whole strikes out between pieces.
  if (speed > 1.6) {
    const half = Math.sqrt(speed);
    return stretch(stretch(channels, sampleRate, half), sampleRate, half).map((data) =>
      fitted(data, out[0].length),
    );
  }
  const hop = Math.round(sampleRate * 0.02);
  const reach = Math.round(sampleRate * 0.012 * Math.min(1, Math.max(0.5, speed)));
  const window = Float32Array.from(
    { length: 2 * hop },
    (_, at) => 0.5 - 0.5 * Math.cos((Math.PI * at) / hop),
  );
  const mono = new Float32Array(length);
  for (const data of channels) for (let at = 0; at < length; at++) mono[at] += data[at];
  let natural = 0;
  for (let piece = 0; piece * hop < out[0].length; piece++) {
    const wanted = Math.round(piece * hop * speed);
    const from = piece === 0 ? 0 : bestStart(mono, natural, wanted, reach, hop);
    const base = piece * hop - hop;
    for (let channel = 0; channel < channels.length; channel++) {
      const [source, into] = [channels[channel], out[channel]];
      for (let at = 0; at < 2 * hop; at++) {
        const [read, write] = [from + at - hop, base + at];
        if (read >= 0 && read < length && write >= 0 && write < into.length)
          into[write] += window[at] * source[read];
      }
    }
    natural = from + hop;
  }
  return out;
}

/** The same sound with a few samples less, or silence at its end. */
function fitted(data: Float32Array, length: number): Float32Array {
  const out = new Float32Array(length);
  out.set(data.subarray(0, length));
  return out;
}

/** Where near `wanted` the sound is most like what would follow at `natural`; every fourth sample is compared. */
function bestStart(mono: Float32Array, natural: number, wanted: number, reach: number, hop: number): number {
  const value = (start: number) => {
    let [dot, power] = [0, 1e-9];
    for (let at = -hop; at < hop; at += 4) {
      const sample = mono[start + at] ?? 0;
      dot += sample * (mono[natural + at] ?? 0);
      power += sample * sample;
    }
    return dot / Math.sqrt(power);
  };
  let best = wanted;
  let most = value(wanted);
  const scan = (from: number, to: number, step: number) => {
    for (let start = from; start <= to; start += step) {
      const found = value(start);
      if (found > most) [most, best] = [found, start];
    }
  };
  scan(wanted - reach, wanted + reach, 8);
  scan(best - 7, best + 7, 1);
  return best;
}
