import type { Edges } from './node';

/** The index inside `from`..`until` (excluded) that an index outside stands for; an empty edge is held. */
export function foldIndex(index: number, from: number, until: number, edges: Edges): number {
  if (index >= from && index < until) return index;
  const length = until - from;
  if (edges === 'empty') return index < from ? from : until - 1;
  const round = edges === 'repeated' ? length : 2 * length;
  const place = (((index - from) % round) + round) % round;
  return from + (place < length ? place : round - 1 - place);
}
