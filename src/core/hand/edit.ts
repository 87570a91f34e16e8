import { gentle } from '../motion/easing';
import { valueAt } from '../motion/keyframes';
import type { Anchor, Ruler } from '../recipes/recipe';
import { handValues, type HandKey, type HandValue, type KeyUnit } from './schema';
import { anchorNear, frameOfKey, placedKeys, placeOfFrame, trackOfKeys } from './track';

/** What turns places of keys into frames. */
export type Placing = { anchors: readonly Anchor[]; ruler: Ruler };

/** The value of keys at a frame, as it is written; what stands where there are none. */
export function saidAt(
  keys: readonly HandKey[],
  value: HandValue,
  frame: number,
  { anchors, ruler }: Placing,
): number {
  const placed = placedKeys(keys, anchors, ruler);
  return placed.length > 0
    ? valueAt(
        trackOfKeys(placed, (said) => said),
        frame,
      )
    : handValues[value].rest;
}

/**
 * Sets a value at a frame: of the key that is there, else of a new one, which is counted from the instant next to it,
 * in beats where it lies on a quarter of one.
 * @returns the keys, and the place of that one among them
 */
export function setKeyAt(
  keys: readonly HandKey[],
  frame: number,
  value: number,
  { anchors, ruler }: Placing,
): { keys: HandKey[]; index: number } {
  const there = placedKeys(keys, anchors, ruler).find((key) => key.frame === frame);
  if (there)
    return {
      keys: keys.map((key, at) => (at === there.index ? { ...key, value } : key)),
      index: there.index,
    };
  const anchor = anchorNear(frame, anchors);
  const beats = placeOfFrame(frame, anchor, 'beats', ruler);
  const onQuarter = Number.isInteger(Math.round(beats.by * 4e6) / 1e6);
  const place = onQuarter ? beats : placeOfFrame(frame, anchor, 'frames', ruler);
  return { keys: [...keys, { ...place, value, ease: [...gentle] }], index: keys.length };
}

/** A key at another frame, still counted from the same instant and in the same unit. */
export function moveKeyTo(key: HandKey, frame: number, { anchors, ruler }: Placing): HandKey {
  const anchor = anchors.find(({ name }) => name === key.from);
  return anchor ? { ...key, ...placeOfFrame(frame, anchor, key.unit, ruler) } : key;
}

/** A key on the same frame, counted otherwise. */
export function countKeyBy(
  key: HandKey,
  by: { from?: string; unit?: KeyUnit },
  { anchors, ruler }: Placing,
): HandKey {
  const frame = frameOfKey(key, anchors, ruler);
  const anchor = anchors.find(({ name }) => name === (by.from ?? key.from));
  if (!anchor) return key;
  return { ...key, ...placeOfFrame(frame ?? anchor.frame, anchor, by.unit ?? key.unit, ruler) };
}
