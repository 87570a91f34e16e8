import * as z from 'zod/mini';
import { framePoint, secondsOf } from './base';

/** Shares of a picture's width that a hidden head may reach to each side. */
export const veilReaches = { least: 0.005, most: 0.5 };

/** Somebody who did not agree to be shown; each field is written by itself. */
export const hiddenSchema = z.object({
  /** on their head, in pictures of the take: seconds of it, points in shares of its picture; none once they show again */
  taps: z.optional(z.array(z.object({ time: secondsOf, at: framePoint }))),
  /** how far the head reaches to each side where it was tapped first, as a share of the picture's width */
  reach: z.optional(z.number().check(z.minimum(veilReaches.least), z.maximum(veilReaches.most))),
  covers: z.optional(z.enum(['face', 'body'])),
});
export type Hidden = Required<z.infer<typeof hiddenSchema>>;

/** What hides a head of which only a point is known. */
const usual: Hidden = { taps: [], reach: 0.04, covers: 'face' };

/** Everybody who is hidden in a take, by ids of their own. */
export const hiddenIn = ({ veils = {} }: { veils?: Record<string, z.infer<typeof hiddenSchema>> }) =>
  Object.entries(veils).flatMap(([id, said]) => {
    const hidden: Hidden = { ...usual, ...said };
    return hidden.taps.length > 0 ? [{ id, hidden }] : [];
  });

/** How far a head reaches of which only a point is known. */
export const usualReach = usual.reach;
