import type { Size } from '../geometry/size';

/** Connected pieces of a mask, made of runs along rows. */
type Pieces = {
  /** where each run begins and ends, in pixels of the picture, and the piece that it belongs to */
  runs: { from: number; until: number; piece: number }[];
  /** pixels of each piece */
  sizes: number[];
  /** whether it reaches the picture's edge */
  open: boolean[];
};

/** The runs of pixels that have a value, row by row; `rows` says where each row's runs begin. */
function runsOf({ width, height }: Size, mask: Uint8Array, value: 0 | 1) {
  const runs: Pieces['runs'] = [];
  const rows: number[] = [];
  const other = 1 - value;
  for (let y = 0; y < height; y++) {
    rows.push(runs.length);
    const row = mask.subarray(y * width, (y + 1) * width);
    for (let x = row.indexOf(value); x >= 0;) {
      const end = row.indexOf(other, x);
      const until = end < 0 ? width : end;
      runs.push({ from: y * width + x, until: y * width + until, piece: runs.length });
      x = end < 0 ? -1 : row.indexOf(value, end);
    }
  }
  rows.push(runs.length);
  return { runs, rows };
}

/**
 * The pieces of those pixels of a mask that have a value, connected along rows and columns.
 * @param mask 0 or 1 a pixel
 * @see Rosenfeld & Pfaltz 1966, "Sequential operations in digital picture processing"
 */
export function piecesOf(size: Size, mask: Uint8Array, value: 0 | 1): Pieces {
  const { width, height } = size;
  const { runs, rows } = runsOf(size, mask, value);
  const parents = runs.map((_, run) => run);
  const rootOf = (run: number): number => {
    let root = run;
    while (parents[root] !== root) root = parents[root];
    while (parents[run] !== root) [run, parents[run]] = [parents[run], root];
    return root;
  };
  for (let y = 1; y < height; y++) {
    let above = rows[y - 1];
    for (let run = rows[y]; run < rows[y + 1]; run++) {
      const { from, until } = runs[run];
      while (above < rows[y] && runs[above].until + width <= from) above++;
      for (let one = above; one < rows[y] && runs[one].from + width < until; one++) {
        const [first, second] = [rootOf(run), rootOf(one)];
        parents[Math.max(first, second)] = Math.min(first, second);
      }
    }
  }
  const sizes: number[] = [];
  const open: boolean[] = [];
  runs.forEach((run, index) => {
    // A root comes before all that hang on it.
    const root = rootOf(index);
    if (root === index) {
      run.piece = sizes.length;
      sizes.push(0);
      open.push(false);
    } else run.piece = runs[root].piece;
    const { from, until, piece } = run;
    const row = Math.floor(from / width);
    sizes[piece] += until - from;
    if (row === 0 || row === height - 1 || from % width === 0 || until % width === 0) open[piece] = true;
  });
  return { runs, sizes, open };
}
