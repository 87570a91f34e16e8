import type { Words } from '../../finding/words';
import { hardToFind } from '../cutouts';

const jump = (slot: unknown) => (slot === 'up' ? 'jump' : 'landing');

/** What {@link examineLeap} found, in words. */
export const leapWords = {
  'leap.missing': ({ facts }) =>
    facts.slot === 'plate'
      ? facts.way === 'raised'
        ? 'There is no clean plate for the raised jump to be laid over, so it is as filmed. Film the empty set.'
        : 'There is no clean plate: black stands behind the streak, and the person is found without one, which takes longer. Film the empty set.'
      : `There is no take of the ${jump(facts.slot)} yet. Choose one in the sentence.`,
  'leap.never-lands': () =>
    'The performer would be gone, or back, outside the moment. Put take-off and landing one after the other between beginning and end.',
  'leap.lands': ({ facts, measured }) =>
    facts.way === 'raised'
      ? `The feet meet the floor on the beat (frame ${facts.frames}), ${measured} from it.`
      : facts.way === 'both'
        ? `Take-off and landing are on their beats (frames ${facts.frames}), ${measured} from them at the most.`
        : `The ${facts.way} is on its beat (frame ${facts.frames}), ${measured} from it.`,
  'leap.crowded': ({ measured }) =>
    `There are ${measured} too few for the streaks and the landing before the floor. Move the beats apart, or shorten the push-off.`,
  'leap.no-flight': ({ facts }) =>
    `Nobody was found clear of the floor in the take of the ${jump(facts.slot)}. Look at it as filmed, and mark the picture.`,
  'leap.uncut': ({ facts, measured }) =>
    facts.by === 'person'
      ? `Nobody was found in that picture of the ${jump(facts.slot)}, so there is no streak. Mark another one, or film a clean plate: ${hardToFind}.`
      : `Nobody stands out from the clean plate in that picture of the ${jump(facts.slot)} (${measured} of it), so there is no streak. Mark another one, or choose another plate.`,
  'leap.faint': ({ facts, measured, allowed }) =>
    `Along ${measured} of the outline in the ${jump(facts.slot)} the performer hardly differs from the set (${allowed} at most). Look at the streak closely.`,
  'leap.half': () =>
    'The take shows only a part of the jump: it has to begin and end on the floor. Look for it from earlier, or choose another take.',
  'leap.not-raised': ({ measured }) =>
    `In ${measured} of the flight nobody stands out from the clean plate, so nothing is raised. Choose another take or plate; dark clothes before a light wall do best.`,
  'leap.too-high': ({ measured }) =>
    `Raised so high, the jump goes beyond the upper edge of the frame by ${measured} of its height. Raise it less, or film with more room above.`,
  'leap.beyond': ({ facts, measured, allowed }) =>
    `The picture marked in the take of the ${jump(facts.slot)} is at ${measured}; the take ends at ${allowed}. Mark another one.`,
  'leap.short': ({ facts, measured, allowed }) =>
    facts.slot === 'up'
      ? `Before the push-off the take of the jump has ${measured} of the ${allowed} that show: its first picture stands until then. Begin the moment later.`
      : `After the floor the take of the landing has ${measured} of the ${allowed} that show: its last picture stands from there. End the moment sooner.`,
} satisfies Words;

export type LeapCode = keyof typeof leapWords;
