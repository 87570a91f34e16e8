import { vi, expect } from 'vitest';
import { takeParts, type TakePart } from '@/core/footage/take-parts';
import { inPlace, packPlacements } from '@/core/geometry/placement';
import { songParts, type SongPart } from '@/core/song/parts';
import { regularGrid } from '@/core/time/grid';
import { compared, starts, sung, taken } from '@/store/__tests__/film';

/** Looks again and again until something holds; a busy machine takes its time. */
export const until = (holds: () => unknown) => vi.waitFor(holds, { timeout: 60_000 });

export type Calls = Record<string, (...args: never[]) => unknown>;
export const full = () => Object.assign(new Error('No space'), { name: 'QuotaExceededError' });
export const found = {
  rings: [],
  shares: [0.5, 0.5],
  losses: [],
  borders: [null, null],
  shadows: [null, null],
  visible: [],
  moves: [],
  contact: null,
  crossing: [],
  found: [true, true],
};
/** A camera that stood. */
const track = packPlacements(Array.from(starts, () => inPlace));
export const sung97 = {
  beats: regularGrid(97, 0.31, 60).beats,
  beatsPerBar: 4,
  downbeats: [0.31],
  bpm: 97,
  confidence: 0.8,
  hits: [],
};

/** What decoding a take for some of its parts answers. */
export function decoded(parts: readonly TakePart[] = takeParts) {
  const { motion, light, ...pictures } = taken();
  const kept = {
    ...pictures,
    starts,
    stills: { pictures: [], views: [] },
    poster: new Blob(['poster']),
    proxy: new Blob(['proxy']),
    complete: true,
  };
  const found = {
    camera: { small: null, curve: track },
    motion: { small: motion, curve: null },
    light: { small: light, curve: null },
    white: { small: { time: null }, curve: null },
  };
  return {
    pictures: parts.includes('pictures') ? kept : null,
    found: Object.fromEntries(Object.entries(found).filter(([name]) => parts.includes(name as TakePart))),
  };
}

/** What measuring a song for some of its parts answers. */
export function heard(parts: readonly SongPart[] = songParts, early = 0) {
  const { levels, sections, ...sound } = sung();
  return {
    decoded: parts.includes('sound') ? { sound, wav: new Blob(['wav']), early } : null,
    ...(parts.includes('beats') ? { beats: sung97 } : {}),
    ...(parts.includes('sections') ? { sections: { levels, sections } } : {}),
  };
}

/** What the workers answer where a test says nothing else. */
export const answers: Calls = {
  measureTake: async (_: unknown, __: unknown, parts: TakePart[]) => decoded(parts),
  measureSong: async (_: unknown, parts: SongPart[]) => heard(parts),
  findBeatsAgain: async () => sung97,
  compareTake: async () => compared(),
  solveTask: async () => ({ method: 'seam-7', seam: found }),
  renderShot: async () => ({ blob: new Blob(['film']), flashes: 0 }),
};

/** A call that a test lets go when it wants to. */
export function held<Result>() {
  let release: (result: Result) => void = () => undefined;
  let fail: (error: unknown) => void = () => undefined;
  const promise = new Promise<Result>((resolve, reject) => ([release, fail] = [resolve, reject]));
  const called = vi.fn(() => promise);
  return { called, release, fail, begun: () => until(() => expect(called).toHaveBeenCalled()) };
}
