import type { Size } from '../../geometry/size';
import { meansOf } from '../means';

/** Numbers a square: what is told of it, for the means of a neighbourhood. */
const told = {
  inside: 0,
  outside: 1,
  /** sums of luma, blue and red inside, then outside */
  insideColours: 2,
  outsideColours: 5,
  /** sums of their products, of both sides together */
  products: 8,
  count: 14,
};

/**
 * Numbers of a rule: what luma, blue and red count, what is added, and what their sum is shared by to give how much is
 * of the inside; so that rules between squares count by how much they know. Then how much that counts against the drawn
 * edge, whose own weight is one.
 */
export const rule = { luma: 0, blue: 1, red: 2, added: 3, whole: 4, known: 5, count: 6 };

/** what planes of colour lie about */
const middleCode = 128;
/** squares of a side, by how much they tell, without which nothing is told of it */
const leastTold = 0.05;
/** codes of noise that colours have at least on each side */
const leastNoise = 3;
/**
 * Colours scatter about the mean of their side, which is no mixture: what lies so many deviations nearer to the other
 * side still counts as wholly on its own, if that leaves something between them.
 */
const [scatter, mostScatter] = [0.8, 0.4];
/** sides that lie two deviations apart, squared, are told apart as well where it is chance */
const byChance = 4;
/** deviation of the share that a pixel may cover where the drawn edge runs through the middle of what is near it */
const open = 0.5;

/** Sums over squares that reach so many to each side, of several numbers each. */
function sumsNear(values: Float32Array, count: number, { width, height }: Size, reach: number): Float32Array {
  const line = width * count;
  const across = new Float32Array(values.length);
  const near = new Float64Array(count);
  for (let start = 0; start < values.length; start += line) {
    const end = start + line;
    near.fill(0);
    for (let at = start - reach * count; at < end; at += count) {
      const [next, gone] = [at + reach * count, at - (reach + 1) * count];
      if (next < end) for (let one = 0; one < count; one++) near[one] += values[next + one];
      if (gone >= start) for (let one = 0; one < count; one++) near[one] -= values[gone + one];
      if (at >= start) for (let one = 0; one < count; one++) across[at + one] = near[one];
    }
  }
  const out = new Float32Array(values.length);
  const rows = new Float64Array(line);
  for (let y = -reach; y < height; y++) {
    const [next, gone] = [(y + reach) * line, (y - reach - 1) * line];
    if (y + reach < height) for (let one = 0; one < line; one++) rows[one] += across[next + one];
    if (gone >= 0) for (let one = 0; one < line; one++) rows[one] -= across[gone + one];
    if (y >= 0) for (let one = 0, at = y * line; one < line; one++, at++) out[at] = rows[one];
  }
  return out;
}

/**
 * Learns for each square how the colours inside an edge are told from those outside of it, by Fisher's discriminant of
 * its neighbourhood, scaled so that it gives 1 for the mean colour inside and 0 for that outside: what is mixed of both
 * lies between as it is mixed.
 * @param colours luma, blue and red of each square, in codes
 * @param covered share of each square that lies inside
 * @param edge squares to each side between which the edge may lie
 * @param reach squares to each side that are learned from
 * @returns the numbers of {@link rule} for each square; zero where there is nothing to tell
 * @see Fisher 1936, "The use of multiple measurements in taxonomic problems"; colours that are mixed along a line
 *   between both sides: Levin, Lischinski & Weiss 2008, "A closed-form solution to natural image matting"
 */
export function tellSides(
  size: Size,
  colours: readonly Float32Array[],
  covered: Float32Array,
  edge: number,
  reach: number,
): Float32Array {
  const drawn = meansOf(size, covered, edge);
  const free = drawn.map((share) => open * 4 * share * (1 - share));
  // Sums of squares stay small, so that running sums of them stay exact.
  const centred = colours.map((plane) => plane.map((code) => code - middleCode));
  const first = learn(size, centred, covered, drawn, free, reach);
  // An edge that was drawn off mixes both sides up: once it is fitted they are told apart better.
  const fitted = covered.map((share, p) => sharedBy(first, centred, p, share));
  const rules = learn(size, centred, fitted, meansOf(size, fitted, edge), free, reach);
  for (let at = 0; at < rules.length; at += rule.count)
    rules[at + rule.added] -=
      middleCode * (rules[at + rule.luma] + rules[at + rule.blue] + rules[at + rule.red]);
  return rules;
}

