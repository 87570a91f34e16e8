type Plane = { width: number; height: number; data: ArrayLike<number> };

/** Catmull-Rom value at a point in pixels from the corner, edges repeated. @see Catmull & Rom 1974 */
export function cubicAt({ width, height, data }: Plane, px: number, py: number): number {
  const fx = px - 0.5;
  const fy = py - 0.5;
  const x = Math.floor(fx);
  const y = Math.floor(fy);
  const tx = fx - x;
  const ty = fy - y;
  const x1 = -0.5 * tx + tx * tx - 0.5 * tx * tx * tx;
  const x2 = 1 - 2.5 * tx * tx + 1.5 * tx * tx * tx;
  const x3 = 0.5 * tx + 2 * tx * tx - 1.5 * tx * tx * tx;
  const x4 = -0.5 * tx * tx + 0.5 * tx * tx * tx;
  let sum = 0;
  for (let row = -1; row < 3; row++) {
    const yy = y + row < 0 ? 0 : y + row >= height ? height - 1 : y + row;
    const base = yy * width;
    const inside = x > 0 && x + 2 < width;
    const line = inside
      ? x1 * data[base + x - 1] + x2 * data[base + x] + x3 * data[base + x + 1] + x4 * data[base + x + 2]
      : x1 * data[base + clampIndex(x - 1, width)] +
        x2 * data[base + clampIndex(x, width)] +
        x3 * data[base + clampIndex(x + 1, width)] +
        x4 * data[base + clampIndex(x + 2, width)];
    const t = ty;
    const weight =
      row === -1
        ? -0.5 * t + t * t - 0.5 * t * t * t
        : row === 0
          ? 1 - 2.5 * t * t + 1.5 * t * t * t
          : row === 1
            ? 0.5 * t + 2 * t * t - 1.5 * t * t * t
            : -0.5 * t * t + 0.5 * t * t * t;
    sum += weight * line;
  }
  return sum;
}

const clampIndex = (index: number, size: number) => (index < 0 ? 0 : index >= size ? size - 1 : index);
