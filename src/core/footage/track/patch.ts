import type { Point } from '../../geometry/size';
import type { GrayImage } from '../../picture/image';
import { pyramidOf, type Level } from '../pyramid';

/** Where a patch lies: its middle in pixels, how much larger it is than at first, and its turn in degrees, clockwise. */
export type PatchPlace = {
  x: number;
  y: number;
  scale: number;
  rotation: number;
  /** how well it looks like the patch that was pointed at, −1..1: correlation */
  agreement: number;
};

/** places across and down at which a patch is looked at */
const grid = 25;
/** a copy of the picture is used while the patch is this many of its pixels wide to each side */
const leastReach = 4;
const mostRounds = 24;
/** agreement from which on a patch is believed; below the second it is lost. Set by trial, no published source */
const [sure, leastAgreement] = [0.8, 0.55];

/** what a patch can grow by (as a logarithm) and turn by, in degrees, from one picture to the next */
const [mostGrowth, mostTurn] = [0.15, 20];

/** A patch as it looked in one picture, on one level of its pyramid. */
type Template = {
  /** places in pixels of the picture from the patch's middle, two each */
  places: Float64Array;
  values: Float64Array;
  /** what each place gains by a move right, a move down, growth and a turn; four each */
  slopes: Float64Array;
  deviation: number;
};

/** The light of a level at a place in pixels of the whole picture; edges repeat. */
function lightAt({ width, height, data }: Level, by: number, x: number, y: number): number {
  const px = Math.min(width - 1.001, Math.max(0, x / by - 0.5));
  const py = Math.min(height - 1.001, Math.max(0, y / by - 0.5));
  const [left, top] = [Math.floor(px), Math.floor(py)];
  const [across, down] = [px - left, py - top];
  const at = top * width + left;
  const above = data[at] + (data[at + 1] - data[at]) * across;
  const below = data[at + width] + (data[at + width + 1] - data[at + width]) * across;
  return above + (below - above) * down;
}

function deviationOf(values: Float64Array): number {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length);
}

/** A patch as a picture shows it at a place. @param by how much smaller the level is than the picture */
function templateOf(level: Level, by: number, place: PatchPlace, reach: number): Template {
  const count = grid * grid;
  const template = {
    places: new Float64Array(2 * count),
    values: new Float64Array(count),
    slopes: new Float64Array(4 * count),
  };
  const [cos, sin] = turnOf(place);
  const look = (u: number, v: number) =>
    lightAt(level, by, place.x + cos * u - sin * v, place.y + sin * u + cos * v);
  const step = by / 2;
  for (let row = 0, index = 0; row < grid; row++)
    for (let column = 0; column < grid; column++, index++) {
      const u = reach * ((2 * column) / (grid - 1) - 1);
      const v = reach * ((2 * row) / (grid - 1) - 1);
      const right = (look(u + step, v) - look(u - step, v)) / (2 * step);
      const down = (look(u, v + step) - look(u, v - step)) / (2 * step);
      template.places.set([u, v], 2 * index);
      template.values[index] = look(u, v);
      template.slopes.set([right, down, right * u + down * v, down * u - right * v], 4 * index);
    }
  return { ...template, deviation: deviationOf(template.values) };
}

/** Cosine and sine of a place's turn, times its scale. */
function turnOf({ scale, rotation }: PatchPlace): [number, number] {
  const angle = (rotation * Math.PI) / 180;
  return [scale * Math.cos(angle), scale * Math.sin(angle)];
}

/** Solves four equations whose matrix is symmetric and positive; null where it hardly tells anything. */
function solveFour(matrix: Float64Array, right: Float64Array): number[] | null {
  const rows = [0, 1, 2, 3].map((row) => [...matrix.subarray(4 * row, 4 * row + 4), right[row]]);
  for (let pivot = 0; pivot < 4; pivot++) {
    const divisor = rows[pivot][pivot];
    if (!(divisor > 1e-9)) return null;
    for (let row = pivot + 1; row < 4; row++) {
      const factor = rows[row][pivot] / divisor;
      for (let column = pivot; column < 5; column++) rows[row][column] -= factor * rows[pivot][column];
    }
  }
  const out = [0, 0, 0, 0];
  for (let row = 3; row >= 0; row--) {
    let rest = rows[row][4];
    for (let column = row + 1; column < 4; column++) rest -= rows[row][column] * out[column];
    out[row] = rest / rows[row][row];
  }
  return out;
}

/** share of a patch that has to be seen for it to be believed wholly */
const enoughSeen = 0.5;

/** What is seen at a place, in the template's light: how far each place is off, how much it counts, and the agreement. */
type Fit = { off: Float64Array; weights: Float64Array; agreement: number };

/**
 * Holds a picture at a place against the template. What does not look like it at all, a hand before it, counts little.
 * @see Geman & McClure 1985 (the weights)
 */
