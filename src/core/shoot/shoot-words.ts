import type { Words } from '../finding/words';

/** What a set still lacks, in words. */
export const shootWords = {
  'strike.moment': ({ facts, measured }) =>
    `${facts.name} is given up: ${facts.lacks} was not filmed. That is ${measured} of the film (${facts.frames} frames)${Number(facts.takes) > 0 ? `, and ${facts.takes} take${facts.takes === 1 ? '' : 's'} for nothing` : ''}.`,
  'strike.maybe': ({ facts }) =>
    `${facts.shot} rests on a take that is only a maybe. Once more, while everything stands.`,
  'strike.plate': ({ facts }) =>
    `${facts.shot} is missing: every edge of ${facts.moments} moment${facts.moments === 1 ? '' : 's'} must be drawn by hand, frame by frame, and what steadying uncovers stays black.`,
  'strike.drift': ({ facts }) =>
    `${facts.shot} is missing: how far light and camera drifted cannot be measured.`,
  'strike.late-plate': ({ facts }) => `${facts.shot} is missing; the one at the end stands in for it.`,
  'strike.sound': ({ facts }) => `${facts.shot} was not recorded: it has to be made afterwards.`,
  'strike.pass': ({ facts }) => `${facts.shot} was not filmed: less to cut to between the moments.`,
  'strike.variation': ({ facts }) =>
    `${facts.shot} lacks ${facts.names}: if none of the others fits, there is nothing to fall back on.`,
  'strike.pickup': ({ facts }) => `${facts.shot} was not filmed again. ${facts.why}`,
  'shoot.missing': ({ setup, facts, measured }) =>
    `${setup}: ${measured} of ${facts.of} shots have no good take yet. Next: ${facts.next}.`,
  'shoot.ready': ({ setup }) => `${setup}: every shot has a good take. This set may be struck.`,
  'shoot.given': ({ setup, measured }) => `${setup} was struck without ${measured} of its shots.`,
  'shoot.short': ({ facts, measured, allowed }) =>
    `Take ${facts.take} of ${facts.shot} counts as good, but runs for ${measured}, and the shot needs ${allowed} with what is spare on both sides. Film it longer, or rate it maybe.`,
  'shoot.draft': ({ setup, value, measured }) =>
    `${measured} take${value === 1 ? '' : 's'} of ${setup} ${value === 1 ? 'is a draft' : 'are drafts'}: the browser could not hold exposure, focus or white balance. Use ${value === 1 ? 'it' : 'them'} to try the moment, and film with the camera’s own application.`,
} satisfies Words;

export type ShootCode = keyof typeof shootWords;
