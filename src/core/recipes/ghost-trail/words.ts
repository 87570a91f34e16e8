import type { Words } from '../../finding/words';
import { hardToFind } from '../cutouts';
import { lengthen } from '../length';

/** What can be done where nobody was cut out, by what was to do it. */
const uncut: Record<string, string> = {
  plate: 'Choose another clean plate, or have the person found.',
  person: `Film a clean plate with a locked camera, or come closer: ${hardToFind}.`,
  both: `Cut them out by the clean plate alone, or come closer: ${hardToFind}.`,
  backdrop: 'There has to be a backdrop of one colour up to the frame’s rim: have the person found.',
  'backdrop-person': `Cut them out by the backdrop alone, or come closer: ${hardToFind}.`,
};

/** What {@link examineGhost} found, in words. */
export const ghostWords = {
  'ghost.missing': () => 'There is no take of the movement yet. Choose one in the sentence.',
  'ghost.never-lands': () =>
    'The copies have no time to leave the performer and to come back. Put the beat on which they run into one at least four frames after the beginning, and before the end.',
  'ghost.lands': ({ facts, measured }) =>
    `The copies run into one on the beat (frame ${facts.frame}), ${measured} from it.`,
  'ghost.crowded': ({ measured, allowed }) =>
    `The last copy would be ${measured} late; before the beat there is room for ${allowed}, so the last ones lie on one another. Take fewer, or let them be closer together.`,
  'ghost.uncut': ({ facts, measured }) =>
    `In ${measured} of the pictures nobody was cut out, so copies are missing there. ${uncut[facts.by] ?? uncut.person}`,
  'ghost.elsewhere': ({ measured }) =>
    `The clean plate differs from ${measured} of the picture, as where the camera moves or the plate is of another place. Have the person found.`,
  'ghost.faint': ({ measured, allowed }) =>
    `Along ${measured} of the outline the performer hardly differs from what is behind (${allowed} at most): look at the copies’ edges closely.`,
  'ghost.jumps': ({ facts, measured }) =>
    `${measured === '1' ? 'One cut-out is' : `${measured} cut-outs are`} suddenly larger or smaller than those round them, the first on frame ${facts.first}: look at it under Mend, and keep or drop by a stroke what is wrong.`,
  'ghost.sparse': ({ measured }) =>
    `The trail is so long that the performer was cut out of one picture in ${measured} alone: in those between the edges slip behind. Let it begin later, or end sooner.`,
  'ghost.hidden': ({ measured }) =>
    `While the last copy is late the performer gets ahead of it by ${measured} of their own width: next to nothing of the trail is to be seen. Let the copies be further apart, or choose a take that moves across the frame.`,
  'ghost.short': ({ facts, measured, allowed }) =>
    `The take of the movement has ${measured} of the ${allowed} that show. ${lengthen({ facts })}`,
} satisfies Words;

export type GhostCode = keyof typeof ghostWords;
