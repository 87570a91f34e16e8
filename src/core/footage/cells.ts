import type { Anchors, Reference } from './reference';

/** cells across and down in which it is told what moves by itself */
export const [across, down] = [16, 9];

/** The cell of a place, which counts from the middle of a picture. */
export function cellOf(x: number, y: number, { width, height }: { width: number; height: number }): number {
  const column = Math.min(across - 1, Math.max(0, Math.floor((x / width + 0.5) * across)));
  const row = Math.min(down - 1, Math.max(0, Math.floor((y / height + 0.5) * down)));
  return row * across + column;
}

/** The places of some cells alone. */
function placesWithin({ level, x, y, value, slope }: Anchors, keeps: (cell: number) => boolean): Anchors {
  const kept = new Uint32Array(x.length);
  let count = 0;
  for (let at = 0; at < x.length; at++) if (keeps(cellOf(x[at], y[at], level))) kept[count++] = at;
  const own = {
    level,
    x: new Float32Array(count),
    y: new Float32Array(count),
    value: new Float32Array(count),
    slope: new Float32Array(4 * count),
  };
  for (let to = 0; to < count; to++) {
    const at = kept[to];
    own.x[to] = x[at];
    own.y[to] = y[at];
    own.value[to] = value[at];
    for (let part = 0; part < 4; part++) own.slope[4 * to + part] = slope[4 * at + part];
  }
  return own;
}

/** A reference with the places of some cells alone. */
export const within = (reference: Reference, keeps: (cell: number) => boolean): Reference => ({
  ...reference,
  anchors: reference.anchors.map((anchors) => placesWithin(anchors, keeps)),
});
