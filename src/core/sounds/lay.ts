import { limit } from './limit';
import type { SoundPoint, WholeSound } from './sound';
import { soundRate } from './synthesis';

/** One channel of sound that begins at a second of the song, which may lie before its first. */
export type LaidSound = { samples: Float32Array; from: number };

/** Half of the stretch over which loudness is judged, samples: 5 ms. */
const around = Math.round(soundRate * 0.005);

/** The sample in whose surroundings a sound is loudest, by its power; the first of several. */
export function loudestAt(samples: Float32Array): number {
  let [power, most, best] = [0, 0, 0];
  for (let at = -around; at < samples.length; at++) {
    const [enters, leaves] = [samples[at + around] ?? 0, samples[at - around - 1] ?? 0];
    power += enters * enters - leaves * leaves;
    // What rounding leaves over is no loudness of its own.
    if (at >= 0 && power > most * (1 + 1e-6)) [most, best] = [power, at];
  }
  return best;
}

/** A sound as it is to be heard: the other way round, swelling, dying away, at its level. */
function shaped(source: Float32Array, { backwards, swell, fade, level }: WholeSound): Float32Array {
  const gain = 10 ** (level / 20);
  const [rise, fall] = [swell, fade].map((ms) => Math.max(1, (ms / 1000) * soundRate));
  const last = source.length - 1;
  return source.map((_, at) => {
    const envelope = Math.min(1, swell > 0 ? at / rise : 1, fade > 0 ? (last - at) / fall : 1);
    return source[backwards ? last - at : at] * gain * envelope;
  });
}

const pointOf: Record<SoundPoint, (samples: Float32Array) => number> = {
  start: () => 0,
  loudest: loudestAt,
  end: (samples) => samples.length,
};

/** Lays a sound so that its start, its loudest point or its end is at a second of the song, or leads it. */
export function laySound(source: Float32Array, settings: WholeSound, seconds: number): LaidSound {
  const samples = shaped(source, settings);
  return {
    samples,
    from: seconds - settings.lead / 1000 - pointOf[settings.by](samples) / soundRate,
  };
}

/**
 * Adds sounds to a stretch of the song, and keeps what comes of it within full scale.
 * @param channels of the song at {@link soundRate}, changed in place
 * @param from second of the song that they begin at
 */
export function mixSounds(
  channels: readonly Float32Array[],
  from: number,
  sounds: readonly LaidSound[],
): void {
  const length = channels[0].length;
  let heard = false;
  for (const { samples, from: begins } of sounds) {
    const first = Math.round((begins - from) * soundRate);
    for (let at = Math.max(0, -first); at < samples.length && first + at < length; at++) {
      for (const channel of channels) channel[first + at] += samples[at];
      heard = true;
    }
  }
  if (heard) limit(channels, soundRate);
}
