import type { Size } from '../../geometry/size';
import { flood } from '../../picture/flood';
import type { RgbaImage } from '../../picture/image';
import { median } from '../../statistics';
import { forcedBy, copyStrokes, forcedRadius, type Stroke } from './strokes';

/** Who is to be kept, frame by frame: the take that alone shows somebody at a cell, -1 where none or several do. */
export type Kept = Size & { frames: readonly Int8Array[] };

/** cells across the picture, about */
const across = 120;
/** frames of each take from which is told what stands still */
const mostSamples = 24;
/** codes by which a cell differs from what stands there, in one colour at least */
const leastDifference = 14;

/** Pictures as means of square cells, three colours each; of large cells every second pixel each way is looked at. */
function cellsOf({ width, height, data }: RgbaImage, side: number, size: Size): Float32Array {
  const sums = new Float32Array(size.width * size.height * 3);
  const counts = new Uint16Array(size.width * size.height);
  const step = side > 2 ? 2 : 1;
  const columns = Int32Array.from({ length: width }, (_, x) => Math.floor(x / side));
  for (let y = 0; y < height; y += step) {
    const row = Math.floor(y / side) * size.width;
    for (let x = 0, at = 4 * y * width; x < width; x += step, at += 4 * step) {
      const cell = row + columns[x];
      counts[cell]++;
      sums[3 * cell] += data[at];
      sums[3 * cell + 1] += data[at + 1];
      sums[3 * cell + 2] += data[at + 2];
    }
  }
  for (let index = 0; index < sums.length; index++) sums[index] /= counts[Math.floor(index / 3)];
  return sums;
}

type Cells = Float32Array;

const differs = (one: Cells, other: Cells, cell: number): boolean =>
  Math.abs(one[3 * cell] - other[3 * cell]) > leastDifference ||
  Math.abs(one[3 * cell + 1] - other[3 * cell + 1]) > leastDifference ||
  Math.abs(one[3 * cell + 2] - other[3 * cell + 2]) > leastDifference;

/** What a take shows most of the time. */
const restOf = (samples: readonly Cells[]): Cells =>
  samples[0].map((_, index) => median(samples.map((sample) => sample[index])));

/**
 * The empty set as far as takes show it: what they agree on, or what the one rests on and the others show at some time;
 * NaN where that does not tell.
 */
function emptySet(takes: readonly (readonly Cells[])[]): Cells {
  const samples = takes.map((take) => {
    const step = Math.max(1, Math.ceil(take.length / mostSamples));
    return take.filter((_, frame) => frame % step === 0);
  });
  const rests = samples.map(restOf);
  const out = Float32Array.from(rests[0]);
  for (let cell = 0; cell < out.length / 3; cell++) {
    const shown = rests.map((rest) =>
      samples.reduce(
        (sum, others) => sum + others.filter((other) => !differs(rest, other, cell)).length / others.length,
        0,
      ),
    );
    const most = Math.max(...shown);
    const best = shown.indexOf(most);
    // Where nothing is shown by more takes than the one that rests on it, each may be the set.
    const isTold = shown.every(
      (share, take) => share < most - 0.02 || !differs(rests[best], rests[take], cell),
    );
    for (let colour = 3 * cell; colour < 3 * cell + 3; colour++)
      out[colour] = isTold ? rests[best][colour] : NaN;
  }
  return out;
}

/** Who alone shows somebody at each cell, and at which cells takes differ without telling who. */
type Plane = { kept: Int8Array; open: Uint8Array };

function standingAlone(takes: readonly Cells[], empty: Cells): Plane {
  const count = empty.length / 3;
  const plane: Plane = { kept: new Int8Array(count).fill(-1), open: new Uint8Array(count) };
  for (let cell = 0; cell < count; cell++) {
    if (Number.isNaN(empty[3 * cell])) {
      plane.open[cell] = takes.some((take) => differs(take, takes[0], cell)) ? 1 : 0;
      continue;
    }
    const there = takes.flatMap((take, index) => (differs(take, empty, cell) ? [index] : []));
    if (there.length === 1) [plane.kept[cell]] = there;
  }
  return plane;
}

/** Gives whoever is beneath a mark, and not told otherwise, to its take: all of them, as far as takes differ there. */
function spread(size: Size, { kept, open }: Plane, marks: Int8Array): void {
  const seen = new Uint8Array(open.length);
  for (let cell = 0; cell < marks.length; cell++) {
    if (marks[cell] < 0 || !open[cell]) continue;
    for (const one of flood(size, open, seen, cell)) {
      kept[one] = marks[cell];
      open[one] = 0;
    }
  }
}

/**
 * Who is to be kept: everybody who moves, in the take in which they do, and whoever strokes lie on, whether they move or not.
 * @param takes pictures of each take, same size and number of frames
 * @param every how many frames apart is looked, besides at those with strokes; between, what was seen last counts
 */
export function whoIsKept(takes: readonly RgbaImage[][], strokes: readonly Stroke[], every: number): Kept {
  const [[{ width, height }]] = takes;
  const side = Math.max(1, Math.round(width / across));
  const size = { width: Math.ceil(width / side), height: Math.ceil(height / side) };
  const marked = new Set(strokes.map(({ frame }) => frame));
  const all = [...Array(takes[0].length).keys()];
  const looked = all.filter((frame) => frame % every === 0 || marked.has(frame));
  const cells = takes.map((take) => looked.map((frame) => cellsOf(take[frame], side, size)));
  const empty = emptySet(cells);
  const own = copyStrokes(strokes, forcedRadius({ width, height }), side);
  const planes = looked.map((frame, index) => {
    const plane = standingAlone(
      cells.map((take) => take[index]),
      empty,
    );
    const here = own.filter((stroke) => stroke.frame === undefined || stroke.frame === frame);
    if (here.length > 0) spread(size, plane, forcedBy(size, here));
    return plane;
  });
  // Whoever stands still is told by one stroke: from frame to frame they stay whose they were.
  for (let index = 1; index < planes.length; index++) spread(size, planes[index], planes[index - 1].kept);
  for (let index = planes.length - 2; index >= 0; index--)
    spread(size, planes[index], planes[index + 1].kept);
  const frames = all.map((frame) => planes[looked.findLastIndex((one) => one <= frame)].kept);
  return { ...size, frames };
}
