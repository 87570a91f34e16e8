import type { Region } from '../geometry/region';
import type { Join } from './joins';
import type { Pan } from './pan';

/** Parts of the picture that may have to match alone, in shares of it. */
export const joinParts = {
  whole: { text: 'the whole picture', x: 0, y: 0, width: 1, height: 1 },
  left: { text: 'its left half', x: 0, y: 0, width: 0.5, height: 1 },
  right: { text: 'its right half', x: 0.5, y: 0, width: 0.5, height: 1 },
  middle: { text: 'its middle', x: 0.25, y: 0.25, width: 0.5, height: 0.5 },
  upper: { text: 'its upper half', x: 0, y: 0, width: 1, height: 0.5 },
  lower: { text: 'its lower half', x: 0, y: 0.5, width: 1, height: 0.5 },
} as const satisfies Record<string, Region & { text: string }>;
/** One of them, or one that is drawn. */
export type JoinPart = keyof typeof joinParts | 'drawn';

/** Where joins are looked for: in all of both takes, or only where they move, or where something covers their pictures. */
export const joinPlaces = {
  any: 'anywhere',
  moving: 'where both move more than usual',
  filled: 'where something fills the picture',
} as const;
export type JoinPlace = keyof typeof joinPlaces;

/** Seconds of a take between which it may be left, or begun with. */
export type JoinSpan = readonly [from: number, until: number];

/**
 * What is asked for: over how many pictures one take goes over into the other (1 for a cut), what has to match, and
 * where; anywhere in both takes where no spans are given.
 */
export type JoinsWanted = {
  over: number;
  part: JoinPart;
  at: JoinPlace;
  spans?: readonly [first: JoinSpan, second: JoinSpan];
  /** the part that was drawn */
  region?: Region;
};

/** The part of the picture that has to match; all of it where one is to be drawn and none was. */
export const partWanted = ({ part, region }: JoinsWanted): Region =>
  part === 'drawn' ? (region ?? joinParts.whole) : joinParts[part];

/** What was found, but for its pictures: the joins, of how many pictures one was looked at first, and which are covered most. */
export type JoinsFound = {
  joins: FoundJoin[];
  step: number;
  mostFilled: [first: MostFilled, second: MostFilled];
};

/** The picture of a take that is covered most, counted from 0, and how much of it is: 0..1. */
export type MostFilled = { picture: number; share: number };

/** A join of two files: their pictures counted from 0, and when these begin to show. */
export type FoundJoin = Join & {
  seconds: [first: number, second: number];
  /** how both move there; null where one of them is a single picture */
  pans: [Pan, Pan] | null;
  /** how much of each is covered by something that passes close by, 0..1 */
  filled: [first: number, second: number];
  /** by how much the set is off from the one picture to the other, in shares of their width; null where it is not one set */
  off: number | null;
};
