import type { SongSections } from '../model/measures';
import { levelsOf } from './energy';
import type { SongPart } from './parts';
import { findSections } from './sections';
import { trackBeats, type BeatTrack } from './track';

/** What was found in a song's sound, as far as it was looked for. */
export type SongFound = { beats?: BeatTrack; sections?: SongSections };

/**
 * Looks for some parts in a song's sound.
 * @param samples one channel, −1..1
 * @param known beats that were found before; where there are none sections look for them too
 * @param report told shares 0..1
 */
export function analyseSong(
  samples: Float32Array,
  sampleRate: number,
  parts: readonly SongPart[],
  known: BeatTrack | null,
  report: (share: number) => void = () => {},
): SongFound {
  const found: SongFound = {};
  const listen = () => trackBeats(samples, sampleRate, { report: (share) => report(0.9 * share) });
  if (parts.includes('beats')) found.beats = listen();
  if (parts.includes('sections')) {
    const { downbeats, hits } = found.beats ?? known ?? listen();
    const levels = levelsOf(samples, sampleRate);
    found.sections = { levels, sections: findSections(samples, sampleRate, downbeats, levels, hits) };
  }
  report(1);
  return found;
}
