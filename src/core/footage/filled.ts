import type { GrayImage } from '../picture/image';
import { median, quantile } from '../statistics';

/** cells across and down in which a picture is held against its take */
const [columns, rows] = [16, 9];
/** share of its own detail below which a cell has lost it, which files lose no more than half of from picture to picture. By trial */
const lost = 0.4;
/** codes by which a cell differs from how it mostly looks, beyond noise and small changes of light */
const other = 16;
/** a cell shows nothing near and sharp with less than this share of the detail that the take mostly has. By trial */
const blurred = 0.3;
/** share of all cells of a take that show noise alone at the least, and share of the usual detail that this is at the most. By trial */
const [plain, mostNoise] = [0.02, 0.3];
/** share of cells that look otherwise, up to which a picture looks as the take mostly does */
const backShare = 0.3;
/** share of its cells that mostly look otherwise, from which on the camera itself moves. By trial */
const moves = 0.35;

/** share of a picture that something covers at least, so that a cut may hide behind it */
export const leastFilled = 0.6;

/** Of each cell of a picture its mean light, and how much it changes from one pixel to the next. */
function cellsOf({ width, height, data }: GrayImage): { light: number[]; detail: number[] } {
  const [light, detail]: [number[], number[]] = [[], []];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const [left, top] = [Math.floor((column * width) / columns), Math.floor((row * height) / rows)];
      const right = Math.max(left + 1, Math.floor(((column + 1) * width) / columns));
      const bottom = Math.max(top + 1, Math.floor(((row + 1) * height) / rows));
      let [sum, across, down, count] = [0, 0, 0, 0];
      for (let y = top; y < bottom; y++)
        for (let x = left, at = y * width + left; x < right; x++, at++) {
          sum += data[at];
          if (x + 1 < width) across += Math.abs(data[at + 1] - data[at]);
          if (y + 1 < height) down += Math.abs(data[at + width] - data[at]);
          count++;
        }
      light.push(sum / count);
      // A whip smears one way alone.
      detail.push(Math.max(across, down) / count);
    }
  return { light, detail };
}

/** Shares beyond what is usual, of what is left above that. */
function beyondUsual(shares: readonly number[]): { usual: number; beyond: Float32Array } {
  const usual = median(shares);
  const beyond = Float32Array.from(shares, (share) =>
    usual < 1 ? Math.max(0, (share - usual) / (1 - usual)) : 0,
  );
  return { usual, beyond };
}

/** Whether a take looks as it mostly does both before each picture and after it again. */
function comesBack(changed: Float32Array): (picture: number) => boolean {
  const isUsual = (share: number) => share < backShare;
  const [first, last] = [changed.findIndex(isUsual), changed.findLastIndex(isUsual)];
  return (picture) => first >= 0 && first < picture && picture < last;
}

/**
 * How much of each picture of a take is covered by something that passes close by. Of a camera that stands, that is what
 * looks otherwise there than mostly, if it goes again or shows no detail: else the camera went elsewhere. Of one that
 * moves, it is what has lost its detail, since what passes close to the lens is out of focus.
 * @param pictures of one size, as they follow one another; a hundred and more pixels across are enough
 * @returns 0..1 for each picture
 */
export function filledIn(pictures: readonly GrayImage[]): Float32Array {
  if (pictures.length === 0) return new Float32Array(0);
  const cells = pictures.map(cellsOf);
  const count = columns * rows;
  const all = Array.from({ length: count }, (_, cell) => cell);
  const mostly = all.map((cell) => median(cells.map(({ light }) => light[cell])));
  const share = (isOne: (picture: number, cell: number) => boolean) =>
    beyondUsual(cells.map((_, picture) => all.filter((cell) => isOne(picture, cell)).length / count));
  const details = cells.flatMap(({ detail }) => detail);
  const usual = median(details);
  const noise = Math.min(quantile(details, plain), mostNoise * usual);
  const least = noise + blurred * (usual - noise);
  const isPlain = (picture: number, cell: number) => cells[picture].detail[cell] < least;
  const isOther = (picture: number, cell: number) =>
    Math.abs(cells[picture].light[cell] - mostly[cell]) > other;
  const changed = share(isOther);
  if (changed.usual >= moves) return share(isPlain).beyond;
  const back = comesBack(changed.beyond);
  const usually = all.map((cell) => median(cells.map(({ detail }) => detail[cell])));
  const hasLost = (picture: number, cell: number) => cells[picture].detail[cell] < lost * usually[cell];
  return share((picture, cell) =>
    isPlain(picture, cell)
      ? isOther(picture, cell) || hasLost(picture, cell)
      : isOther(picture, cell) && back(picture),
  ).beyond;
}
