import type { Size } from '../../geometry/size';
import type { RgbaImage } from '../../picture/image';
import { meansOf } from '../../picture/means';
import { improve, pairOf, step, type Volume } from './cut';
import { seenReach, type Disagreement } from './join-cost';
import type { Kept } from './movers';
import { copyStrokes, forcedBy, forcedRadius, nearStrokes, type Forced, type Stroke } from './strokes';

/** Frames over which a division stays the same, `until` excluded. */
export type Span = { from: number; until: number };

/** What joins cost in each frame, in steps of a volume, for each two takes by `pairOf`. */
export type Costs = Size & { frames: number; takes: number; between: readonly Uint8Array[] };

/** What joins cost everywhere: a pixel costs what lies about it as well, since an eye takes both together. */
export function costsOf(takes: readonly (readonly RgbaImage[])[]): Costs {
  const [[{ width, height }]] = takes;
  const size = { width, height };
  const area = width * height;
  const frames = takes[0].length;
  const between: Uint8Array[] = [];
  const squares = new Float32Array(area);
  for (let a = 0; a < takes.length; a++)
    for (let b = a + 1; b < takes.length; b++) {
      const costs = new Uint8Array(area * frames);
      for (let frame = 0; frame < frames; frame++) {
        const [one, other] = [takes[a][frame].data, takes[b][frame].data];
        for (let pixel = 0, at = 0; pixel < area; pixel++, at += 4) {
          const red = one[at] - other[at];
          const green = one[at + 1] - other[at + 1];
          const blue = one[at + 2] - other[at + 2];
          squares[pixel] = (red * red + green * green + blue * blue) / 3;
        }
        const means = meansOf(size, squares, seenReach(size));
        const from = frame * area;
        for (let pixel = 0; pixel < area; pixel++)
          costs[from + pixel] = Math.min(255, Math.round(Math.sqrt(means[pixel]) / step));
      }
      between[pairOf(takes.length, a, b)] = costs;
    }
  return { ...size, frames, takes: takes.length, between };
}

/** What joins cost over each of some spans, in steps of a volume, for each two takes by `pairOf`. */
type SpanCosts = Size & { takes: number; spans: readonly Span[]; between: readonly Float32Array[] };

/** What joins cost that stay the same over all frames. @param seen how two takes differ over them */
export function costsOver(
  size: Size,
  takes: number,
  frames: number,
  seen: (a: number, b: number) => Disagreement,
): SpanCosts {
  const between: Float32Array[] = [];
  for (let a = 0; a < takes; a++)
    for (let b = a + 1; b < takes; b++) {
      const squares = Float32Array.from(seen(a, b).sum, (sum) => sum / (3 * frames));
      const means = meansOf(size, squares, seenReach(size));
      between[pairOf(takes, a, b)] = means.map((mean) => Math.sqrt(mean) / step);
    }
  return { ...size, takes, spans: [{ from: 0, until: frames }], between };
}

/** Root mean squares of frames' costs over spans, so that a hand that crosses for a moment weighs. */
export function costsOfSpans({ width, height, takes, between }: Costs, spans: readonly Span[]): SpanCosts {
  const area = width * height;
  const over = (values: Uint8Array) => {
    const out = new Float32Array(area * spans.length);
    spans.forEach(({ from, until }, z) => {
      const plane = out.subarray(z * area, (z + 1) * area);
      for (let frame = from; frame < until; frame++)
        for (let pixel = 0, at = frame * area; pixel < area; pixel++, at++)
          plane[pixel] += values[at] * values[at];
      for (let pixel = 0; pixel < area; pixel++) plane[pixel] = Math.sqrt(plane[pixel] / (until - from));
    });
    return out;
  };
  return { width, height, takes, spans, between: between.map(over) };
}

/** Means of blocks of two pixels each way. */
function halved({ width, height, depth }: Volume, values: ArrayLike<number>): Float32Array {
  const [across, down] = [Math.ceil(width / 2), Math.ceil(height / 2)];
  const out = new Float32Array(across * down * depth);
  for (let z = 0, block = 0; z < depth; z++)
    for (let y = 0; y < down; y++)
      for (let x = 0; x < across; x++, block++) {
        const [left, right] = [2 * x, Math.min(width - 1, 2 * x + 1)];
        const above = (z * height + 2 * y) * width;
        const below = (z * height + Math.min(height - 1, 2 * y + 1)) * width;
        out[block] =
          (values[above + left] + values[above + right] + values[below + left] + values[below + right]) / 4;
      }
  return out;
}

/** Strokes of a span's frames; spans without any of their own share what is always forced. */
const forcedIn = (size: Size, strokes: readonly Stroke[], spans: readonly Span[]): Forced => {
  const always = forcedBy(
    size,
    strokes.filter(({ frame }) => frame === undefined),
  );
  const planes = spans.map(({ from, until }) => {
    const counts = ({ frame }: Stroke) => frame === undefined || (frame >= from && frame < until);
    const own = strokes.filter(counts);
    return own.some(({ frame }) => frame !== undefined) ? forcedBy(size, own) : always;
  });
  return (z) => planes[z];
};

/** Who is to be kept over spans, as large as a volume: nobody where frames of a span say several. */
function keptIn(size: Size, kept: Kept, spans: readonly Span[]): (span: number) => Int8Array {
  const cells = kept.width * kept.height;
  const own = new Int8Array(cells * spans.length).fill(-1);
  spans.forEach(({ from, until }, z) => {
    for (let cell = 0; cell < cells; cell++) {
      let take = -1;
      for (let frame = from; frame < until; frame++) {
        const here = kept.frames[frame][cell];
        if (here >= 0) take = take < 0 || take === here ? here : several;
      }
      own[z * cells + cell] = take === several ? -1 : take;
    }
  });
  const area = size.width * size.height;
  const planes = resized(own, kept, size, spans.length);
  return (z) => planes.subarray(z * area, (z + 1) * area);
}
const several = 127;
/** what it costs a pixel that somebody who is to be kept does not show, in codes */
const keeping = 4;

