import type { Words } from '../finding/words';

/** What a repeated move is found to be, in words. */
export const passWords = {
  'pass.first': ({ facts, measured }) =>
    `This is the first pass: ${measured}, ${facts.pictures} pictures. Every later one is held against it.`,
  'pass.short': () => 'The pass was too short to be held against. Start it again and let it run to its end.',
  'pass.other': ({ measured }) =>
    `Only ${measured} of this pass shows the first one’s view. Start from the same mark, the same way round.`,
  'pass.late': ({ value, measured, allowed }) =>
    `This pass runs ${measured} ${value > 0 ? 'behind' : 'ahead of'} the first one (allowed ${allowed}). It can be moved on the timeline; start on the count next time.`,
  'pass.uneven': ({ measured, allowed }) =>
    `This pass speeds up or slows down by up to ${measured} against the first one (allowed ${allowed}). Repeat it, slower.`,
  'pass.drift': ({ measured, allowed, at }) =>
    `This pass lies ${measured} beside the first one${at} (allowed ${allowed}). Check the rail and the floor there, and repeat it.`,
  'pass.fits': ({ measured, allowed }) =>
    `This pass follows the first one: ${measured} beside it at most (allowed ${allowed}), corrected picture by picture.`,
} satisfies Words;

export type PassCode = keyof typeof passWords;
