import type { Filming, Footing, Same, ShotNeed } from './film';

/** Everything that keeps two takes of one locked camera joinable. */
export const lockedSame: Same[] = ['camera', 'lens', 'exposure', 'light'];

/** Seconds to record for some seconds of film at a speed, with a handle on both sides. */
const toRecord = (seconds: number, speed: number, handle: number): number =>
  Math.ceil(seconds * speed + 2 * handle);

/**
 * The plate at the start and at the end of a setup: one pair serves all its moments.
 * @param seconds that the longest of them lasts
 */
export function plates(seconds: number): ShotNeed[] {
  const plate = {
    what: 'plate' as const,
    seconds: Math.max(10, Math.ceil(seconds)),
    speed: 1,
    takes: 1,
    same: lockedSame,
  };
  return [
    {
      ...plate,
      key: 'first-plate',
      title: 'Clean plate',
      note: 'Nobody in frame, everything in its place, nothing moves.',
      share: 'first plate',
    },
    {
      ...plate,
      key: 'last-plate',
      title: 'Clean plate again',
      note: 'The same picture once more: it measures how far camera and light have drifted.',
      share: 'last plate',
    },
  ];
}

/** A shot with somebody or something acting. */
export const action = (
  key: string,
  title: string,
  note: string,
  length: { seconds: number; speed?: number; footing: Footing },
  more: Partial<ShotNeed> = {},
): ShotNeed => ({
  key,
  what: 'action',
  title,
  note,
  seconds: toRecord(length.seconds, length.speed ?? 1, length.footing.handle),
  speed: length.speed ?? 1,
  takes: 3,
  same: lockedSame,
  ...more,
});

/** A sound to record on the set, near the action. */
export const wildSound = (key: string, what: string): ShotNeed => ({
  key: `sound-${key}`,
  what: 'sound',
  title: `Wild sound: ${what}`,
  note: 'Microphone close, nobody speaks, three times with silence around it.',
  seconds: 20,
  speed: 1,
  takes: 1,
  same: [],
});

/** A moment that asks for nothing beyond its shots. */
export const plain = (shots: ShotNeed[], more: Partial<Filming> = {}): Filming => ({
  shots,
  untouched: [],
  joins: [],
  kit: [],
  props: [],
  cautions: [],
  risk: 1,
  mess: 0,
  draws: [],
  saving: '',
  energy: 0.4,
  travel: 0,
  ...more,
  mask: Math.min(1, more.mask ?? 0),
  mend: Math.min(1, more.mend ?? 0),
});

/** What every locked setup needs left alone. */
export const lockedUntouched = [
  'camera and tripod',
  'zoom and focus',
  'exposure and white balance',
  'lamps and curtains',
];
export const lockedKit = ['tripod', 'weight for the tripod', 'tape for marks'];

/** A moment in which one take lies over the plate. */
export const overPlate = (
  take: { key: string; title: string; note: string; least?: number },
  footing: Footing,
  more: Partial<Filming>,
): Filming => {
  const seconds = Math.max(footing.seconds, take.least ?? 0);
  const { key, title, note } = take;
  return plain(
    [
      ...plates(footing.seconds + 2 * footing.handle),
      action(key, title, note, { seconds, footing }, { after: ['first-plate'] }),
    ],
    { untouched: lockedUntouched, kit: lockedKit, risk: 1, ...more },
  );
};
