import { linear } from '../motion/easing';
import { fewestKeyframes } from '../motion/keyframes';
import type { Point } from '../geometry/size';
import type { Placing } from './edit';
import type { HandKey } from './schema';
import { anchorNear, placedKeys, placeOfFrame } from './track';

/** per cent of the frame that keys may lie beside the drawn way */
const tolerance = 0.25;

/** The point at a share of a drawn line's length. */
function alongLine(path: readonly Point[]): (share: number) => Point {
  const lengths = path.slice(1).map(([x, y], index) => Math.hypot(x - path[index][0], y - path[index][1]));
  const total = lengths.reduce((sum, length) => sum + length, 0);
  return (share) => {
    let left = share * total;
    for (const [index, length] of lengths.entries()) {
      if (left <= length && length > 0) {
        const [[ax, ay], [bx, by]] = [path[index], path[index + 1]];
        return [ax + ((bx - ax) * left) / length, ay + ((by - ay) * left) / length];
      }
      left -= length;
    }
    return path[path.length - 1];
  };
}

/**
 * Keys that lead along a drawn way at one speed, from what stands at its first frame. Keys that were set in between
 * are gone.
 * @param path points in shares of the frame
 * @param span its first frame and its last
 * @param begins what is said on the first frame, in per cent
 * @param keys those of both directions until now
 */
export function keysAlongWay(
  path: readonly Point[],
  { from, until }: { from: number; until: number },
  begins: { across: number; down: number },
  keys: { across: readonly HandKey[]; down: readonly HandKey[] },
  { anchors, ruler }: Placing,
): { across: HandKey[]; down: HandKey[] } {
  const at = alongLine(path);
  const frames = Math.max(1, until - from);
  const along = (of: 'across' | 'down', axis: 0 | 1): HandKey[] => {
    const values = Array.from(
      { length: frames + 1 },
      (_, index) => begins[of] + 100 * (at(index / frames)[axis] - path[0][axis]),
    );
    const before = placedKeys(keys[of], anchors, ruler);
    const kept = keys[of].filter((_, index) => {
      const frame = before.find((one) => one.index === index)?.frame;
      return frame === undefined || frame < from || frame > until;
    });
    const drawn = fewestKeyframes(values, from, tolerance);
    const held = drawn.length === 1 ? [drawn[0], { ...drawn[0], frame: until }] : drawn;
    return [
      ...kept,
      ...held.map(({ frame, value }): HandKey => ({
        ...placeOfFrame(frame, anchorNear(frame, anchors), 'frames', ruler),
        value: Math.round(value * 100) / 100,
        ease: [...linear],
      })),
    ];
  };
  return { across: along('across', 0), down: along('down', 1) };
}
