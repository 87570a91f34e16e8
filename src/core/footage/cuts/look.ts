import type { RgbaImage } from '../../picture/image';

/** What is kept of a picture to tell it from others. */
export type Look = {
  /** light in cells, row by row, without its mean */
  cells: Float32Array;
  /** mean of the squares of those */
  contrast: number;
  /** mean light, 0..255 */
  light: number;
  /** share of the picture that has each colour, however light it is */
  colours: Float32Array;
};

/** cells across and down */
const [across, down] = [48, 27];
/** steps of red's and of green's share in a colour's light */
const steps = 12;
/** how far, in cells, a camera may move between two pictures for one to be known again in the other */
const [furthestAcross, furthestDown] = [24, 5];
/** squares of codes that noise alone makes of the mean of a cell */
const noise = 6;
/** light under which a colour is none */
const dark = 12;

/** Looks at a picture. */
export function lookAt({ width, height, data }: RgbaImage): Look {
  const cells = new Float32Array(across * down);
  const colours = new Float32Array(steps * steps + 1);
  let light = 0;
  for (let row = 0, cell = 0; row < down; row++) {
    const [top, bottom] = [Math.floor((row * height) / down), Math.ceil(((row + 1) * height) / down)];
    for (let column = 0; column < across; column++, cell++) {
      const [left, right] = [
        Math.floor((column * width) / across),
        Math.ceil(((column + 1) * width) / across),
      ];
      let [red, green, blue, count] = [0, 0, 0, 0];
      for (let y = top; y < bottom; y++)
        for (let at = 4 * (y * width + left), end = 4 * (y * width + right); at < end; at += 4, count++) {
          red += data[at];
          green += data[at + 1];
          blue += data[at + 2];
        }
      cells[cell] = (0.299 * red + 0.587 * green + 0.114 * blue) / count;
      light += cells[cell];
      addColour(colours, red / count, green / count, blue / count);
    }
  }
  light /= cells.length;
  let contrast = 0;
  for (let cell = 0; cell < cells.length; cell++) {
    cells[cell] -= light;
    contrast += cells[cell] ** 2;
  }
  return {
    cells,
    contrast: contrast / cells.length,
    light,
    colours: colours.map((count) => count / cells.length),
  };
}

/** Counts a colour, shared out to the steps round it, so that a little more of it moves a little. */
function addColour(colours: Float32Array, red: number, green: number, blue: number): void {
  const sum = red + green + blue;
  if (sum < 3 * dark) {
    colours[steps * steps]++;
    return;
  }
  const [r, g] = [red, green].map((value) => Math.min(steps - 1.001, (value / sum) * 1.5 * steps));
  const [i, j] = [Math.floor(r), Math.floor(g)];
  const [u, v] = [r - i, g - j];
  colours[i * steps + j] += (1 - u) * (1 - v);
  colours[(i + 1) * steps + j] += u * (1 - v);
  colours[i * steps + j + 1] += (1 - u) * v;
  colours[(i + 1) * steps + j + 1] += u * v;
}

/** Mean product of two pictures' cells where they lie over each other, one moved. */
function apartAt(one: Look, two: Look, dx: number, dy: number): number {
  let [sum, squares, count] = [0, 0, 0];
  for (let y = Math.max(0, -dy); y < Math.min(down, down - dy); y++) {
    const [own, other] = [y * across, (y + dy) * across + dx];
    for (let x = Math.max(0, -dx); x < Math.min(across, across - dx); x++, count++) {
      const [a, b] = [one.cells[own + x], two.cells[other + x]];
      sum += (a - b) ** 2;
      squares += a * a + b * b;
    }
  }
  return sum / (squares + 2 * noise * count);
}

/** How unlike two pictures are, wherever the camera turned between them: 0 for the same, about 1 for two that have nothing in common. */
export function unlike(one: Look, two: Look): number {
  let least = apartAt(one, two, 0, 0);
  for (let dy = -furthestDown; dy <= furthestDown && least > 0.02; dy++)
    for (let dx = -furthestAcross; dx <= furthestAcross; dx++)
      least = Math.min(least, apartAt(one, two, dx, dy));
  return least;
}

/** How unlike the colours of two pictures are, 0..1, however light they are. */
export function otherColours(one: Look, two: Look): number {
  let sum = 0;
  for (let at = 0; at < one.colours.length; at++) sum += Math.abs(one.colours[at] - two.colours[at]);
  return sum / 2;
}
