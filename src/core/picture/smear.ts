import type { Size } from '../geometry/size';
import type { DrawList } from './draw-list';
import { foldIndex } from './edges';
import type { Edges } from './node';

/** How a picture lies while the shutter is open: pixels by which it is moved, in the order of time. */
export type Smear = { along: 'width' | 'height'; shifts: readonly number[] };

/** stretches of the shutter's time within which a picture is taken to move evenly */
const mostStretches = 6;

/** pixels that a picture travels in a stretch at least, so that no sum is divided by nothing */
const leastTravel = 0.02;

const stepsOf = (shifts: readonly number[]) =>
  shifts.slice(1).map((shift, index) => Math.abs(shift - shifts[index]));

/** As many stretches as it takes for the speed within each to be nearly even. */
function stretchesOf(shifts: readonly number[]): number {
  const steps = stepsOf(shifts);
  const ratio = Math.max(...steps) / Math.max(leastTravel, Math.min(...steps));
  const wanted = ratio < 1.25 ? 1 : ratio < 2 ? 2 : ratio < 4 ? 3 : mostStretches;
  return Math.min(wanted, shifts.length);
}

/** What a sum up to a place counts for: the mean over stretches is a difference of such sums. */
type Corner = { shift: number; weight: number };

/**
 * The mean over all places of a picture that moves evenly within each of some stretches, as few sums. Each shift
 * stands for as much time as the others, and reaches half-way to those beside it.
 */
function cornersOf(shifts: readonly number[]): Corner[] {
  const count = shifts.length;
  const stretches = stretchesOf(shifts);
  const border = (index: number): number => {
    if (index === 0) return shifts[0] - (shifts[1] - shifts[0]) / 2;
    if (index === count) return shifts[count - 1] + (shifts[count - 1] - shifts[count - 2]) / 2;
    return (shifts[index - 1] + shifts[index]) / 2;
  };
  const corners: Corner[] = [];
  // Where one stretch ends the next begins: one sum serves both.
  const add = (shift: number, weight: number) => {
    const there = corners.find((corner) => Math.abs(corner.shift - shift) < 1e-9);
    if (there) there.weight += weight;
    else corners.push({ shift, weight });
  };
  for (let stretch = 0; stretch < stretches; stretch++) {
    const [first, last] = [stretch, stretch + 1].map((one) => Math.round((one * count) / stretches));
    const [from, to] = [border(first), border(last)];
    const length = Math.max(leastTravel, Math.abs(to - from));
    const weight = (last - first) / count / length;
    const low = Math.min(from, to);
    add(low, weight);
    add(low + length, -weight);
  }
  return corners;
}

/**
 * A corner as it is met on a line whose places are counted from before its first one: `at` is the last pixel whose
 * middle lies before it at the first place that is painted, `far` how far beyond that middle it lies.
 */
type Met = { at: number; far: number; weight: number };

/** By how much the mean changes from one place to the next because of a corner: weights of three pixels. */
const changeOf = ({ far, weight }: Met): [number, number, number] => [
  weight * (0.5 - far + (far * far) / 2),
  weight * (0.5 + far - far * far),
  weight * ((far * far) / 2),
];

/** What each pixel counts for at the first place that is painted; pixels are joined by lines. */
function kernelOf(met: readonly Met[], length: number): { first: number; weights: Float64Array } {
  const first = Math.max(0, Math.min(...met.map(({ at }) => at)));
  const last = Math.min(length - 1, Math.max(...met.map(({ at }) => at)) + 1);
  const share = (pixel: number, { at, far }: Met): number => {
    if (pixel < at) return 1;
    if (pixel === at) return 0.5 + far - (far * far) / 2;
    return pixel === at + 1 ? (far * far) / 2 : 0;
  };
  const weights = Float64Array.from({ length: last - first + 1 }, (_, index) =>
    met.reduce((sum, corner) => sum + corner.weight * share(first + index, corner), 0),
  );
  return { first, weights };
}

/**
 * The mean of a plane over the time that a shutter is open while it is moved along one side, in place. What it is
 * moved away from is filled as its edges say.
 * @param shifts pixels, at least two, at instants that lie evenly in time
 * @see a mean over an interval, kept up to date by what enters and what leaves it: a running mean
 */
export function smearPlane(plane: Uint8Array, size: Size, { along, shifts }: Smear, edges: Edges): void {
  const length = size[along];
  const corners = cornersOf(shifts);
  const all = corners.map(({ shift }) => shift);
  const before = Math.ceil(Math.max(...all)) + 1;
  const reach = length + before + Math.ceil(Math.max(0, -Math.min(...all))) + 3;
  const places = Int32Array.from({ length: reach }, (_, at) => foldIndex(at - before, 0, length, edges));
  const met = corners.map(({ shift, weight }): Met => {
    const at = Math.floor(before - shift);
    return { at, far: before - shift - at, weight };
  });
  if (along === 'width') smearRows(plane, size, places, met);
  else smearColumns(plane, size, places, met);
}

