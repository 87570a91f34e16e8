import type { Words } from '../finding/words';

/** What rendered films are found to be, in words. */
export const flashWords = {
  'film.flashes': ({ measured, allowed, facts }) =>
    `${facts.name} flashes up to ${measured} times in a second over a quarter of the picture (at most ${allowed}, WCAG 2.2). That can bring on seizures: slow it down, soften it, or make it smaller, and warn whoever watches.`,
} satisfies Words;

export type FlashCode = keyof typeof flashWords;
