import * as z from 'zod/mini';

const id = z.string().check(z.minLength(1));

/** Fields that every stored record has. */
export const base = { id, project: id, created: z.number(), changed: z.number(), alive: z.boolean() };

/** A place in the song in beats. Nothing is further away than some hours of music: what is, comes from a broken file. */
export const beatPosition = z.number().check(z.minimum(-100_000), z.maximum(100_000));
