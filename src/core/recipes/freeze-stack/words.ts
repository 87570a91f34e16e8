import type { Words } from '../../finding/words';
import { hardToFind } from '../cutouts';
import { lengthen } from '../length';

const straight = 'so it is cut along straight lines. Mark another picture, draw the outline,';
/** Why nobody was cut out, by what was to do it. */
const uncut: Record<string, string> = {
  plate: `Nobody stands out from the clean plate in the frozen picture, ${straight} or choose another plate.`,
  person: `Nobody was found in the frozen picture, ${straight} or film a clean plate: ${hardToFind}.`,
  both: `Nobody was found in the frozen picture, ${straight} or cut it out by the clean plate alone: ${hardToFind}.`,
  backdrop: `The frame's rim shows no backdrop of one colour, or nobody stands before it, ${straight} or have the person found.`,
  'backdrop-person': `Nobody was found in the frozen picture, ${straight} or cut it out by the backdrop alone: ${hardToFind}.`,
};

/** What {@link examineFreeze} found, in words. */
export const freezeWords = {
  'freeze.missing': ({ facts }) =>
    facts.slot === 'plate'
      ? 'There is no clean plate, so black stands behind the pieces. Film the empty set.'
      : 'There is no take of the pose yet. Choose one in the sentence.',
  'freeze.never-lands': () =>
    'The last piece would land outside the moment. Move its beat between beginning and end.',
  'freeze.lands': ({ facts, measured }) =>
    `All ${facts.pieces} pieces land on their beats, ${measured} from them at the most.`,
  'freeze.cramped': ({ facts, measured, allowed }) =>
    `Piece ${facts.piece} has ${measured} of the ${allowed} that it flies: it would appear in mid-flight. Let it fly shorter, or land later.`,
  'freeze.uncut': ({ facts, measured }) =>
    `${uncut[facts.by] ?? uncut.plate} (${measured} of the picture were found.)`,
  'freeze.faint': ({ measured, allowed }) =>
    `Along ${measured} of the outline the performer hardly differs from the set (${allowed} at most): the cut may be wrong there. Look at it closely, or film before another background.`,
  'freeze.short': ({ facts, measured, allowed }) =>
    `The take of the pose has ${measured} after its frozen picture; it has to run on for ${allowed}. ${lengthen({ facts })}`,
  'freeze.beyond': ({ measured, allowed }) =>
    `The frozen picture is asked for at ${measured} of the take, which ends at ${allowed}. Mark another one.`,
} satisfies Words;

export type FreezeCode = keyof typeof freezeWords;
