import { alignPlayed } from '@/core/footage/align-played';
import type { Alignment } from '@/core/footage/align-sound';
import { soundOf, songSoundOf, songRate } from './measure-song';
import type { Progress } from './measure-take';

/**
 * Where a take's sound lies on the song that was playing while it was filmed.
 * @param take its file
 * @param wav the song at 48 kHz
 * @param speeds at which it was planned to be played
 * @throws CoreError `media.no-sound` where the take has none that can be decoded
 */
export async function findPlayback(
  take: Blob,
  wav: Blob,
  speeds: readonly number[],
  onProgress: Progress,
): Promise<Alignment> {
  const other = await soundOf(take, (share) => onProgress(0.6 * share));
  return alignPlayed(await songSoundOf(wav), other, songRate, speeds);
}
