import type { Moment } from '../model/records';
import { wholeSound, type UsualSound, type WholeSound } from '../sounds/sound';
import type { Recipe, Ruler, Step } from './recipe';

/** An instant of a moment at which something may sound. */
export type SoundEvent = {
  /** of the instant */
  anchor: string;
  title: string;
  frame: number;
  usual: UsualSound | null;
  settings: WholeSound;
};

/** What sounds, or may sound, at the instants of a moment. */
export const soundsIn = (moment: Moment, recipe: Recipe, ruler: Ruler): SoundEvent[] =>
  recipe.anchors(moment, ruler).map(({ name, title, frame }) => {
    const usual = recipe.sounds(name, moment);
    return {
      anchor: name,
      title,
      frame,
      usual,
      settings: wholeSound(moment.sounds?.[name] ?? {}, usual),
    };
  });

const points = { start: 'its start', loudest: 'its loudest point', end: 'its end' };

/**
 * The sounds of a moment as a step of its sheet.
 * @param nameOf what a sound is called
 * @returns null where nothing sounds
 */
export function explainSounds(events: readonly SoundEvent[], nameOf: (sound: string) => string): Step | null {
  const heard = events.flatMap(({ frame, settings }) =>
    settings.sound === null ? [] : [{ frame, ...settings, sound: settings.sound }],
  );
  if (heard.length === 0) return null;
  const lines = heard.map(({ frame, sound, by, lead, level, swell, fade, backwards }) => {
    const ways = [
      backwards && 'played backwards',
      lead > 0 && `${lead} ms before it`,
      `at ${level} dB`,
      swell > 0 && `swelling over ${swell} ms`,
      fade > 0 && `dying away over ${fade} ms`,
    ].filter(Boolean);
    return `${nameOf(sound)}: ${points[by]} on frame ${frame}, ${ways.join(', ')}.`;
  });
  return {
    title: 'Lay the sounds',
    text: `They are handed over as one file that begins with the shot. ${lines.join(' ')}`,
    rows: heard.map(({ frame, sound, by }) => ({
      frame,
      layer: 'Sounds',
      what: `${nameOf(sound)}: ${points[by]}`,
      value: null,
      unit: '',
      then: 'stays',
    })),
  };
}
