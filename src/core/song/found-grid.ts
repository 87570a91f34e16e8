import type { BeatGrid } from '../time/grid';
import type { BeatTrack } from './track';

type Found = Pick<BeatTrack, 'beats' | 'downbeats' | 'beatsPerBar'>;

/** Indices of found beats that begin a bar and are followed by another first beat one whole bar on. */
function settledFirsts({ beats, downbeats, beatsPerBar }: Found): number[] {
  const firsts = downbeats
    .map((time) => beats.findIndex((beat) => Math.abs(beat - time) < 1e-3))
    .filter((index) => index >= 0);
  const called = new Set(firsts);
  return firsts.filter((index) => called.has(index + beatsPerBar));
}

/**
 * The grid that a search found. Bars of another length between two passages of whole bars stay what they are: changes
 * of metre. A first beat that no whole bar follows is a stumble of the search, and is passed over.
 * @param found beats and first beats in seconds
 */
export function foundGrid(found: Found): BeatGrid {
  const { beats, beatsPerBar } = found;
  const firsts = settledFirsts(found);
  const firstDownbeat = (firsts[0] ?? 0) % beatsPerBar;
  const changes: NonNullable<BeatGrid['changes']> = [];
  let last = firstDownbeat;
  for (const first of firsts) {
    const short = (first - last) % beatsPerBar;
    if (short !== 0) {
      const begins = first - short - firstDownbeat;
      if (changes.at(-1)?.at === begins) changes.pop();
      changes.push({ at: begins, beatsPerBar: short }, { at: first - firstDownbeat, beatsPerBar });
    }
    last = first;
  }
  const grid: BeatGrid = { beats, beatsPerBar, firstDownbeat };
  return changes.length > 0 ? { ...grid, changes } : grid;
}
