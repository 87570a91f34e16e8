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
  'reveal.partial': ({ measured }) =>
    `The drawn edge has come over ${measured} of the frame when it stops; beyond it what was before stays in the picture. Draw it over the whole frame on its last key, where that is not meant.`,
  'reveal.short': ({ facts, measured, allowed }) =>
    `The ${takeOf(facts)} has ${measured} from there; the moment needs ${allowed}. ${lengthen({ facts })}`,
  'reveal.jumps': ({ measured }) =>
    `Once it has changed the take goes back to where the song is: ${measured} of it are seen twice or never. A cut to a closer picture hides that.`,
  'reveal.soft': ({ measured, allowed }) =>
    `Closer, what was filmed is enlarged to ${measured}; beyond ${allowed} it looks soft. Come less close, or film larger than the film.`,
  'reveal.early': ({ measured, allowed }) =>
    `In the take before the change it falls ${measured} after its first picture; ${allowed} have to show before it. Begin the moment later, or choose another take.`,
  'reveal.follows': ({ facts, measured }) =>
    `What falls was measured: it begins ${measured} into its take and crosses the frame in ${facts.frames} frames, and the edge with it.`,
  'reveal.fall-differs': ({ facts, measured }) =>
    `What falls begins ${measured} into its take and crosses the frame in ${facts.frames} frames (the edge: ${facts.set}): the edge does not lie behind it. Let it follow.`,
  'reveal.no-fall': () =>
    'Nothing is seen to fall through the whole picture in the take of what falls, so where its edge lies was not measured. Choose another take, or draw the edge.',
  'reveal.not-free': ({ measured, allowed }) =>
    `What falls does not fall freely: it is up to ${measured} beside the edge (allowed ${allowed}). Draw the edge, where that is seen.`,
  'reveal.not-drawn': () =>
    'The edge is to go with what lies under it, but nobody drew it yet. Step to a frame, look at the edge, and draw it there.',
  'reveal.carried': ({ measured }) => `The edge goes with what lies under it, found in ${measured} pictures.`,
  'reveal.lost': ({ measured }) =>
    `What the edge goes with is lost ${measured} into its take: something hides it, or it changed. Draw the edge on a frame after that; in between it goes straight.`,
  'reveal.same-take': () =>
    'Both sides of the edge show one take at one time: nothing changes. Choose another take, or let it begin elsewhere.',
} satisfies Words;

export type RevealCode = keyof typeof revealWords;
