import type { Finding } from '../finding/finding';
import type { Words } from '../finding/words';
import type { WholeSound } from '../sounds/sound';
import type { SoundEvent } from './sounds';

/** How long a sound is and where it is loudest, seconds. */
export type SoundLength = { seconds: number; loudest: number };

/** The seconds before and after its instant over which a sound is heard. */
export function heardAround({ by, lead, backwards }: WholeSound, { seconds, loudest }: SoundLength) {
  const top = backwards ? seconds - loudest : loudest;
  const before = { start: 0, loudest: top, end: seconds }[by] + lead / 1000;
  return { before, after: seconds - before };
}

/** Seconds that may be missing of a sound without a word. Common practice, no published source. */
const unheard = 0.05;

const soundTroubles = {
  'sound.gone': ({ facts }) =>
    `The sound at “${facts.title}” is no longer in the project. Choose another one, or bring it in again.`,
  'sound.cut': ({ facts, measured }) =>
    facts.side === 'before'
      ? `The sound at “${facts.title}” begins ${measured} before the shot does, so that much of it is missing in the rendered file. Let the moment begin earlier, or lay it by its start.`
      : `The sound at “${facts.title}” goes on for ${measured} after the shot, so that much of it is missing in the rendered file. Let it fade, or end the moment later.`,
} satisfies Words;
type SoundCode = keyof typeof soundTroubles;
export const soundWords: Words = soundTroubles;

/**
 * What is wrong with the sounds of a moment.
 * @param secondsOf the second of a frame
 * @param shot its first second and the one after its last
 * @param lengthOf of a sound; null where it is gone, undefined while it is not decoded
 */
export function examineSounds(
  moment: string,
  events: readonly SoundEvent[],
  secondsOf: (frame: number) => number,
  shot: { from: number; to: number },
  lengthOf: (sound: string) => SoundLength | null | undefined,
): Finding<SoundCode>[] {
  return events.flatMap(({ title, frame, settings }): Finding<SoundCode>[] => {
    if (settings.sound === null) return [];
    const where = { moment };
    const length = lengthOf(settings.sound);
    if (length === null) return [{ code: 'sound.gone', severity: 'fix', where, facts: { title } }];
    if (!length) return [];
    const at = secondsOf(frame);
    const { before, after } = heardAround(settings, length);
    const missing = { before: shot.from - (at - before), after: at + after - shot.to };
    return (['before', 'after'] as const)
      .filter((side) => missing[side] > unheard)
      .map((side) => ({
        code: 'sound.cut',
        severity: 'watch',
        where,
        measured: { value: missing[side], unit: 'seconds' },
        facts: { title, side },
      }));
  });
}
