import * as z from 'zod/mini';
import { rateSchema } from '../time/rate';
import { isDate, isZone } from '../time/zone';
import { base, beatPosition, nameText } from './base';

const { id } = base;
const above = (what: string, most: number) =>
  z.number().check(z.positive(`give ${what}, more than 0`), z.maximum(most, `${what}: at most ${most}`));
const metres = (what: string) => above(`${what} in metres`, 1000);

/** One locked camera in one light. Lengths of the room in metres, of lens and sensor in millimetres. */
export const setupSchema = z
  .object({
    ...base,
    kind: z.literal('setup'),
    name: nameText,
    /** fractional key: setups are listed in this order */
    order: z.number(),
    place: z.enum(['inside', 'outside']),
    sensor: z.object({
      width: above('the width of the sensor in millimetres', 100),
      height: above('the height of the sensor in millimetres', 100),
    }),
    focal: above('the focal length in millimetres', 2000),
    aperture: above('the f-number', 64),
    /** the shutter is open for one part in so many of a second */
    shutter: above('the shutter as a part of a second', 10000),
    iso: above('the ISO', 1e6),
    kelvin: above('the white balance in kelvin', 20000),
    focus: metres('the focus distance'),
    capture: z.object({
      width: z.int().check(z.minimum(16), z.maximum(16384)),
      height: z.int().check(z.minimum(16), z.maximum(16384)),
      rate: rateSchema,
      megabits: above('the data rate in megabits a second', 5000),
    }),
    /** of the lens above the floor, and its tilt downwards in degrees */
    height: metres('the height of the lens'),
    tilt: z.number().check(z.minimum(-60), z.maximum(80)),
    rig: z.enum(['tripod', 'slider', 'dolly', 'clamp']),
    /** from the lens to each wall */
    walls: z.object({
      left: metres('the distance of the wall'),
      right: metres('the distance of the wall'),
      ahead: metres('the distance of the wall'),
      behind: metres('the distance of the wall'),
    }),
    /** gigabytes on the card, minutes in the battery */
    card: above('the size of the card in gigabytes', 1e6),
    battery: above('the running time of the battery in minutes', 1e5),
    approach: z.enum(['separate', 'unbroken']),
    /** the place whose picture size this one repeats */
    matches: z.nullable(id),
    /** colours of clothes and set that a key screen has to keep away from, "#rrggbb" */
    colours: z
      .string()
      .check(z.regex(/^(#?[0-9a-f]{6}(\s+|$))*$/i, 'give colours as six digits, like #2c5f8d')),
    /** picture behind the drawing: a take's id, or a picture of the person's own as `file:` and its id; unset is a sketch */
    still: z.optional(z.nullable(z.string())),
  })
  .check(
    z.refine(({ focal, focus }) => focus * 1000 > focal, {
      path: ['focus'],
      message: 'focus further away than the focal length',
    }),
  );

/** Metres that somebody is taken to be tall until it is said. */
export const usualStature = 1.7;

/** Where somebody stands: metres right of and away from the point under the lens. */
const markSchema = z.object({
  ...base,
  kind: z.literal('mark'),
  setup: id,
  name: nameText,
  x: z.number().check(z.minimum(-100), z.maximum(100)),
  y: z.number().check(z.minimum(-100), z.maximum(100)),
  /** of the person, in metres */
  stature: metres('how tall the person is'),
});

/** Something that stands in the room, drawn to scale: middle, width across, depth away, height. */
const pieceSchema = z.object({
  ...base,
  kind: z.literal('piece'),
  setup: id,
  what: z.enum(['furniture', 'door', 'backdrop']),
  name: nameText,
  x: z.number().check(z.minimum(-100), z.maximum(100)),
  y: z.number().check(z.minimum(-100), z.maximum(100)),
  width: metres('the width'),
  depth: metres('the depth'),
  height: metres('the height'),
});

const share = z.number().check(z.minimum(-0.5), z.maximum(1.5));
/** A part of the picture, in shares of the frame: opposite corners, or both ends of a line. */
const zoneSchema = z.object({
  ...base,
  kind: z.literal('zone'),
  setup: id,
  /** a copy's place, a natural line to join along, an object both touch, a thing that moves, the way shadows fall */
  what: z.enum(['copy', 'seam', 'shared', 'moves', 'shadow']),
  name: nameText,
  from: z.tuple([share, share]),
  to: z.tuple([share, share]),
});

/** A performance of the song, or of a part of it, for the film between the moments. */
export const passSchema = z.object({
  ...base,
  kind: z.literal('pass'),
  setup: id,
  what: z.enum(['pass', 'whip', 'second camera']),
  angle: z.enum(['front', 'side', 'behind', 'above', 'below']),
  size: z.enum(['wide', 'medium', 'close']),
  steadiness: z.enum(['steady', 'moving', 'handheld']),
  /** beat positions; null for the whole song */
  from: z.nullable(beatPosition),
  until: z.nullable(beatPosition),
  times: z.int().check(z.minimum(1), z.maximum(50)),
});

/** What the person decided about a shot that follows from the plan. The id of the shot is `shot`. */
const shotSchema = z.object({
  ...base,
  kind: z.literal('shot'),
  shot: z.string().check(z.minLength(1)),
  /** kept straight after this shot; "first" before all others; null where the order is free */
  after: z.nullable(z.string()),
  takes: z.nullable(z.int().check(z.minimum(1), z.maximum(99))),
  /** minutes from the first slate to the last cut; null to let the bench reckon */
  minutes: z.nullable(z.number().check(z.minimum(1), z.maximum(600))),
});

const clock = z.string().check(z.regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'give a time of day like 18:40'));

/** The day of filming. */
export const daySchema = z.object({
  ...base,
  kind: z.literal('day'),
  date: z.string().check(z.refine(isDate, 'give a date like 2026-11-28')),
  start: clock,
  /** by then everything is done; before the start it means the next day */
  end: clock,
  /** name of the time zone, like "Europe/Berlin" */
  zone: z.string().check(z.refine(isZone, 'give a time zone like Europe/Berlin')),
  latitude: z.nullable(z.number().check(z.minimum(-90), z.maximum(90))),
  longitude: z.nullable(z.number().check(z.minimum(-180), z.maximum(180))),
  mains: z.union([z.literal(50), z.literal(60)]),
  /** how far sunlight may change within a setup */
  stops: z.number().check(z.minimum(0.05), z.maximum(3)),
  degrees: z.number().check(z.minimum(1), z.maximum(90)),
  /** minutes: putting a setup up, changing clothes, setting back between takes, rehearsing a risky shot */
  setUp: z.number().check(z.minimum(0), z.maximum(600)),
  changing: z.number().check(z.minimum(0), z.maximum(240)),
  reset: z.number().check(z.minimum(0), z.maximum(60)),
  rehearsal: z.number().check(z.minimum(0), z.maximum(240)),
  /** seconds recorded before and after what the film shows */
  handle: z.number().check(z.minimum(0), z.maximum(30)),
});

/** A tick on a list: packing, cautions, a setup's sheet. */
const tickSchema = z.object({ ...base, kind: z.literal('tick'), of: z.string(), done: z.boolean() });

/** Something of the person's own to take along. */
const itemSchema = z.object({ ...base, kind: z.literal('item'), text: nameText.check(z.minLength(1)) });

export const planSchemas = [
  setupSchema,
  markSchema,
  pieceSchema,
  zoneSchema,
  passSchema,
  shotSchema,
  daySchema,
  tickSchema,
  itemSchema,
] as const;

export type Setup = z.infer<typeof setupSchema>;
export type Mark = z.infer<typeof markSchema>;
export type Piece = z.infer<typeof pieceSchema>;
export type Zone = z.infer<typeof zoneSchema>;
export type Pass = z.infer<typeof passSchema>;
export type ShotChoice = z.infer<typeof shotSchema>;
export type Day = z.infer<typeof daySchema>;
export type Tick = z.infer<typeof tickSchema>;
export type Item = z.infer<typeof itemSchema>;
