import { alignSound, type Alignment } from '@/core/footage/align-sound';
import { soundOf, songSoundOf, songRate } from './measure-song';
import type { Progress } from './measure-take';

/**
 * Where a take's sound lies on the song that was playing while it was filmed.
 * @param take its file
 * @param wav the song at 48 kHz
 * @throws CoreError `media.no-sound` where the take has none that can be decoded
 */
export async function findPlayback(take: Blob, wav: Blob, onProgress: Progress): Promise<Alignment> {
  const other = await soundOf(take, (share) => onProgress(0.6 * share));
  return alignSound(await songSoundOf(wav), other, songRate);
}
