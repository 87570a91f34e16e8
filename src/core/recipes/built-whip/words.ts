import type { Words } from '../../finding/say';
import { beatLabel } from '../../time/grid';
import { whipSlots } from './slots';

/** What {@link examineWhip} found, in words. */
export const whipWords: Words = ({ code, facts = {} }, names, { measured, allowed }) => {
  const place = whipSlots.find(({ key }) => key === facts.slot)?.title ?? '';
  const words: Record<string, () => string> = {
    'whip.missing': () => `No take is chosen for the ${place}. Choose one in the sentence.`,
    'whip.never-cuts': () =>
      'The whip would cut outside the moment. Move its beat between beginning and end.',
    'whip.cuts': () =>
      `The whip cuts on ${names.grid ? beatLabel(names.grid, Number(facts.position)) : 'its beat'}, frame ${facts.frame}, ${measured} from the beat.`,
    'whip.cramped': () =>
      `Only ${measured} of the whip's ${allowed} lie inside the moment: it would begin or end in full flight. Make it shorter, or the moment longer.`,
    'whip.short': () =>
      `The take of the ${place} has ${measured} from there; the moment needs ${allowed}. Start it earlier, or end sooner.`,
    'whip.soft': () =>
      `The ${place} is enlarged ${measured} at the cut (allowed ${allowed}), which costs sharpness. Mirrored edges cost none.`,
  };
  return words[code]?.();
};
