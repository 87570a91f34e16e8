type Plane = { width: number; height: number; data: ArrayLike<number> };

/** Catmull-Rom value at a point in pixels from the corner, edges repeated. @see Catmull & Rom 1974 */
export function cubicAt({ width, height, data }: Plane, px: number, py: number): number {
  const x = Math.floor(px - 0.5);
  const y = Math.floor(py - 0.5);
  const tx = px - 0.5 - x;
  const ty = py - 0.5 - y;
  const x1 = tx * (-0.5 + tx * (1 - 0.5 * tx));
  const x2 = 1 + tx * tx * (-2.5 + 1.5 * tx);
  const x3 = tx * (0.5 + tx * (2 - 1.5 * tx));
  const x4 = tx * tx * (-0.5 + 0.5 * tx);
  const y1 = ty * (-0.5 + ty * (1 - 0.5 * ty));
  const y2 = 1 + ty * ty * (-2.5 + 1.5 * ty);
  const y3 = ty * (0.5 + ty * (2 - 1.5 * ty));
  const y4 = ty * ty * (-0.5 + 0.5 * ty);
  const left = clampIndex(x - 1, width);
  const here = clampIndex(x, width);
  const right = clampIndex(x + 1, width);
  const far = clampIndex(x + 2, width);
  const above = clampIndex(y - 1, height) * width;
  const level = clampIndex(y, height) * width;
  const below = clampIndex(y + 1, height) * width;
  const deep = clampIndex(y + 2, height) * width;
  return (
    y1 *
      (x1 * data[above + left] +
        x2 * data[above + here] +
        x3 * data[above + right] +
        x4 * data[above + far]) +
    y2 *
      (x1 * data[level + left] +
        x2 * data[level + here] +
        x3 * data[level + right] +
        x4 * data[level + far]) +
    y3 *
      (x1 * data[below + left] +
        x2 * data[below + here] +
        x3 * data[below + right] +
        x4 * data[below + far]) +
    y4 * (x1 * data[deep + left] + x2 * data[deep + here] + x3 * data[deep + right] + x4 * data[deep + far])
  );
}

const clampIndex = (index: number, size: number) => (index < 0 ? 0 : index >= size ? size - 1 : index);
