import type { Telling, Words } from '../../finding/words';
import { lengthen } from '../length';
import { revealSlots } from './slots';

const takeOf = ({ slot }: Telling['facts']): string =>
  revealSlots.find(({ key }) => key === slot)?.title ?? '';

/** What {@link examineReveal} found, in words. */
export const revealWords = {
  'reveal.missing': ({ facts }) => `There is no ${takeOf(facts)} yet. Choose one in the sentence.`,
  'reveal.never-lands': () =>
    'The change would begin outside the moment. Move its beat between beginning and end.',
  'reveal.lands': ({ facts, measured, beat }) =>
    `The change begins on ${beat('position')}, frame ${facts.frame}, ${measured} from the beat.`,
  'reveal.cramped': ({ measured, allowed }) =>
    `Only ${measured} of the change's ${allowed} lie inside the moment: it would end half changed. Make the change shorter, or the moment longer.`,
  'reveal.short': ({ facts, measured, allowed }) =>
    `The ${takeOf(facts)} has ${measured} from there; the moment needs ${allowed}. ${lengthen({ facts })}`,
  'reveal.same-take': () =>
    'Both sides of the edge show one take at one time: nothing changes. Choose another take, or let it begin elsewhere.',
} satisfies Words;

export type RevealCode = keyof typeof revealWords;
