import * as z from 'zod/mini';

const id = z.string().check(z.minLength(1));

/** Fields that every stored record has. */
export const base = { id, project: id, created: z.number(), changed: z.number(), alive: z.boolean() };

/** A place in the song in beats. Nothing is further away than some hours of music: what is, comes from a broken file. */
export const beatPosition = z.number().check(z.minimum(-100_000), z.maximum(100_000));

/** Seconds of a take or of a song. No file runs for longer than some days: what does, comes from a broken one. */
export const secondsOf = z.number().check(z.minimum(-1e6), z.maximum(1e6));

/** A point in shares of a frame; it may lie outside, but not without end. */
export const framePoint = z.tuple([
  z.number().check(z.minimum(-100), z.maximum(100)),
  z.number().check(z.minimum(-100), z.maximum(100)),
]);

/** Letters of a name that are taken from the keyboard. */
export const longestName = 120;

/** What something is called. A file may say more than is taken from the keyboard, but no name is as long as a book. */
export const nameText = z.string().check(z.maxLength(2000, 'a name of at most 2000 letters'));
/** Words that somebody wrote down. */
export const longText = z.string().check(z.maxLength(20_000, 'at most 20 000 letters'));
