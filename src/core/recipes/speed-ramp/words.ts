import type { Words } from '../../finding/words';
import { followWords } from '../follow-point';
import { lengthen } from '../length';

/** What {@link examineRamp} found, in words. */
export const rampWords = {
  'ramp.missing': () => 'No take is chosen for the pass. Choose one in the sentence.',
  'ramp.never-lands': () =>
    'The poses do not follow one another on the song. Put each on a later beat than the one before it.',
  'ramp.lands': ({ facts, measured }) =>
    `${facts.poses === 1 ? 'The pose lands' : `All ${facts.poses} poses land`} on the beat, ${measured} from it at the most.`,
  'ramp.unmarked': ({ facts }) =>
    `Pose ${facts.poses} is not marked in the take, so it shows whatever was filmed then. Step to it in “As filmed” and mark it.`,
  'ramp.out-of-reach': ({ facts, measured }) =>
    `Pose ${facts.point} misses its instant by ${measured}: the take cannot run that fast, or lies the other way round. Allow a faster speed between, or move its beat.`,
  'ramp.point-speed': ({ facts, measured, allowed }) =>
    `Pose ${facts.point} runs at ${measured} where ${allowed} is wanted: the beats lie too close. Allow a faster speed between, or move its beat.`,
  'ramp.short': ({ measured, allowed, facts }) =>
    `The take has ${measured} from there; the moment needs ${allowed}. ${lengthen({ facts })}`,
  'ramp.repeats': ({ measured, facts }) =>
    `${measured} show the same picture as the frame before: the take has too few. Filmed at ${facts.rate} a second it would have had enough.`,
  'ramp.blends': ({ measured, facts }) =>
    `${measured} are blended of two pictures: what moves far between them shows double. Filmed at ${facts.rate} a second it would have had enough.`,
  'ramp.makes': ({ measured, facts }) =>
    `${measured} are made of two pictures along what moves between them. Filmed at ${facts.rate} a second it would have had enough.`,
  'ramp.tears': ({ measured, facts }) =>
    `${measured} tear (${facts.first} to ${facts.last}; up to ${Math.round(100 * Number(facts.share))} % of one): there the two pictures do not show the same thing, or it moves too far. Blend them, or show one twice.`,
  'ramp.soft': ({ measured, allowed }) =>
    `Zoomed in or following, what was filmed is enlarged to ${measured}; beyond ${allowed} it looks soft. Zoom less, follow what moves less, or film larger than the film.`,
  'ramp.one-tap': followWords['one-tap'],
  'ramp.follows': followWords.follows,
  'ramp.lost': followWords.lost,
} satisfies Words;

export type RampWord = keyof typeof rampWords;
