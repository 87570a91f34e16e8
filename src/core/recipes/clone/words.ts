import { plateSlot } from '../../model/slots';
import type { Telling, Words } from '../../finding/words';
import { lengthen } from '../length';

/** Where and when somebody is lost: "at 63 % across, in 14 frames (212 to 219)". */
const place = ({ facts, measured }: Telling): string =>
  `at ${Math.round(100 * Number(facts.across))} % across, in ${measured} (${facts.first} to ${facts.last})`;

const percent = (share: string | number): string => `${Math.round(100 * Number(share))} %`;

const ways: Record<string, string> = {
  left: 'to the left of them',
  right: 'to the right of them',
  up: 'above them',
  down: 'below them',
};

/** "In the left take a hard shadow falls to the right of them, over up to 9 % of the picture." */
const shadow = ({ slot, edge, falls, covers }: Telling['facts']): string =>
  `In the ${slot} take a ${edge} shadow falls ${ways[falls] ?? 'on the set'}, over up to ${percent(covers)} of the picture.`;

/** What {@link examineClone} found, in words. */
export const cloneWords = {
  'clone.missing': ({ facts }) =>
    facts.slot === plateSlot
      ? 'No clean plate is chosen. Edges that steadying uncovers would be black.'
      : `No take is chosen for the ${facts.slot}. Choose one in the sentence.`,
  'clone.same-take': ({ facts }) =>
    `The ${facts.one} and the ${facts.other} are the same take. Choose another one for one of them.`,
  'clone.out-of-turn': ({ facts }) =>
    `The ${facts.slot} would appear before the first copy, or after the end. Move its beat between them.`,
  'clone.further-lands': ({ facts, measured, beat }) =>
    `The ${facts.slot} appears on ${beat('position')}, frame ${facts.frame}, ${measured} from the beat.`,
  'clone.handed': ({ facts, measured, beat }) =>
    `The object changes hands on ${beat('position')}, frame ${facts.frame}, ${measured} from the beat.`,
  'clone.handed-out': () =>
    'The object would change hands before the copy is there, or after the end. Move its beat between them.',
  'clone.same-words': ({ measured }) =>
    `The answer begins only ${measured} away from what is said in the same take: parts of it are seen twice. Let it begin later, where the answer is.`,
  'clone.never-lands': () =>
    'The copy would appear after the end. Move its beat before the end, or the end later.',
  'clone.lands': ({ facts, measured, beat }) =>
    `The copy appears on ${beat('position')}, frame ${facts.frame}, ${measured} from the beat.`,
  'clone.short': ({ facts, measured, allowed }) =>
    `The ${facts.slot} take has ${measured} from there; the moment needs ${allowed}. ${lengthen({ facts })}`,
  'clone.no-performer': ({ facts }) =>
    `Nobody was found in the ${facts.slot} take. Tap the performer to keep.`,
  'clone.one-sided': ({ facts, measured }) =>
    `The ${facts.slot} take hardly shows at all (${measured} of the picture): the division leaves nothing of it. Tap whom to keep in it, or solve the join again.`,
  'clone.loses': (telling) =>
    `Whom you keep in the ${telling.facts.slot} take does not show: ${place(telling)} the other take lies over them. Choose another pair, or move the join.`,
  'clone.cuts': (telling) =>
    `The join cuts whom you keep in the ${telling.facts.slot} take, ${place(telling)}: up to ${Math.round(100 * Number(telling.facts.share))} % of them does not show. Choose another pair, start it elsewhere, or move the join.`,
  'clone.leaves-out': (telling) =>
    `Somebody else in the ${telling.facts.slot} take, ${place(telling)}, will not show: they stand on the other side of the join. Tap them to keep them.`,
  'clone.cuts-other': (telling) =>
    `The join cuts somebody in the ${telling.facts.slot} take whom nobody asked to keep, ${place(telling)}. Tap them to keep them whole, or move the join.`,
  'clone.border': ({ facts, measured, allowed }) =>
    `The ${facts.slot} take was moved back, and the plate fills the edge it left: that border shows, ${measured} (allowed ${allowed}). Match its light, or leave it as filmed.`,
  'clone.crossing': ({ facts, measured }) =>
    `The two stand in each other's place in ${measured} (${facts.first} to ${facts.last}). No join parts them there: choose another pair, or start one of them elsewhere.`,
  'clone.crossed': ({ facts, measured }) =>
    `The two stand in each other's place in ${measured} (${facts.first} to ${facts.last}). There both are cut out by the clean plate, with the ${facts.front} one in front.`,
  'clone.crossed-faint': ({ facts, measured }) =>
    `The two stand in each other's place in ${measured} (${facts.first} to ${facts.last}). There both are cut out by the clean plate, with the ${facts.front} one in front; along ${Math.round(100 * Number(facts.faint))} % of an edge they hardly differ from the set: look at it closely.`,
  'clone.shadow-kept': ({ facts }) => `${shadow(facts)} It shows whole.`,
  'clone.shadow-hidden': ({ facts }) => `${shadow(facts)} It does not show.`,
  'clone.shadow-cut': ({ facts, measured }) =>
    `${shadow(facts)} The join cuts it in ${measured} (${facts.first} to ${facts.last}): up to ${percent(facts.share)} of it does not show. Hide it, start one of them elsewhere, or let them stand further apart.`,
  'clone.shadow-left': ({ facts, measured }) =>
    `${shadow(facts)} A part of it shows still in ${measured} (${facts.first} to ${facts.last}), up to ${percent(facts.share)}: it lies too near whoever throws it, where they stand at some time, or where the other one's falls as well. Keep it, or choose another pair.`,
  'clone.contact': ({ facts }) =>
    `They touch on frame ${facts.frame}, at ${Math.round(100 * Number(facts.across))} % across and ${Math.round(100 * Number(facts.down))} % down.`,
  'clone.apart': ({ facts, measured, allowed }) =>
    `They come nearest on frame ${facts.frame}, at ${Math.round(100 * Number(facts.across))} % across and ${Math.round(100 * Number(facts.down))} % down, and are ${measured} apart there (allowed ${allowed}): the hand does not reach. Start one of them elsewhere, or choose another pair.`,
  'clone.moves': ({ facts, measured }) =>
    `The two come into each other's place, one after the other: the join moves for that alone, from frame ${facts.first} to ${facts.last}, with ${measured} outlines.`,
  'clone.join-shows': ({ facts, measured, allowed }) =>
    `The join shows ${measured} at its worst, frame ${facts.frame} (allowed ${allowed}). Soften it, steady and match the takes, or drag it elsewhere.`,
  'clone.join-hidden': ({ facts, measured, allowed }) =>
    `The join does not show: ${measured} at most (allowed ${allowed})${facts.hand ? ', drawn by hand' : ''}.`,
} satisfies Words;

export type CloneCode = keyof typeof cloneWords;