/** How much of a square lies inside by its rule, as far as that counts against what is known of it. */
function sharedBy(rules: Float32Array, [luma, blue, red]: readonly Float32Array[], p: number, share: number) {
  const at = rule.count * p;
  const [whole, known] = [rules[at + rule.whole], rules[at + rule.known]];
  if (whole <= 0) return share;
  const sum =
    rules[at + rule.luma] * luma[p] +
    rules[at + rule.blue] * blue[p] +
    rules[at + rule.red] * red[p] +
    rules[at + rule.added];
  return share + (known / (known + 1)) * (Math.min(1, Math.max(0, sum / whole)) - share);
}

/** @param near share of what is near each square that lies inside; @param free deviation of the share that is left open */
function learn(
  size: Size,
  [luma, blue, red]: readonly Float32Array[],
  covered: Float32Array,
  near: Float32Array,
  free: Float32Array,
  reach: number,
): Float32Array {
  const own = new Float32Array(told.count * covered.length);
  for (let p = 0, at = 0; p < covered.length; p++, at += told.count) {
    // The nearer to the edge, the less a square tells: both sides may be mixed in it.
    const inside = covered[p] * near[p] * near[p];
    const outside = (1 - covered[p]) * (1 - near[p]) * (1 - near[p]);
    own[at + told.inside] = inside;
    own[at + told.outside] = outside;
    const colour = [luma[p], blue[p], red[p]];
    for (let i = 0, product = at + told.products; i < 3; i++) {
      own[at + told.insideColours + i] = inside * colour[i];
      own[at + told.outsideColours + i] = outside * colour[i];
      for (let j = i; j < 3; j++) own[product++] = (inside + outside) * colour[i] * colour[j];
    }
  }
  const sums = sumsNear(own, told.count, size, reach);
  const rules = new Float32Array(rule.count * covered.length);
  for (let p = 0; p < covered.length; p++)
    if (free[p] > 1e-3) ruleOf(sums, told.count * p, free[p], rules, rule.count * p);
  return rules;
}

/** @param free deviation of the share that the drawn edge leaves open here */
function ruleOf(sums: Float32Array, from: number, free: number, rules: Float32Array, to: number): void {
  const [inside, outside] = [sums[from + told.inside], sums[from + told.outside]];
  if (inside < leastTold || outside < leastTold) return;
  const [first, second] = [from + told.insideColours, from + told.outsideColours];
  const [inY, inB, inR] = [sums[first] / inside, sums[first + 1] / inside, sums[first + 2] / inside];
  const [outY, outB, outR] = [sums[second] / outside, sums[second + 1] / outside, sums[second + 2] / outside];
  const all = inside + outside;
  const products = from + told.products;
  const noise = leastNoise ** 2;
  const yy = Math.max(0, (sums[products] - inside * inY * inY - outside * outY * outY) / all) + noise;
  const yb = (sums[products + 1] - inside * inY * inB - outside * outY * outB) / all;
  const yr = (sums[products + 2] - inside * inY * inR - outside * outY * outR) / all;
  const bb = Math.max(0, (sums[products + 3] - inside * inB * inB - outside * outB * outB) / all) + noise;
  const br = (sums[products + 4] - inside * inB * inR - outside * outB * outR) / all;
  const rr = Math.max(0, (sums[products + 5] - inside * inR * inR - outside * outR * outR) / all) + noise;
  const [offY, offB, offR] = [inY - outY, inB - outB, inR - outR];
  // The inverse of a symmetric matrix of three, by its cofactors.
  const [c0, c1, c2] = [bb * rr - br * br, yr * br - yb * rr, yb * br - yr * bb];
  const [c3, c4, c5] = [yy * rr - yr * yr, yb * yr - yy * br, yy * bb - yb * yb];
  const size = yy * c0 + yb * c1 + yr * c2;
  if (!(size > 1e-9)) return;
  const wayY = (c0 * offY + c1 * offB + c2 * offR) / size;
  const wayB = (c1 * offY + c3 * offB + c4 * offR) / size;
  const wayR = (c2 * offY + c4 * offB + c5 * offR) / size;
  const apart = wayY * offY + wayB * offB + wayR * offR;
  if (!(apart > 1e-6)) return;
  const unsure = apart * Math.min(mostScatter, scatter / Math.sqrt(apart));
  // Each is one of `apart`, the square of how many deviations both sides are apart, by which rules count.
  rules[to + rule.luma] = wayY;
  rules[to + rule.blue] = wayB;
  rules[to + rule.red] = wayR;
  rules[to + rule.added] = -(wayY * outY + wayB * outB + wayR * outR) - unsure;
  rules[to + rule.whole] = apart - 2 * unsure;
  rules[to + rule.known] = free * free * Math.max(0, apart - byChance);
}
