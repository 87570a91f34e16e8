import type { Size } from '../../geometry/size';
import { improve, stillVolume } from './cut';
import { seamCost } from './join-cost';

/** A straight line across or down the frame: where it runs, and what a join along it costs. */
type Line = { isDown: boolean; at: number; first: 0 | 1; cost: number };

/** The cheapest straight division between two takes that obeys strokes; null where none does. */
function straightest({ width, height }: Size, cost: Float64Array, forced: Int8Array): Line | null {
  let best: Line | null = null;
  for (const isDown of [true, false]) {
    const [along, across] = isDown ? [height, width] : [width, height];
    const pixel = (one: number, line: number) => (isDown ? one * width + line : line * width + one);
    const sums = new Float64Array(across);
    // Where each take is forced, first and last.
    const reach = [
      { from: across, until: -1 },
      { from: across, until: -1 },
    ];
    for (let line = 0; line < across; line++)
      for (let one = 0; one < along; one++) {
        const p = pixel(one, line);
        sums[line] += cost[p];
        if (forced[p] < 0) continue;
        reach[forced[p]].from = Math.min(reach[forced[p]].from, line);
        reach[forced[p]].until = line;
      }
    for (const first of [0, 1] as const)
      for (let at = Math.max(1, reach[first].until + 1); at < across && at <= reach[1 - first].from; at++) {
        const total = sums[at - 1] + sums[at];
        if (!best || total < best.cost) best = { isDown, at, first, cost: total };
      }
  }
  return best;
}

/**
 * A division between two takes, or the best straight one made cheaper where that costs less.
 * @param cost what a join costs at each pixel, from `joinCost`
 * @param forced take that must show at each pixel, -1 where either may
 */
export function noWorseThanStraight(
  size: Size,
  cost: Float64Array,
  forced: Int8Array,
  labels: Uint8Array<ArrayBuffer>,
): Uint8Array<ArrayBuffer> {
  const line = straightest(size, cost, forced);
  if (!line || seamCost(size, cost, labels) <= line.cost) return labels;
  const straight = labels.map((_, pixel) => {
    const place = line.isDown ? pixel % size.width : Math.floor(pixel / size.width);
    return place < line.at ? line.first : 1 - line.first;
  });
  const near = 8;
  const free = straight.map((_, pixel) => {
    const place = line.isDown ? pixel % size.width : Math.floor(pixel / size.width);
    return Math.abs(place + 0.5 - line.at) < near ? 1 : 0;
  });
  improve(stillVolume(size, cost, forced), straight, free);
  return straight;
}
