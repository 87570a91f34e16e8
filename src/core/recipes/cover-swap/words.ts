import type { Words } from '../../finding/words';
import { followWords } from '../follow-point';
import { lengthen } from '../length';

/** What {@link examineCover} found, in words. */
export const coverWords = {
  'cover.missing': ({ facts }) =>
    facts.slot === 'swap'
      ? 'There is no take of the swap yet. Choose one in the sentence.'
      : 'There is nothing to cover with. Choose a take in which the object is untouched, or film a clean plate.',
  'cover.never-lands': () =>
    'The patch would go outside the moment. Move its beat between beginning and end.',
  'cover.lands': ({ facts, measured, beat }) =>
    `The patch begins to go on ${beat('position')}, frame ${facts.frame}, ${measured} from the beat.`,
  'cover.cramped': ({ measured, allowed }) =>
    `Only ${measured} of the ${allowed} in which the patch goes lie inside the moment. Let it go faster, or make the moment longer.`,
  'cover.short': ({ facts, measured, allowed }) =>
    `The take of the swap has ${measured} from there; the moment needs ${allowed}. ${lengthen({ facts })}`,
  'cover.somebody': ({ measured, facts }) =>
    `In frames ${facts.first} to ${facts.last} somebody or something moves under up to ${measured} of the patch, and vanishes there. Draw it smaller round the object, or let it go before frame ${facts.first}.`,
  'cover.not-drawn': () =>
    'The patch lies where it lay at first. Draw it round the object in the view “Patch”.',
  'cover.one-tap': followWords['one-tap'],
  'cover.follows': (telling) =>
    `${followWords.follows(telling)} The patch goes along with it. What else moves under a patch that does is not looked for: look at it once.`,
  'cover.lost': followWords.lost,
} satisfies Words;

export type CoverCode = keyof typeof coverWords;
