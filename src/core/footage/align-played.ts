import { allowed } from '../finding/allowed';
import { Resampler } from '../song/resample';
import { alignKept } from './align-kept';
import { alignSound, forRough, roughly, type Alignment } from './align-sound';

/** how many times as fast songs are played on sets, for footage that will be slowed by as much. Common practice, no published source */
const usualSpeeds = [2, 2.5, 1.25, 1.5, 3];
/** pieces of a recording that are looked for at each speed */
const mostPieces = 2;

/** A sound as a player has it that runs so many times as fast, its pitch rising with it. */
function played(sound: Float32Array, sampleRate: number, speed: number): Float32Array {
  const player = new Resampler(sampleRate * speed, sampleRate);
  const parts = [sound, new Float32Array(player.latency)].map((part) => player.push(part));
  const out = new Float32Array(parts[0].length + parts[1].length);
  out.set(parts[0]);
  out.set(parts[1], parts[0].length);
  return out;
}

/** Where it lies where the pitch rose with the speed; null where it is heard at none of some speeds. */
function alignRisen(
  reference: Float32Array,
  other: Float32Array,
  sampleRate: number,
  speeds: readonly number[],
): Alignment | null {
  const song = forRough(reference, sampleRate);
  const take = forRough(other, sampleRate);
  let best: { speed: number; height: number } | null = null;
  for (const speed of speeds) {
    const found = roughly({ data: played(song.data, song.rate, speed), rate: song.rate }, take, mostPieces);
    if (found && (!best || found.height > best.height)) best = { speed, height: found.height };
  }
  if (!best) return null;
  const { speed } = best;
  const { offset, drift, confidence } = alignSound(played(reference, sampleRate, speed), other, sampleRate);
  return { offset: speed * offset, drift, confidence, speed };
}

/**
 * Where a take's sound lies on the song that was playing while it was filmed, also where that was played faster or
 * slower, with its pitch or without.
 * @param reference the song, mono, -1..1
 * @param other the take's sound, at the same rate
 * @param planned speeds that are looked for first
 * @returns as {@link alignSound}, with the speed where it is another one
 * @throws CoreError `sample-rate` where the rate makes no sense
 */
export function alignPlayed(
  reference: Float32Array,
  other: Float32Array,
  sampleRate: number,
  planned: readonly number[] = [],
): Alignment {
  const asIs = alignSound(reference, other, sampleRate);
  if (asIs.confidence >= allowed.heard || !other.some((value) => value !== 0)) return asIs;
  const speeds = [...new Set([...planned, ...usualSpeeds].filter((one) => one !== 1))];
  const risen = alignRisen(reference, other, sampleRate, speeds);
  if (risen && risen.confidence >= allowed.heard) return risen;
  // What a codec or a room has left nothing of but its loudness is found by that at its own speed too.
  const kept = alignKept(reference, other, sampleRate, [...new Set([...planned, 1, ...speeds])]);
  return [risen, kept].reduce<Alignment>(
    (best, one) => (one && one.confidence > best.confidence ? one : best),
    asIs,
  );
}
