import * as z from 'zod/mini';

const id = z.string().check(z.minLength(1));

/** Fields that every stored record has. */
export const base = { id, project: id, created: z.number(), changed: z.number(), alive: z.boolean() };