function fitAt(
  template: Template,
  level: Level,
  by: number,
  place: PatchPlace,
  before: Float64Array | null,
): Fit {
  const { values, places, deviation } = template;
  const [cos, sin] = turnOf(place);
  const seen = values.map((_, index) => {
    const [u, v] = [places[2 * index], places[2 * index + 1]];
    return lightAt(level, by, place.x + cos * u - sin * v, place.y + sin * u + cos * v);
  });
  const weights = before ?? values.map(() => 1);
  let [all, sum, own] = [0, 0, 0];
  seen.forEach((value, index) => {
    all += weights[index];
    sum += weights[index] * value;
    own += weights[index] * values[index];
  });
  const [mean, wanted] = [sum / all, own / all];
  let [both, squares, wantedSquares] = [0, 0, 0];
  seen.forEach((value, index) => {
    const [one, other] = [value - mean, values[index] - wanted];
    both += weights[index] * one * other;
    squares += weights[index] * one * one;
    wantedSquares += weights[index] * other * other;
  });
  const gain = squares > 1e-6 ? Math.min(4, Math.max(0.25, both / squares)) : 0;
  const off = seen.map((value, index) => wanted + gain * (value - mean) - values[index]);
  const next = off.map((one) => 1 / (1 + (one / (0.7 * deviation + 1)) ** 2) ** 2);
  const share = next.reduce((total, weight) => total + weight, 0) / next.length;
  const correlation = squares * wantedSquares > 1e-6 ? both / Math.sqrt(squares * wantedSquares) : -1;
  return { off, weights: next, agreement: correlation * Math.min(1, share / enoughSeen) };
}

/**
 * Moves a place until the picture there looks like the template, by what small moves do to it.
 * @see Baker & Matthews 2004, "Lucas-Kanade 20 years on" (inverse compositional)
 */
function align(template: Template, level: Level, by: number, start: PatchPlace): PatchPlace {
  let place = start;
  let fit = fitAt(template, level, by, place, null);
  for (let round = 0; round < mostRounds; round++) {
    const matrix = new Float64Array(16);
    const right = new Float64Array(4);
    fit.off.forEach((off, index) => {
      for (let row = 0; row < 4; row++) {
        const slope = fit.weights[index] * template.slopes[4 * index + row];
        right[row] += slope * off;
        for (let column = 0; column < 4; column++)
          matrix[4 * row + column] += slope * template.slopes[4 * index + column];
      }
    });
    const change = solveFour(matrix, right);
    if (!change) return { ...place, agreement: -1 };
    const [dx, dy, growth, turn] = change;
    const next = {
      ...place,
      scale: place.scale / Math.max(0.5, 1 + growth),
      rotation: place.rotation - (turn * 180) / Math.PI,
    };
    const [cosine, sine] = turnOf(next);
    next.x -= cosine * dx - sine * dy;
    next.y -= sine * dx + cosine * dy;
    place = next;
    fit = fitAt(template, level, by, place, fit.weights);
    if (Math.hypot(dx, dy) < 0.003 * by && Math.abs(growth) < 1e-4 && Math.abs(turn) < 1e-4) break;
  }
  return { ...place, agreement: fit.agreement };
}

/** A patch on all levels on which it is large enough, the smallest first. */
function templatesOf(levels: readonly Level[], place: PatchPlace, reach: number) {
  return levels
    .map((level, index) => ({ by: 2 ** index, level, index }))
    .filter(({ by, index }) => index === 0 || reach / by >= leastReach)
    .reverse()
    .map(({ by, level, index }) => ({ index, by, template: templateOf(level, by, place, reach) }));
}

/**
 * Follows what lies round a point from picture to picture: its middle, size and turn.
 * @param first the picture in which it was pointed at
 * @param at in pixels
 * @param reach pixels to each side that belong to it
 * @returns what takes the next picture and says where the patch is there; null once it is lost
 */
export function followPatch(
  first: GrayImage,
  at: Point,
  reach: number,
): (picture: GrayImage) => PatchPlace | null {
  const begin: PatchPlace = { x: at[0], y: at[1], scale: 1, rotation: 0, agreement: 1 };
  const original = templatesOf(pyramidOf(first), begin, reach);
  /** the patch as it looked later, where it changed by and by; places on it count from there */
  let recent: { templates: typeof original; from: PatchPlace } | null = null;
  let place: PatchPlace | null = begin;
  let speed: Point = [0, 0];
  return (picture) => {
    if (!place) return null;
    const levels = pyramidOf(picture);
    const guess = { ...place, x: place.x + speed[0], y: place.y + speed[1] };
    const found = (templates: typeof original, start: PatchPlace): PatchPlace =>
      templates.reduce((one, { index, by, template }) => align(template, levels[index], by, one), start);
    let best = found(original, guess);
    if (best.agreement < sure) {
      const { templates, from } = recent ?? { templates: original, from: begin };
      const relative = {
        ...guess,
        scale: guess.scale / from.scale,
        rotation: guess.rotation - from.rotation,
      };
      const other = found(templates, relative);
      if (other.agreement > best.agreement)
        best = { ...other, scale: other.scale * from.scale, rotation: other.rotation + from.rotation };
    }
    const { width, height } = picture;
    const jumps =
      Math.hypot(best.x - guess.x, best.y - guess.y) > reach * Math.max(1, best.scale) ||
      Math.abs(Math.log(best.scale / place.scale)) > mostGrowth ||
      Math.abs(best.rotation - place.rotation) > mostTurn;
    const isInside = best.x >= 0 && best.y >= 0 && best.x <= width && best.y <= height;
    if (!(best.agreement >= leastAgreement) || !isInside || jumps) {
      place = null;
      return null;
    }
    if (best.agreement < sure) recent = { templates: templatesOf(levels, best, reach), from: best };
    speed = [best.x - place.x, best.y - place.y];
    place = best;
    return best;
  };
}
