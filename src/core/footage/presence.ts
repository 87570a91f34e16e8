import type { Point, RgbaImage, Size } from '../picture/image';

/** Where a take differs from its plate, frame by frame: 1 where something stands that the plate has not. */
export type Presence = Size & { frames: Uint8Array[] };

/** Compares means of small squares, so that noise does not count. `limit` in codes. */
export function presenceOf(plate: RgbaImage, frame: RgbaImage, size: Size, limit = 14): Uint8Array {
  const out = new Uint8Array(size.width * size.height);
  const stepX = frame.width / size.width;
  const stepY = frame.height / size.height;
  for (let row = 0; row < size.height; row++) {
    for (let column = 0; column < size.width; column++) {
      const sums = [0, 0, 0];
      let count = 0;
      for (let y = Math.floor(row * stepY); y < (row + 1) * stepY && y < frame.height; y++) {
        for (let x = Math.floor(column * stepX); x < (column + 1) * stepX && x < frame.width; x++) {
          const at = (y * frame.width + x) * 4;
          for (let channel = 0; channel < 3; channel++)
            sums[channel] += frame.data[at + channel] - plate.data[at + channel];
          count++;
        }
      }
      const off = Math.max(...sums.map((sum) => Math.abs(sum / Math.max(1, count))));
      out[row * size.width + column] = off > limit ? 1 : 0;
    }
  }
  return out;
}

/**
 * Everything that is connected, through space and time, with what was tapped.
 * @param taps frame and point in shares of the frame (0..1); the nearest present cell is taken
 * @returns 1 a cell that the tapped performer ever covers; empty where a tap hits nothing nearby
 */
export function followTap(
  { width, height, frames }: Presence,
  taps: { frame: number; at: Point }[],
): Uint8Array {
  const area = width * height;
  const seen = new Uint8Array(area * frames.length);
  const stack: number[] = [];
  const visit = (z: number, cell: number) => {
    if (z < 0 || z >= frames.length || !frames[z][cell] || seen[z * area + cell]) return;
    seen[z * area + cell] = 1;
    stack.push(z * area + cell);
  };
  for (const tap of taps) {
    const z = Math.min(frames.length - 1, Math.max(0, tap.frame));
    const [cx, cy] = [tap.at[0] * width, tap.at[1] * height];
    let nearest = { cell: -1, distance: width * 0.05 };
    for (let cell = 0; cell < area; cell++) {
      if (!frames[z][cell]) continue;
      const distance = Math.hypot((cell % width) + 0.5 - cx, Math.floor(cell / width) + 0.5 - cy);
      if (distance < nearest.distance) nearest = { cell, distance };
    }
    if (nearest.cell >= 0) visit(z, nearest.cell);
  }
  while (stack.length > 0) {
    const at = stack.pop() as number;
    const z = Math.floor(at / area);
    const cell = at % area;
    const x = cell % width;
    if (x > 0) visit(z, cell - 1);
    if (x + 1 < width) visit(z, cell + 1);
    if (cell >= width) visit(z, cell - width);
    if (cell + width < area) visit(z, cell + width);
    visit(z - 1, cell);
    visit(z + 1, cell);
  }
  const covered = new Uint8Array(area);
  for (let at = 0; at < seen.length; at++) if (seen[at]) covered[at % area] = 1;
  return covered;
}

/** The middle of the largest thing present in a frame, in shares of the frame; null where there is none. */
export function largestThing({ width, height, frames }: Presence, frame: number): Point | null {
  const cells = frames[frame];
  const seen = new Uint8Array(cells.length);
  let best: { count: number; x: number; y: number } | null = null;
  for (let start = 0; start < cells.length; start++) {
    if (!cells[start] || seen[start]) continue;
    const stack = [start];
    seen[start] = 1;
    const found = { count: 0, x: 0, y: 0 };
    while (stack.length > 0) {
      const cell = stack.pop() as number;
      const x = cell % width;
      found.count++;
      found.x += x + 0.5;
      found.y += Math.floor(cell / width) + 0.5;
      const around = [x > 0 ? cell - 1 : -1, x + 1 < width ? cell + 1 : -1, cell - width, cell + width];
      for (const next of around) {
        if (next >= 0 && next < cells.length && cells[next] && !seen[next]) {
          seen[next] = 1;
          stack.push(next);
        }
      }
    }
    if (!best || found.count > best.count) best = found;
  }
  return best && best.count >= 6 ? [best.x / best.count / width, best.y / best.count / height] : null;
}
