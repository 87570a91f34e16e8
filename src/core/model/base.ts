import * as z from 'zod';

const id = z.string().min(1);

/** Fields that every stored record has. */
export const base = { id, project: id, created: z.number(), changed: z.number(), alive: z.boolean() };
