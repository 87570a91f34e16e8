import type { Words } from '../../finding/words';

/** What the order of filming is found to be, in words. */
export const orderWords = {
  'plan.light': ({ setup, facts, measured, allowed }) =>
    `${setup}: the sun's light holds for ${measured} from ${facts.from}, filming takes ${allowed}. Start when it holds longer (${facts.best}), or film the plate beside every take.`,
  'plan.sun-down': ({ setup, facts }) => `${setup}: the sun is down at ${facts.from}. ${facts.advice}.`,
  'order.conflict': ({ facts }) =>
    `These cannot all hold: ${facts.rules}. ${facts.locked ? 'Free a place that is locked by hand' : 'Film one of the moments in another setup'}.`,
  'order.late': ({ shot }) =>
    `${shot} cannot be filmed within its daylight. Start earlier, or film it on another day.`,
  'order.over': ({ shot, measured, allowed }) =>
    `With setting up, ${shot} takes ${measured}, and a day has ${allowed}. Drop takes, or give the day more hours.`,
  'order.days': ({ facts }) => `Filming takes more than one day: ${facts.days}.`,
  'order.parted': ({ facts }) =>
    `${facts.name} is filmed on ${facts.days}, and a camera never comes back to just where it stood. Give the day more hours, or film its plates again on each day.`,
  'order.fits': ({ facts, measured }) =>
    `${facts.shots} shots in ${measured}${facts.spare ? `, ${facts.spare} to spare` : ''}: ${facts.setups} and ${facts.clothes}${facts.proved ? '; no order that keeps the rules has fewer' : ''}.`,
} satisfies Words;

export type OrderCode = keyof typeof orderWords;
