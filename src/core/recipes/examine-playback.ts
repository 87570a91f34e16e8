import { allowed } from '../finding/allowed';
import type { Finding } from '../finding/finding';
import type { Words } from '../finding/words';
import { onReference, type Alignment } from '../footage/align-sound';
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
} satisfies Words;
type PlaybackCode = keyof typeof playbackTroubles;
export const playbackWords: Words = playbackTroubles;

/**
 * Whether takes that were filmed to the song run with it where they show, for kinds whose takes run on as filmed.
 * @param heard where the song is heard in the take that fills a slot; null where it is not, or is not known yet
 */
export function examinePlayback(
  moment: Moment,
  recipe: Recipe,
  { grid }: Ruler,
  { takes }: Material,
  heard: (slot: string) => Alignment | null,
): Finding<PlaybackCode>[] {
  if (!recipe.runsOn) return [];
  const slots = recipe.slotsIn?.(moment) ?? recipe.slots;
  return slots.flatMap(({ key, title }): Finding<PlaybackCode>[] => {
    const chosen = takes[key];
    const playback = key === plateSlot ? null : heard(key);
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
    if (Math.abs(ahead) <= within) return [{ ...found, code: 'playback.on', severity: 'fine' }];
    const should = at - ahead;
    if (should < 0 || should > chosen.measure.times.last)
      return [{ ...found, code: 'playback.out', severity: 'watch' }];
    const fix = { command: 'layOnSong' as const, args: { moment: moment.id, slot: key, at: should } };
    return [{ ...found, code: 'playback.off', severity: 'watch', fix }];
  });
}
