import { allowed } from '../finding/allowed';
import type { Finding } from '../finding/finding';
import type { Words } from '../finding/words';
import { onReference, type Alignment } from '../footage/align-sound';
import type { Lips } from '../footage/lips';
import type { Moment } from '../model/records';
import { fillOf, plateSlot } from '../model/slots';
import { timeOfBeat } from '../time/grid';
import type { Material } from './material';
import type { Recipe, Ruler } from './recipe';

const songIn = (take: string, facts: Record<string, unknown>): string =>
  facts.by === 'ear'
    ? `The song that is heard in ${take}`
    : `The song that was played after the slate’s ${facts.by === 'beep' ? 'beep' : 'white picture'} in ${take}`;

const playbackTroubles = {
  'playback.on': ({ take, facts, measured }) =>
    ({
      ear: `The song is heard in ${take}, and its ${facts.slot} runs with it: ${measured} apart.`,
      beep: `The song is not heard in ${take}, but the beep of its slate is: by that its ${facts.slot} runs with the song, ${measured} apart.`,
      white: `The song is not heard in ${take}, but the white picture of its slate is seen: by that its ${facts.slot} runs with the song to within a picture.`,
    })[facts.by as 'ear' | 'beep' | 'white'],
  'playback.off': ({ take, facts, measured, value, allowed }) =>
    `${songIn(take, facts)} runs ${measured} ${value > 0 ? 'ahead of' : 'behind'} the film’s where the ${facts.slot} begins (allowed ${allowed}): what was done on a beat comes ${value > 0 ? 'early' : 'late'}, and lips are off. Lay it on the song, or leave it where another passage is meant.`,
  'playback.faster': ({ take, facts, number, measured }) =>
    `${songIn(take, facts)} was played at ${measured} of its speed, so that what is done to it is as much ${Number(facts.shows) < 100 ? 'faster' : 'slower'}. As the ${facts.slot} it runs as it was filmed, off the song: show it at ${number('shows', 0)} % in a speed ramp, or choose a take that was filmed to the song as it is.`,
  'playback.out': ({ take, facts, measured, value }) =>
    `${songIn(take, facts)} runs ${measured} ${value > 0 ? 'ahead of' : 'behind'} the film’s where the ${facts.slot} begins, and the take does not reach the passage that the moment shows. Choose another take, or move the moment.`,
  'playback.lips': ({ take, value, measured }) =>
    `Lips in ${take} go with what is sung: ${measured} ${value < 0 ? 'before' : 'after'} it, which most viewers accept.`,
  'playback.lips-on': ({ take, facts, measured, value }) =>
    `${take} is laid by the lips in its pictures: the sound that was recorded with it is ${measured} ${value > 0 ? 'early' : 'late'} in the ${facts.slot}, and is not what the film plays.`,
  'playback.lips-off': ({ take, facts, measured, value, allowed }) =>
    `Lips in ${take} come ${measured} ${value < 0 ? 'before' : 'after'} what is sung, as far as a tenth of a second tells (allowed ${allowed}): the camera kept pictures and sound apart, or the singer was ${value < 0 ? 'early' : 'late'}. ${facts.reaches ? `On the song by its lips, the ${facts.slot} fits; or choose a passage in which it does as it is.` : 'The take does not reach far enough to be laid by its lips. Choose another one, or move the moment.'}`,
} satisfies Words;
type PlaybackCode = keyof typeof playbackTroubles;
const unknown: FilmedToSong = { heard: null, lips: null };
export const playbackWords: Words = playbackTroubles;

/** What is known of a take that was filmed to the song; null where it is not heard, no lips are seen, or not yet. */
export type FilmedToSong = { heard: Alignment | null; lips: Lips | null };

/**
 * Whether takes that were filmed to the song run with it where they show, for kinds whose takes run on as filmed: by
 * what is heard in them, and by lips where these are not where the sound is.
 * @param known of the take that fills a slot
 */
export function examinePlayback(
  moment: Moment,
  recipe: Recipe,
  { grid }: Ruler,
  { takes }: Material,
  known: (slot: string) => FilmedToSong,
): Finding<PlaybackCode>[] {
  if (!recipe.runsOn) return [];
  const slots = recipe.slotsIn?.(moment) ?? recipe.slots;
  return slots.flatMap(({ key, title }): Finding<PlaybackCode>[] => {
    const chosen = takes[key];
    const { heard: playback, lips } = key === plateSlot ? unknown : known(key);
    if (!chosen?.measure || !playback || playback.confidence < allowed.heard) return [];
    const { at } = fillOf(moment, key);
    const shown = timeOfBeat(grid, recipe.showsFrom(moment, key));
    const { speed = 1, by = 'ear' } = playback;
    if (speed !== 1)
      return [
        {
          code: 'playback.faster',
          severity: 'watch',
          where: { moment: moment.id, take: chosen.take.id },
          measured: { value: speed, unit: 'speed' },
          facts: { slot: title, shows: 100 / speed, by },
        },
      ];
    const ahead = onReference(playback, at) - shown;
    // A picture says when the slate flashed to within half of it to each side.
    const within = by === 'white' ? Math.max(allowed.playback, chosen.measure.times.usual) : allowed.playback;
    const found = {
      where: { moment: moment.id, take: chosen.take.id },
      measured: { value: ahead, unit: 'seconds' as const },
      allowed: { value: within, unit: 'seconds' as const },
      facts: { slot: title, by },
    };
    const { last } = chosen.measure.times;
    const laidAt = (should: number) =>
      should < 0 || should > last
        ? null
        : { command: 'layOnSong' as const, args: { moment: moment.id, slot: key, at: should } };
    const late = lips && lips.sure >= allowed.heard ? lips.late : null;
    if (late !== null && (late > allowed.lipsLate || late < -allowed.lipsEarly)) {
      if (Math.abs(ahead - late) <= within) return [{ ...found, code: 'playback.lips-on', severity: 'fine' }];
      const fix = laidAt(at - ahead + late);
      return [
        {
          ...found,
          code: 'playback.lips-off',
          severity: 'watch',
          measured: { value: late, unit: 'seconds' },
          allowed: { value: late < 0 ? allowed.lipsEarly : allowed.lipsLate, unit: 'seconds' },
          facts: { ...found.facts, reaches: fix ? 1 : 0 },
          ...(fix ? { fix } : {}),
        },
      ];
    }
    if (Math.abs(ahead) <= within) {
      const together: Finding<PlaybackCode>[] =
        late === null
          ? []
          : [
              {
                code: 'playback.lips',
                severity: 'fine',
                where: found.where,
                measured: { value: late, unit: 'seconds' },
              },
            ];
      return [{ ...found, code: 'playback.on', severity: 'fine' }, ...together];
    }
    const fix = laidAt(at - ahead);
    return [
      fix
        ? { ...found, code: 'playback.off', severity: 'watch', fix }
        : { ...found, code: 'playback.out', severity: 'watch' },
    ];
  });
}
