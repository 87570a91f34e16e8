import type { Followed } from '../footage/track/track';
import type { Point, Size } from '../geometry/size';
import type { Ring } from './draw';
import type { ShapeKey } from './keyed';

/** The middle of the box round a shape. */
export function middleOf(ring: Ring): Point {
  const middle = (axis: 0 | 1) => {
    const values = ring.map((point) => point[axis]);
    return (Math.min(...values) + Math.max(...values)) / 2;
  };
  return [middle(0), middle(1)];
}

/** A shape that is moved with what is followed, grown and turned with it; in shares of the frame. */
function carry(ring: Ring, { at, scale, rotation }: Followed, { width, height }: Size): Ring {
  const [cx, cy] = middleOf(ring);
  const angle = (rotation * Math.PI) / 180;
  const [cos, sin] = [scale * Math.cos(angle), scale * Math.sin(angle)];
  return ring.map(([x, y]) => {
    const [dx, dy] = [(x - cx) * width, (y - cy) * height];
    return [at[0] + (cos * dx - sin * dy) / width, at[1] + (sin * dx + cos * dy) / height];
  });
}

/**
 * The shape on a frame, carried by what is followed under it: from each key to the next one, where it arrives as it was
 * drawn, and from the first key back. Where that is lost, it goes straight to the next key, or stays.
 * @param keys in the order of their frames, each with as many corners as the others
 * @param followed by frame, counted as the keys are; each tap is the key of its place
 * @param size of the frame, pixels
 */
export function carriedAt(
  keys: readonly ShapeKey[],
  followed: ReadonlyMap<number, Followed>,
  after: number,
  size: Size,
): Ring {
  const index = Math.max(
    0,
    keys.findLastIndex((key) => key.after <= after),
  );
  const [key, next] = [keys[index], keys[index + 1]];
  const on = (frame: number): Ring | null => {
    const found = followed.get(frame);
    return found?.tap === index ? carry(key.ring, found, size) : null;
  };
  /** The furthest frame towards another one on which it is still known, and the shape there. */
  const known = (until: number): { frame: number; ring: Ring } => {
    const step = until < key.after ? -1 : 1;
    for (let frame = until; frame !== key.after; frame -= step) {
      const ring = on(frame);
      if (ring) return { frame, ring };
    }
    return { frame: key.after, ring: key.ring };
  };
  if (after === key.after) return key.ring;
  const here = known(after).ring;
  if (!next || after < key.after) return here;
  const last = known(next.after - 1).ring;
  const share = (after - key.after) / (next.after - key.after);
  return here.map(([x, y], corner) => {
    const [toX, toY] = next.ring[corner];
    const [lastX, lastY] = last[corner];
    return [x + share * (toX - lastX), y + share * (toY - lastY)];
  });
}

/**
 * Shapes of frames that follow one another, with those left out that lie between others anyway.
 * @param shapes one for each frame, from `first` on
 * @param tolerance pixels that a corner may lie beside its place
 */
export function fewestShapes(
  shapes: readonly Ring[],
  first: number,
  tolerance: number,
  size: Size,
): ShapeKey[] {
  const keys: ShapeKey[] = [];
  const isBetween = (from: number, to: number): boolean => {
    for (let frame = from + 1; frame < to; frame++) {
      const share = (frame - from) / (to - from);
      for (let corner = 0; corner < shapes[frame].length; corner++) {
        const [x, y] = shapes[frame][corner];
        const [[ax, ay], [bx, by]] = [shapes[from][corner], shapes[to][corner]];
        const off = Math.hypot(
          (ax + (bx - ax) * share - x) * size.width,
          (ay + (by - ay) * share - y) * size.height,
        );
        if (off > tolerance) return false;
      }
    }
    return true;
  };
  for (let from = 0; from < shapes.length;) {
    keys.push({ after: first + from, ring: shapes[from] });
    let to = from + 1;
    while (to + 1 < shapes.length && isBetween(from, to + 1)) to++;
    from = to;
  }
  return keys;
}
