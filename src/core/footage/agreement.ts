import type { Size } from '../geometry/size';
import { everyPixel, flowBetween, type Flow } from '../picture/between';
import { meansOf } from '../picture/means';
import type { YuvImage } from '../picture/planes';

/** what a picture says counts so much less in the next one, and the codes by which what moved may differ. By trial */
const [kept, unlike] = [0.95, 20];
/** a picture in which nobody was found counts so much: finders miss somebody more often than they make somebody up. By trial */
const ofNone = 0.5;
/** pixels to each side over which it is looked whether the same thing moved here */
const round = 2;

/** What pictures beyond one say of its pixels: likelihoods, each as much as it counts, and how much they all count. */
type Said = { sum: Float32Array; weight: Float32Array };

/** A picture as it is kept until those after it are known. */
type Looked = {
  picture: YuvImage;
  /** how likely each pixel shows somebody, 0..255, and how much that counts */
  likely: Uint8Array;
  counts: number;
  /** what the pictures before it say, and the movement from the one before; null of the first */
  before: Said;
  flow: Flow | null;
};

const nothing = ({ width, height }: Size): Said => ({
  sum: new Float32Array(width * height),
  weight: new Float32Array(width * height),
});

/**
 * What a picture and those beyond it say, carried to its neighbour along what moves; less where that shows something else.
 * @param flow from the earlier of the two to the later
 * @param way 1 where `to` is the later, -1 where it is the earlier
 */
function carried(from: Looked, beyond: Said, to: Looked, flow: Flow, way: 1 | -1): Said {
  const { width, height, y: luma } = to.picture;
  const moves = everyPixel(flow);
  const sums = beyond.sum.map((sum, pixel) => sum + from.counts * from.likely[pixel]);
  const said = nothing(to.picture);
  const differs = new Float32Array(width * height);
  for (let y = 0, pixel = 0; y < height; y++)
    for (let x = 0; x < width; x++, pixel++) {
      const fromX = x - way * moves.dx[pixel];
      const fromY = y - way * moves.dy[pixel];
      if (fromX < 0 || fromY < 0 || fromX > width - 1 || fromY > height - 1) {
        differs[pixel] = 255;
        continue;
      }
      const column = Math.min(width - 2, Math.floor(fromX));
      const row = Math.min(height - 2, Math.floor(fromY));
      const [right, down] = [fromX - column, fromY - row];
      const at = row * width + column;
      const mixed = (of: Float32Array | Uint8Array) => {
        const top = of[at] + right * (of[at + 1] - of[at]);
        const bottom = of[at + width] + right * (of[at + width + 1] - of[at + width]);
        return top + down * (bottom - top);
      };
      differs[pixel] = Math.abs(mixed(from.picture.y) - luma[pixel]);
      said.sum[pixel] = mixed(sums);
      said.weight[pixel] = mixed(beyond.weight) + from.counts;
    }
  meansOf(to.picture, differs, round).forEach((mean, pixel) => {
    const share = kept * Math.exp(-((mean / unlike) ** 2));
    said.sum[pixel] *= share;
    said.weight[pixel] *= share;
  });
  return said;
}

/**
 * Who is in the pictures of a stretch, as each of them and its neighbours in time agree: what was found in one picture is
 * carried to the others along what moves, so that somebody who is missed in a picture stays, and what is taken for
 * somebody in a few of them goes. An exponential mean to both sides; of what moves otherwise than in blocks, or was hidden,
 * each picture says what it says by itself.
 */
export class Agreement {
  private readonly looked: Looked[] = [];

  /**
   * Adds the next picture of the stretch.
   * @param picture about as large as movement is looked for in it, all of one size
   * @param likely how likely each of its pixels shows somebody, 0..255; null where nobody was found
   */
  add(picture: YuvImage, likely: Uint8Array | null): void {
    const last = this.looked.at(-1);
    const next: Looked = {
      picture,
      likely: likely ?? new Uint8Array(picture.y.length),
      counts: likely ? 1 : ofNone,
      before: nothing(picture),
      flow: last ? flowBetween(last.picture, picture, 1) : null,
    };
    if (last && next.flow) next.before = carried(last, last.before, next, next.flow, 1);
    this.looked.push(next);
  }

  /** How likely each pixel shows somebody, 0..255: picture by picture, from the last one to the first. */
  *backwards(): Generator<Uint8Array> {
    let [after, later]: [Said | null, Looked | null] = [null, null];
    for (const one of this.looked.toReversed()) {
      const said: Said =
        later?.flow && after ? carried(later, after, one, later.flow, -1) : nothing(one.picture);
      yield one.likely.map((own, pixel) => {
        const sum = one.counts * own + one.before.sum[pixel] + said.sum[pixel];
        return Math.round(sum / (one.counts + one.before.weight[pixel] + said.weight[pixel]));
      });
      [after, later] = [said, one];
    }
  }
}
