import type { Bounds, Point, Size } from '../../geometry/size';
import { rasterMask } from '../mask';
import type { Rings } from '../node';
import { chromaSide, type YuvImage } from '../planes';
import { meansOfSquares, squaresOf } from '../squares';
import { rule, tellSides } from './two-sides';

/** squares across the reach of an edge, in which is learned what colours there are on both sides */
const squaresAcross = 4;
/** how far colours are learned from beyond that reach */
const learnedFrom = 1.3;

/** Coverage 0..255 of a part of a picture; nothing is covered elsewhere. */
export type FittedEdge = Size & { left: number; top: number; data: Uint8Array };

/** The part of a picture in which an outline may be drawn elsewhere and its colours are learned; its sides whole squares from even corners. */
function partOf(rings: Rings, picture: Size, reach: number, side: number): Bounds {
  let [left, top, right, bottom] = [picture.width, picture.height, 0, 0];
  for (const ring of rings)
    for (const [x, y] of ring) {
      [left, right] = [Math.min(left, x), Math.max(right, x)];
      [top, bottom] = [Math.min(top, y), Math.max(bottom, y)];
    }
  const margin = Math.ceil((1 + learnedFrom) * reach);
  const start = (value: number) => Math.floor(Math.max(0, value - margin) / side) * side;
  return {
    left: start(left),
    top: start(top),
    right: Math.min(picture.width, Math.ceil(right + margin)),
    bottom: Math.min(picture.height, Math.ceil(bottom + margin)),
  };
}

/**
 * How much of each pixel an outline covers once its edge was drawn to that of the picture: hair that leaves it, what is
 * blurred by moving, and an edge that was drawn a little off. Near the outline, a pixel covers as much as its colour is
 * that of the inside rather than that of the outside, as far as both can be told apart there; else what was drawn.
 * @param rings in pixels of the picture; even-odd rule
 * @param reach pixels to each side of the outline within which the edge may lie; as drawn for none
 */
export function fitEdge(picture: YuvImage, rings: Rings, reach: number): FittedEdge {
  const side = Math.max(2, 2 * Math.round(reach / squaresAcross / 2));
  const part = partOf(rings, picture, reach, side);
  const { left, top } = part;
  const size = { width: Math.max(0, part.right - left), height: Math.max(0, part.bottom - top) };
  const own = rings.map((ring) => ring.map(([x, y]): Point => [x - left, y - top]));
  const { data } = rasterMask(own, 0, size);
  const squares = squaresOf(size, side);
  if (reach <= 0 || squares.width < 2 || squares.height < 2) return { left, top, ...size, data };
  const small = { width: chromaSide(picture.width), height: chromaSide(picture.height) };
  const corner = { left: left / 2, top: top / 2 };
  const colours = [
    meansOfSquares({ data: picture.y, width: picture.width, height: picture.height }, side, part, squares),
    meansOfSquares({ data: picture.u, ...small }, side / 2, corner, squares),
    meansOfSquares({ data: picture.v, ...small }, side / 2, corner, squares),
  ];
  const covered = meansOfSquares({ data, ...size }, side, { left: 0, top: 0 }, squares).map(
    (mean) => mean / 255,
  );
  const across = reach / side;
  const rules = tellSides(squares, colours, covered, Math.round(across), Math.round(learnedFrom * across));
  const target = { data, ...size, left, top };
  const squaresBetween = { rules, squares, side, value: rowOfRules(), step: rowOfRules() };
  for (let y = -1; y < squares.height; y++)
    for (let x = -1; x < squares.width; x++) fitBetween(picture, squaresBetween, x, y, target);
  return target;
}

const rowOfRules = () => new Float64Array(rule.count);

/** Rules of squares; the rule at a pixel and what it grows by to the next one are worked out in place. */
type Between = { rules: Float32Array; squares: Size; side: number; value: Float64Array; step: Float64Array };

/** Fits the pixels between the middles of four squares, the first of them at `x` and `y`. */
function fitBetween(
  picture: YuvImage,
  { rules, squares, side, value, step }: Between,
  x: number,
  y: number,
  { data, width, height, left, top }: FittedEdge,
): void {
  const up = Math.max(0, y) * squares.width;
  const down = Math.min(squares.height - 1, y + 1) * squares.width;
  const near = Math.max(0, x);
  const far = Math.min(squares.width - 1, x + 1);
  const [upLeft, upRight] = [rule.count * (up + near), rule.count * (up + far)];
  const [downLeft, downRight] = [rule.count * (down + near), rule.count * (down + far)];
  const tells = (at: number) => rules[at + rule.whole] !== 0;
  if (!(tells(upLeft) || tells(upRight) || tells(downLeft) || tells(downRight))) return;
  const half = side / 2;
  const from = Math.max(0, x * side + half);
  const until = Math.min(width, (x + 1) * side + half);
  const chroma = chromaSide(picture.width);
  const first = (from + 0.5 - half) / side - x;
  const last = Math.min(height, (y + 1) * side + half);
  for (let row = Math.max(0, y * side + half); row < last; row++) {
    const share = (row + 0.5 - half) / side - y;
    for (let one = 0; one < rule.count; one++) {
      const start = rules[upLeft + one] + share * (rules[downLeft + one] - rules[upLeft + one]);
      const end = rules[upRight + one] + share * (rules[downRight + one] - rules[upRight + one]);
      step[one] = (end - start) / side;
      value[one] = start + first * (end - start);
    }
    const line = (top + row) * picture.width + left;
    const small = ((top + row) >> 1) * chroma;
    let [luma, blue, red] = [value[rule.luma], value[rule.blue], value[rule.red]];
    let [added, whole, known] = [value[rule.added], value[rule.whole], value[rule.known]];
    const [dLuma, dBlue, dRed] = [step[rule.luma], step[rule.blue], step[rule.red]];
    const [dAdded, dWhole, dKnown] = [step[rule.added], step[rule.whole], step[rule.known]];
    for (let column = from, at = row * width + from; column < until; column++, at++) {
      if (whole > 1e-6) {
        const beside = small + ((left + column) >> 1);
        const sum =
          luma * picture.y[line + column] + blue * picture.u[beside] + red * picture.v[beside] + added;
        const mixed = sum <= 0 ? 0 : sum >= whole ? 255 : (255 * sum) / whole;
        data[at] += (known / (known + 1)) * (mixed - data[at]) + 0.5;
      }
      luma += dLuma;
      blue += dBlue;
      red += dRed;
      added += dAdded;
      whole += dWhole;
      known += dKnown;
    }
  }
}
