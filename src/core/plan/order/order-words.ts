import type { Words } from '../../finding/words';

/** What the order of filming is found to be, in words. */
export const orderWords = {
  'plan.light': ({ setup, facts, measured, allowed }) =>
    `${setup}: the sun's light holds for ${measured} from ${facts.from}, filming takes ${allowed}. Start when it holds longer (${facts.best}), or film the plate beside every take.`,
  'plan.sun-down': ({ setup, facts }) =>
    `${setup}: the sun is down at ${facts.from}. Film earlier, or bring lamps.`,
  'order.conflict': ({ facts }) => `These cannot all hold: ${facts.rules}. Free one of them.`,
  'order.late': ({ shot }) =>
    `${shot} cannot be filmed within its daylight. Start earlier, or film it on another day.`,
  'order.over': ({ measured, allowed }) =>
    `Filming takes ${measured}, the day has ${allowed}. Drop takes, start earlier, or plan a second day.`,
  'order.fits': ({ facts, measured }) =>
    `${facts.shots} shots in ${measured}${facts.spare ? `, ${facts.spare} to spare` : ''}: ${facts.setups} and ${facts.clothes}${facts.proved ? '; no order that keeps the rules has fewer' : ''}.`,
} satisfies Words;

export type OrderCode = keyof typeof orderWords;