function smearRows(
  plane: Uint8Array,
  { width, height }: Size,
  places: Int32Array,
  met: readonly Met[],
): void {
  const line = new Uint8Array(places.length);
  const steps = new Float64Array(width);
  const { first, weights } = kernelOf(met, places.length);
  const [final, ...others] = met;
  for (let y = 0; y < height; y++) {
    const row = plane.subarray(y * width, (y + 1) * width);
    for (let at = 0; at < places.length; at++) line[at] = row[places[at]];
    let value = 0.5;
    for (let at = 0; at < weights.length; at++) value += weights[at] * line[first + at];
    steps.fill(0);
    for (const corner of others) addSteps(steps, line, corner.at, changeOf(corner));
    sumUp(row, value, steps, line, final.at, changeOf(final));
  }
}

/** What a corner changes at every place of a line. */
function addSteps(
  steps: Float64Array,
  line: Uint8Array,
  from: number,
  [one, two, three]: [number, number, number],
): void {
  let [near, next] = [line[from], line[from + 1]];
  for (let at = 0; at < steps.length; at++) {
    const last = line[from + at + 2];
    steps[at] += one * near + two * next + three * last;
    near = next;
    next = last;
  }
}

/** Codes that begin with a value, each a step on from the one before; the last corner's part of each is found here. */
function sumUp(
  row: Uint8Array,
  start: number,
  steps: Float64Array,
  line: Uint8Array,
  from: number,
  [one, two, three]: [number, number, number],
): void {
  let value = start;
  let [near, next] = [line[from], line[from + 1]];
  for (let at = 0; at < row.length; at++) {
    row[at] = value < 0 ? 0 : value > 255 ? 255 : value;
    const last = line[from + at + 2];
    value += steps[at] + one * near + two * next + three * last;
    near = next;
    next = last;
  }
}

function smearColumns(
  plane: Uint8Array,
  { width, height }: Size,
  places: Int32Array,
  met: readonly Met[],
): void {
  const source = plane.slice();
  const rowAt = (place: number) => source.subarray(places[place] * width, (places[place] + 1) * width);
  const values = new Float64Array(width).fill(0.5);
  const { first, weights } = kernelOf(met, places.length);
  weights.forEach((weight, at) => addRow(values, rowAt(first + at), weight));
  for (let y = 0; y < height; y++) {
    const row = plane.subarray(y * width, (y + 1) * width);
    for (let x = 0; x < width; x++) row[x] = values[x] < 0 ? 0 : values[x] > 255 ? 255 : values[x];
    for (const corner of met) {
      const [one, two, three] = changeOf(corner);
      const at = corner.at + y;
      addRows(values, [rowAt(at), rowAt(at + 1), rowAt(at + 2)], one, two, three);
    }
  }
}

function addRow(values: Float64Array, row: Uint8Array, weight: number): void {
  for (let x = 0; x < values.length; x++) values[x] += weight * row[x];
}

function addRows(
  values: Float64Array,
  [near, next, last]: [Uint8Array, Uint8Array, Uint8Array],
  one: number,
  two: number,
  three: number,
): void {
  for (let x = 0; x < values.length; x++) values[x] += one * near[x] + two * next[x] + three * last[x];
}

/** codes by which two matrices may differ in what is not a shift, as pixels at the far end of a frame */
const alike = 0.01;

/**
 * How one layer is smeared that is nothing but moved along one side while the shutter is open, where that fills the
 * frame along it; null where it is more than that.
 * @param lists what is painted at each instant; the caller sees to it that all show the same picture
 */
export function smearOf(lists: readonly DrawList[], frame: Size): Smear | null {
  const [first] = lists;
  const [item] = first;
  if (lists.length < 3 || first.length !== 1 || item.edges === 'empty' || item.mask || item.opacity < 1)
    return null;
  const [a, b, c, d, e, f] = item.matrix;
  if (b !== 0 || c !== 0) return null;
  const isSame = lists.every(([one, ...others]) => {
    const [oa, ob, oc, od] = one.matrix;
    const turned = ob !== 0 || oc !== 0;
    const scaled = Math.abs(oa - a) * one.size.width > alike || Math.abs(od - d) * one.size.height > alike;
    const other = one.media !== item.media || one.edges !== item.edges;
    return others.length === 0 && !turned && !scaled && !other && !one.mask && one.opacity >= 1;
  });
  if (!isSame) return null;
  const [xs, ys] = [4, 5].map((axis) => lists.map(([one]) => one.matrix[axis]));
  const spread = (values: readonly number[]) => Math.max(...values) - Math.min(...values);
  const along = spread(ys) <= alike ? 'width' : spread(xs) <= alike ? 'height' : null;
  if (!along) return null;
  const [scale, rest] = along === 'width' ? [a, e] : [d, f];
  if (Math.abs(scale * item.size[along] - frame[along]) > 0.5) return null;
  const shifts = along === 'width' ? xs : ys;
  const goesOn = shifts.every((shift, at) => at < 2 || (shift - shifts[at - 1]) * (shifts[1] - rest) >= 0);
  return goesOn ? { along, shifts } : null;
}
