import { allowed } from '../finding/allowed';
import type { Words } from '../finding/words';

/** What takes are found to be, in words. */
export const takeWords = {
  'take.moved': ({ take, facts, measured, allowed, at }) =>
    `${take} moved ${measured} ${facts.direction}${facts.during ? at : ' against the plate'} (allowed ${allowed}). The join will show.`,
  'take.steadied': ({ take, facts, measured, at }) =>
    `${take} moved ${measured} ${facts.direction}${at}; it is steadied, and the plate fills the edge it leaves.`,
  'take.still': ({ take, measured, allowed }) =>
    `${take} stands still: at most ${measured} (allowed ${allowed}).`,
  'take.light': ({ take, value, measured, number }) =>
    `${take} is ${measured} ${value < 0 ? 'darker' : 'brighter'} than the plate, ΔE ${number('before')} (allowed ΔE ${allowed.difference}). The join will show. Matching brings it to ΔE ${number('after')}.`,
  'take.matched': ({ take, value, measured, number }) =>
    `${take} was ${measured} ${value < 0 ? 'darker' : 'brighter'}; it is matched to the plate, ΔE ${number('before')} to ${number('after')}.`,
  'take.same-light': ({ take, measured, number }) =>
    `${take} has the plate's light: ${measured} apart, ΔE ${number('before')}.`,
  'take.colour-unknown': ({ take }) =>
    `Too little of ${take} is still for its light to be compared. Judge it by eye.`,
  'take.other-view': ({ take, measured, allowed }) =>
    `${take} does not show the plate's view: ${measured} of the picture fits (at least ${allowed} needed). Choose a plate from this setup, or take it out of the pair.`,
  'take.size': ({ take, facts }) =>
    `${take} is ${facts.size}, the plate ${facts.plate}. They cannot be laid on one another. Film or convert both in one size.`,
  'take.turned': ({ take, facts }) =>
    `${take} is turned by ${facts.degrees}° in its file; it is shown upright.`,
  'take.varying-rate': ({ take, number }) =>
    `${take} was recorded at a varying rate, ${number('least')} to ${number('most')} pictures a second. Pictures are placed by their real times; set the camera to a fixed rate next time.`,
  'take.cut-off': ({ take, at }) =>
    `${take} breaks off${at}. What can be read is used; copy the file from the camera again for the rest.`,
  'setup.no-plate': ({ setup, where }) =>
    `${where.setup ? `${setup} has` : 'There is'} no clean plate. Takes cannot be compared: bring one in, or say which clip it is.`,
} satisfies Words;

export type TakeCode = keyof typeof takeWords;
