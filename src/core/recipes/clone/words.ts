import type { Words } from '../../finding/say';
import { plateSlot } from '../../model/slots';
import { beatLabel } from '../../time/grid';

/** What {@link examineClone} found, in words. */
export const cloneWords: Words = ({ code, facts = {} }, names, { measured, allowed }) => {
  const side = String(facts.slot ?? '');
  const words: Record<string, () => string> = {
    'clone.missing': () =>
      facts.slot === plateSlot
        ? 'No clean plate is chosen. Edges that steadying uncovers would be black.'
        : `No take is chosen for the ${side}. Choose one in the sentence.`,
    'clone.same-take': () => 'Left and right are the same take. Choose two takes.',
    'clone.never-lands': () =>
      'The copy would appear after the end. Move its beat before the end, or the end later.',
    'clone.lands': () =>
      `The copy appears on ${names.grid ? beatLabel(names.grid, Number(facts.position)) : 'its beat'}, frame ${facts.frame}, ${measured} from the beat.`,
    'clone.short': () =>
      `The ${side} take has ${measured} from there; the moment needs ${allowed}. Start it earlier, or end sooner.`,
    'clone.no-performer': () => `Nobody was found in the ${side} take. Tap the performer to keep.`,
    'clone.crossing': () =>
      `The two stand in each other's place in ${measured} (${facts.first} to ${facts.last}). Choose another pair, or drag the join by hand there.`,
    'clone.join-shows': () =>
      `The join shows ${measured} at its worst, frame ${facts.frame} (allowed ${allowed}). Soften it, steady and match the takes, or drag it elsewhere.`,
    'clone.join-hidden': () =>
      `The join does not show: ${measured} at most (allowed ${allowed})${facts.hand ? ', drawn by hand' : ''}.`,
  };
  return words[code]?.();
};
