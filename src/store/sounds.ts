import type { Finding } from '@/core/finding/finding';
import type { Moment } from '@/core/model/records';
import { soundsIn } from '@/core/recipes/sounds';
import { remembered, rememberedWith } from '@/core/remember';
import { songPartKey } from '@/core/song/parts';
import { loudestAt } from '@/core/sounds/lay';
import { examineSounds, type SoundLength } from '@/core/recipes/examine-sounds';
import { soundNames, type SoundName, type WholeSound } from '@/core/sounds/sound';
import { soundRate, synthesise } from '@/core/sounds/synthesis';
import { timeOfFrame } from '@/core/time/rate';
import { buildable, framesOf } from './material';
import type { Snapshot } from './snapshot';

/** A sound that is to be laid: one of the bench's own, or a file, at a second of the song. */
export type PlannedSound = {
  sound: SoundName | { media: string };
  settings: WholeSound;
  seconds: number;
};

const isOfBench = (sound: string): sound is SoundName => soundNames.some((name) => name === sound);

/** What a sound is called. */
export const soundName = ({ sounds }: Snapshot, sound: string): string => {
  if (isOfBench(sound)) return sound[0].toUpperCase() + sound.slice(1);
  return sounds.find(({ id }) => id === sound)?.name ?? 'A sound that is gone';
};

/** The sounds of a moment that there are, on their seconds. */
export function soundsOf(snapshot: Snapshot, moment: Moment): PlannedSound[] {
  const able = buildable(snapshot, moment);
  if (!able || !moment.sounds) return [];
  const { rate } = able.ruler.project;
  return soundsIn(moment, able.recipe, able.ruler).flatMap(({ frame, settings }): PlannedSound[] => {
    if (settings.sound === null) return [];
    const seconds = timeOfFrame(rate, frame);
    if (isOfBench(settings.sound)) return [{ sound: settings.sound, settings, seconds }];
    const own = snapshot.sounds.find(({ id }) => id === settings.sound);
    return own ? [{ sound: { media: own.media }, settings, seconds }] : [];
  });
}

/** The sounds of all moments. */
export const soundsOfFilm = remembered((snapshot: Snapshot): PlannedSound[] =>
  snapshot.built.flatMap((moment) => soundsOf(snapshot, moment)),
);

/** Seconds that there is sound for without a song: as long as its ruler. */
export const silentSeconds = ({ song }: Snapshot): number => song?.grid?.beats.at(-1) ?? 60;

/** How long a sound is; null where it is gone, undefined while it is not decoded. */
function lengthOf({ sounds, measures }: Snapshot, sound: string): SoundLength | null | undefined {
  if (isOfBench(sound)) {
    const samples = synthesise(sound);
    return { seconds: samples.length / soundRate, loudest: loudestAt(samples) / soundRate };
  }
  const own = sounds.find(({ id }) => id === sound);
  if (!own) return null;
  const value = measures.get(songPartKey('sound', own.media))?.value;
  if (value?.method !== 'sound') return undefined;
  const { peaks, perSecond, duration } = value.sound;
  return {
    seconds: duration,
    loudest: peaks.indexOf(peaks.reduce((most, peak) => Math.max(most, peak), 0)) / perSecond,
  };
}

const examined = rememberedWith<Moment, Finding[]>();

/** What is wrong with the sounds of a moment. */
export function soundFindings(snapshot: Snapshot, moment: Moment): Finding[] {
  const able = buildable(snapshot, moment);
  const frames = framesOf(snapshot, moment);
  if (!able || !frames || !moment.sounds) return [];
  const { recipe, ruler } = able;
  const secondsOf = (frame: number) => timeOfFrame(ruler.project.rate, frame);
  return examined(moment, [ruler, snapshot.sounds, snapshot.measures], () =>
    examineSounds(
      moment.id,
      soundsIn(moment, recipe, ruler),
      secondsOf,
      { from: secondsOf(frames.start), to: secondsOf(frames.end) },
      (sound) => lengthOf(snapshot, sound),
    ),
  );
}
