import type { Words } from '../finding/words';

/** What a song is found to be, in words. */
export const songWords = {
  'song.silent': () => 'This song holds only silence. Choose another file, or set the tempo by hand.',
  'song.no-beats': () => 'No beats were found. Set the tempo by hand, with the needle on a beat.',
  'song.unsure': ({ measured, facts }) =>
    facts.other
      ? `The beats are not sure (${measured}). It may also be ${facts.other}. Listen with the click to both.`
      : `The beats are not sure (${measured}). Listen, and set them right.`,
} satisfies Words;

export type SongCode = keyof typeof songWords;
