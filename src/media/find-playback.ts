import { allowed } from '@/core/finding/allowed';
import { alignPlayed } from '@/core/footage/align-played';
import type { Alignment } from '@/core/footage/align-sound';
import { findBeep } from '@/core/footage/beep';
import { soundOf, songSoundOf, songRate } from './measure-song';
import type { Progress } from './measure-take';

/** What of the playback on the set is heard in a take. */
export type HeardOnSet = {
  playback: Alignment;
  /** the second at which the slate beeped; null where it did not, or the song itself is heard */
  beep: number | null;
};

/**
 * Where a take's sound lies on the song that was playing while it was filmed, and where the slate beeped.
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
): Promise<HeardOnSet> {
  const other = await soundOf(take, (share) => onProgress(0.6 * share));
  const playback = alignPlayed(await songSoundOf(wav), other, songRate, speeds);
  // What is heard says more than a beep.
  const beep = playback.confidence >= allowed.heard ? null : findBeep(other, songRate);
  return { playback, beep };
}
