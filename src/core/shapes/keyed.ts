import { evenRing, type Ring } from './draw';

/** A shape on a frame, counted from an instant of the moment. */
export type ShapeKey = { after: number; ring: Ring };

/** The shape on a frame; between two keys its corners move evenly. @param keys in the order of their frames */
export function shapeAt(keys: readonly ShapeKey[], after: number): Ring {
  const index = Math.max(
    0,
    keys.findLastIndex((key) => key.after <= after),
  );
  const [now, next] = [keys[index], keys[index + 1]];
  if (!next || after <= now.after) return now.ring;
  const share = (after - now.after) / (next.after - now.after);
  return now.ring.map(([x, y], corner) => {
    const [toX, toY] = next.ring[corner];
    return [x + (toX - x) * share, y + (toY - y) * share];
  });
}

/**
 * Sets the shape on a frame. Every key has the corners that the new one has: where their number changes, the others
 * are laid anew along their own lines.
 * @param keys each with as many corners as the others
 */
export function withShapeAt(keys: readonly ShapeKey[], after: number, ring: Ring): ShapeKey[] {
  const others = keys.filter((key) => key.after !== after);
  const alike = others.every((key) => key.ring.length === ring.length);
  const fitted = alike
    ? others
    : others.map((key) => ({ ...key, ring: evenRing(key.ring, ring.length, ring) }));
  return [...fitted, { after, ring }].sort((one, other) => one.after - other.after);
}
