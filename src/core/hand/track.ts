import type { Track } from '../motion/keyframes';
import { beatOfTime, frameOfBeat } from '../time/grid';
import { frameOfTime, perSecond, timeOfFrame } from '../time/rate';
import type { Anchor, Ruler } from '../recipes/recipe';
import type { HandKey, KeyUnit } from './schema';

/** The frame of a key; null where the instant that it is counted from is gone. */
export function frameOfKey(
  { from, by, unit }: Pick<HandKey, 'from' | 'by' | 'unit'>,
  anchors: readonly Anchor[],
  { grid, project: { rate } }: Ruler,
): number | null {
  const anchor = anchors.find(({ name }) => name === from);
  if (!anchor) return null;
  if (unit === 'frames') return anchor.frame + Math.round(by);
  if (unit === 'beats') return frameOfBeat(grid, rate, anchor.position + by);
  return frameOfTime(rate, timeOfFrame(rate, anchor.frame) + by);
}

/** A frame as a place of a key, counted from an instant in a unit. @see frameOfKey */
export function placeOfFrame(
  frame: number,
  anchor: Anchor,
  unit: KeyUnit,
  { grid, project: { rate } }: Ruler,
): Pick<HandKey, 'from' | 'by' | 'unit'> {
  const frames = frame - anchor.frame;
  const exact = beatOfTime(grid, timeOfFrame(rate, frame));
  const quarter = Math.round(exact * 4) / 4;
  const beat = frameOfBeat(grid, rate, quarter) === frame ? quarter : exact;
  // On the frame of its instant a key is on that instant itself, which may lie between two frames.
  const by = frames && { frames, seconds: frames / perSecond(rate), beats: beat - anchor.position }[unit];
  return { from: anchor.name, by, unit };
}

/** The instant that is next to a frame. */
export const anchorNear = (frame: number, anchors: readonly Anchor[]): Anchor =>
  anchors.reduce((best, one) => (Math.abs(one.frame - frame) < Math.abs(best.frame - frame) ? one : best));

/** A key with its frame, and its place in the list that is stored. */
export type PlacedKey = HandKey & { frame: number; index: number };

/** Keys in the order of their frames; of two on one frame the later one counts. Those without an instant are left out. */
export function placedKeys(keys: readonly HandKey[], anchors: readonly Anchor[], ruler: Ruler): PlacedKey[] {
  const placed = new Map<number, PlacedKey>();
  keys.forEach((key, index) => {
    const frame = frameOfKey(key, anchors, ruler);
    if (frame !== null) placed.set(frame, { ...key, frame, index });
  });
  return [...placed.values()].sort((one, other) => one.frame - other.frame);
}

/** Keys as a track of the picture. @param value what the picture counts in for a value of a key */
export const trackOfKeys = (keys: readonly PlacedKey[], value: (said: number) => number): Track =>
  keys.map(({ frame, value: said, ease }) => ({ frame, value: value(said), ease }));
