import { plateSlot } from '../../model/slots';
import type { Words } from '../../finding/words';

/** What {@link examineClone} found, in words. */
export const cloneWords = {
  'clone.missing': ({ facts }) =>
    facts.slot === plateSlot
      ? 'No clean plate is chosen. Edges that steadying uncovers would be black.'
      : `No take is chosen for the ${facts.slot}. Choose one in the sentence.`,
  'clone.same-take': () => 'Left and right are the same take. Choose two takes.',
  'clone.never-lands': () =>
    'The copy would appear after the end. Move its beat before the end, or the end later.',
  'clone.lands': ({ facts, measured, beat }) =>
    `The copy appears on ${beat('position')}, frame ${facts.frame}, ${measured} from the beat.`,
  'clone.short': ({ facts, measured, allowed }) =>
    `The ${facts.slot} take has ${measured} from there; the moment needs ${allowed}. Start it earlier, or end sooner.`,
  'clone.no-performer': ({ facts }) =>
    `Nobody was found in the ${facts.slot} take. Tap the performer to keep.`,
  'clone.crossing': ({ facts, measured }) =>
    `The two stand in each other's place in ${measured} (${facts.first} to ${facts.last}). Choose another pair, or drag the join by hand there.`,
  'clone.join-shows': ({ facts, measured, allowed }) =>
    `The join shows ${measured} at its worst, frame ${facts.frame} (allowed ${allowed}). Soften it, steady and match the takes, or drag it elsewhere.`,
  'clone.join-hidden': ({ facts, measured, allowed }) =>
    `The join does not show: ${measured} at most (allowed ${allowed})${facts.hand ? ', drawn by hand' : ''}.`,
} satisfies Words;

export type CloneCode = keyof typeof cloneWords;
