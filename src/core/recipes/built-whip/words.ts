import type { Telling } from '../../finding/words';
import { whipSlots } from './slots';
import type { Words } from '../../finding/words';
import { lengthen } from '../length';

const placeOf = ({ slot }: Telling['facts']): string =>
  whipSlots.find(({ key }) => key === slot)?.title ?? '';

/** What {@link examineWhip} found, in words. */
export const whipWords = {
  'whip.missing': ({ facts }) => `No take is chosen for the ${placeOf(facts)}. Choose one in the sentence.`,
  'whip.never-cuts': () => 'The whip would cut outside the moment. Move its beat between beginning and end.',
  'whip.cuts': ({ facts, measured, beat }) =>
    `The whip cuts on ${beat('position')}, frame ${facts.frame}, ${measured} from the beat.`,
  'whip.cramped': ({ measured, allowed }) =>
    `Only ${measured} of the whip's ${allowed} lie inside the moment: it would begin or end in full flight. Make it shorter, or the moment longer.`,
  'whip.short': ({ facts, measured, allowed }) =>
    `The take of the ${placeOf(facts)} has ${measured} from there; the moment needs ${allowed}. ${lengthen({ facts })}`,
  'whip.soft': ({ facts, measured, allowed }) =>
    `The ${placeOf(facts)} is enlarged ${measured} at the cut (allowed ${allowed}), which costs sharpness. Mirrored edges cost none.`,
} satisfies Words;

export type WhipCode = keyof typeof whipWords;
