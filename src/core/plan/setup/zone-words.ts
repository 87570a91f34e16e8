import type { Words } from '../../finding/words';

/** What zones are found to be, in words. */
export const zoneWords = {
  'zone.overlap': ({ setup, facts, measured, allowed }) =>
    `${setup}: the zones ${facts.one} and ${facts.other} cover each other by ${measured} (allowed ${allowed}). The copies would run into one another: move them apart.`,
  'zone.reach': ({ setup, facts, measured, allowed }) =>
    `${setup}: ${facts.one} reaches over ${facts.other} by ${measured} (allowed ${allowed}). A hand would be cut off there: move the join or the zone.`,
  'zone.moving': ({ setup, facts }) =>
    `${setup}: ${facts.one} moves under ${facts.other}. The join will show: tie it down, or join elsewhere.`,
  'zone.shadow': ({ setup, facts }) =>
    `${setup}: the shadow of ${facts.one} falls across ${facts.other}. It gives the trick away: move the lamp, or let the join follow the shadow.`,
  'zone.no-seam': ({ setup }) =>
    `${setup}: no join is drawn. Draw one along a natural line: a door frame, an edge, a corner.`,
  'zone.clear': ({ setup }) => `${setup}: every copy keeps to its zone, and nothing moves under a join.`,
} satisfies Words;

export type ZoneCode = keyof typeof zoneWords;
