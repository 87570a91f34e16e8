/** Red, green and blue of the answer, one row each, from those that are given. */
export type ColourMatrix = readonly [row: Row, row: Row, row: Row];
type Row = readonly [number, number, number];

const multiplied = (after: ColourMatrix, before: ColourMatrix): ColourMatrix =>
  after.map((row) =>
    [0, 1, 2].map((column) => row.reduce((sum, value, at) => sum + value * before[at][column], 0)),
  ) as unknown as ColourMatrix;

/** What colours weigh in how bright they are. */
const light: Row = [0.213, 0.715, 0.072];
/** What a turn of the hue takes from each colour at its sine. */
const turned: ColourMatrix = [
  [-0.213, -0.715, 0.928],
  [0.143, 0.14, -0.283],
  [-0.787, 0.715, 0.072],
];
const same = (row: number, column: number) => Number(row === column);
const filled = (cell: (row: number, column: number) => number): ColourMatrix =>
  [0, 1, 2].map((row) => [0, 1, 2].map((column) => cell(row, column))) as unknown as ColourMatrix;

/**
 * Colours brighter, more saturated (1 as they are) and turned in hue by degrees, in this order.
 * @see W3C Filter Effects Module Level 1, saturate and hueRotate of feColorMatrix
 */
export function colourMatrix(brightness: number, saturation: number, degrees: number): ColourMatrix {
  const angle = (degrees * Math.PI) / 180;
  const [cosine, sine] = [Math.cos(angle), Math.sin(angle)];
  const saturate = filled((row, column) => light[column] + (same(row, column) - light[column]) * saturation);
  const rotate = filled(
    (row, column) =>
      light[column] + (same(row, column) - light[column]) * cosine + turned[row][column] * sine,
  );
  const brighten = filled((row, column) => same(row, column) * brightness);
  return multiplied(rotate, multiplied(saturate, brighten));
}