/** a copy is made smaller down to this width */
const leastWidth = 72;
/** pixels round the division of a copy within which the next larger one is divided */
const band = 2;

/** The whole and its copies of half the size, a quarter …; the smallest first. */
function volumesOf(costs: SpanCosts, strokes: readonly Stroke[], kept: Kept): Volume[] {
  const { spans } = costs;
  const volumes: Volume[] = [
    {
      width: costs.width,
      height: costs.height,
      depth: spans.length,
      takes: costs.takes,
      costs: costs.between,
      inTime: 1,
      forced: forcedIn(costs, copyStrokes(strokes, forcedRadius(costs), 1), spans),
      kept: keptIn(costs, kept, spans),
      keeping,
    },
  ];
  for (let by = 2; volumes[0].width > leastWidth; by *= 2) {
    const [larger] = volumes;
    const size = { width: Math.ceil(larger.width / 2), height: Math.ceil(larger.height / 2) };
    volumes.unshift({
      ...larger,
      ...size,
      costs: larger.costs.map((values) => halved(larger, values)),
      // What changes in time is an area, and what changes in a picture is a line.
      inTime: by,
      forced: forcedIn(size, copyStrokes(strokes, forcedRadius(costs), by), spans),
      kept: keptIn(size, kept, spans),
      keeping: keeping * by,
    });
  }
  // What lies nearer to which stroke tells only where takes agree: once the smallest copy is divided, that is told.
  const [smallest] = volumes;
  const by = costs.width / smallest.width;
  const all = forcedBy(smallest, copyStrokes(strokes, forcedRadius(costs), by));
  smallest.prior = nearStrokes(smallest, costs.takes, all);
  return volumes;
}

/** Pixels beside which another take shows, and those around them, of spans that may change. */
function aroundDivision(
  { width, height, depth, forced }: Volume,
  labels: Uint8Array,
  open: readonly boolean[],
): Uint8Array {
  const area = width * height;
  const free = new Uint8Array(labels.length);
  for (let z = 0; z < depth; z++)
    if (open[z])
      forced(z).forEach((take, pixel) => {
        if (take >= 0) labels[z * area + pixel] = take;
      });
  const spread = (z: number, x: number, y: number) => {
    const [left, right] = [Math.max(0, x - band), Math.min(width, x + band + 2)];
    for (let v = Math.max(0, y - band); v <= Math.min(height - 1, y + band + 1); v++)
      free.fill(1, z * area + v * width + left, z * area + v * width + right);
  };
  for (let z = 0; z < depth; z++) {
    if (!open[z]) continue;
    for (let y = 0, p = z * area; y < height; y++)
      for (let x = 0; x < width; x++, p++) {
        const own = labels[p];
        if (x + 1 < width && own !== labels[p + 1]) spread(z, x, y);
        else if (y + 1 < height && own !== labels[p + width]) spread(z, x, y);
        else if (z + 1 < depth && own !== labels[p + area]) spread(z, x, y);
        else if (z > 0 && own !== labels[p - area]) spread(z, x, y);
      }
  }
  return free;
}

/** A division in another size: each pixel as the nearest one. */
function resized<Labels extends Uint8Array<ArrayBuffer> | Int8Array>(
  labels: Labels,
  from: Size,
  to: Size,
  depth: number,
): Labels {
  const Plane = labels.constructor as new (length: number) => Labels;
  const out = new Plane(to.width * to.height * depth);
  const columns = Int32Array.from({ length: to.width }, (_, x) =>
    Math.min(from.width - 1, Math.floor(((x + 0.5) * from.width) / to.width)),
  );
  for (let z = 0, p = 0; z < depth; z++)
    for (let y = 0; y < to.height; y++) {
      const line = Math.min(from.height - 1, Math.floor(((y + 0.5) * from.height) / to.height));
      const row = (z * from.height + line) * from.width;
      for (let x = 0; x < to.width; x++, p++) out[p] = labels[row + columns[x]];
    }
  return out;
}

/**
 * Divides spans of frames between takes so that the joins run where the takes agree, and change little from span to
 * span: a small copy first, then a band round its answer, up to the full size.
 * @param known take of each pixel of each span; spans that are not `open` stay as they are
 * @returns take of each pixel of each span
 * @see Lombaert, Sun, Grady & Xu 2005, "A multilevel banded graph cuts method for fast image segmentation"
 */
export function divideSpans(
  costs: SpanCosts,
  strokes: readonly Stroke[],
  kept: Kept,
  open: readonly boolean[] = costs.spans.map(() => true),
  known = new Uint8Array(costs.width * costs.height * costs.spans.length),
): Uint8Array<ArrayBuffer> {
  const { spans } = costs;
  const volumes = volumesOf(costs, strokes, kept);
  const [smallest] = volumes;
  let labels = resized(known, costs, smallest, spans.length);
  const area = smallest.width * smallest.height;
  improve(
    smallest,
    labels,
    Uint8Array.from(labels, (_, p) => (open[Math.floor(p / area)] ? 1 : 0)),
  );
  volumes.slice(1).forEach((volume, index) => {
    labels = resized(labels, volumes[index], volume, spans.length);
    const own = volume.width * volume.height;
    if (volume === volumes[volumes.length - 1])
      open.forEach((may, z) => {
        if (!may) labels.set(known.subarray(z * own, (z + 1) * own), z * own);
      });
    improve(volume, labels, aroundDivision(volume, labels, open));
  });
  return labels;
}
