import type { Pinned } from '../model/pins';
import type { HandKey, HandKeys } from './schema';

/** Where an instant of a moment lies in beats; one that nobody set lies somewhere after the landing. */
const positionOf = ({ start, lands, end, pins = {} }: Pinned, name: string): number =>
  ({ start, lands, end, ...pins })[name] ?? lands;

/** Every key changed in the same way. */
export const eachKey = (keys: HandKeys, change: (key: HandKey) => HandKey): HandKeys =>
  Object.fromEntries(
    Object.entries(keys).map(([layer, values]) => [
      layer,
      Object.fromEntries(Object.entries(values).map(([value, list]) => [value, list.map(change)])),
    ]),
  );

/**
 * Keys whose beats are counted anew because the grid was corrected: they stay at the same seconds.
 * @param move beat position of the old grid to that of the new one
 */
export const movedKeys = (keys: HandKeys, pinned: Pinned, move: (position: number) => number): HandKeys =>
  eachKey(keys, (key) => {
    if (key.unit !== 'beats') return key;
    const from = positionOf(pinned, key.from);
    return { ...key, by: move(from + key.by) - move(from) };
  });
