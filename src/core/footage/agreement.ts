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

/** of what a pixel's neighbour in time says, so little is left where it shows something else; and somebody counts as no less than this share of a picture. By trial */
const [leastCarried, leastShown] = [0.5, 0.05];

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

/** The value a share to the right of a pixel and a share below it. */
const mixedAt = (of: Float32Array, at: number, width: number, right: number, down: number): number => {
  const top = of[at] + right * (of[at + 1] - of[at]);
  const bottom = of[at + width] + right * (of[at + width + 1] - of[at + width]);
  return top + down * (bottom - top);
};

/**
 * What a picture and those beyond it say, carried to its neighbour along what moves; less where that shows something else.
 * @param flow from the earlier of the two to the later
 * @param way 1 where `to` is the later, -1 where it is the earlier
 * @returns with how many pixels show something else
 */
function carried(
  from: Looked,
  beyond: Said,
  to: Looked,
  flow: Flow,
  way: 1 | -1,
): { said: Said; others: number } {
  const { width, height, y: luma } = to.picture;
  const { dx, dy } = everyPixel(flow);
  const [light, sums, weights] = [
    Float32Array.from(from.picture.y),
    beyond.sum.slice(),
    beyond.weight.slice(),
  ];
  for (let pixel = 0; pixel < sums.length; pixel++) {
    sums[pixel] += from.counts * from.likely[pixel];
    weights[pixel] += from.counts;
  }
  const said = nothing(to.picture);
  const differs = new Float32Array(width * height);
  for (let y = 0, pixel = 0; y < height; y++)
    for (let x = 0; x < width; x++, pixel++) {
      const fromX = x - way * dx[pixel];
      const fromY = y - way * dy[pixel];
      if (fromX < 0 || fromY < 0 || fromX > width - 1 || fromY > height - 1) {
        differs[pixel] = 255;
        continue;
      }
      const column = Math.min(width - 2, Math.floor(fromX));
      const row = Math.min(height - 2, Math.floor(fromY));
      const [right, down] = [fromX - column, fromY - row];
      const at = row * width + column;
      differs[pixel] = Math.abs(mixedAt(light, at, width, right, down) - luma[pixel]);
      said.sum[pixel] = mixedAt(sums, at, width, right, down);
      said.weight[pixel] = mixedAt(weights, at, width, right, down);
    }
  const means = meansOf(to.picture, differs, round);
  let others = 0;
  for (let pixel = 0; pixel < means.length; pixel++) {
    const share = kept * Math.exp(-((means[pixel] / unlike) ** 2));
    if (share < leastCarried) others++;
    said.sum[pixel] *= share;
    said.weight[pixel] *= share;
  }
  return { said, others };
}

/** Pixels that more likely than not show somebody. */
function shownIn({ sum, weight }: Said): number {
  let shown = 0;
  for (let pixel = 0; pixel < sum.length; pixel++) if (2 * sum[pixel] > 255 * weight[pixel]) shown++;
  return shown;
}

/**
 * Who is in the pictures of a stretch, as each of them and its neighbours in time agree: what was found in one picture is
 * carried to the others along what moves, so that somebody who is missed in a picture stays, what is taken for somebody
 * in a few of them goes, and of pictures in which nobody looks for people their neighbours say who is there. An
 * exponential mean to both sides; of what moves otherwise than in blocks, or was hidden, each picture says what it says
 * by itself.
 */
export class Agreement {
  private readonly looked: Looked[] = [];

  /**
   * Adds the next picture of the stretch.
   * @param picture about as large as movement is looked for in it, all of one size
   * @returns how many of its pixels show something else than the picture before, as a share of those that show somebody;
   *   infinite for the first
   */
  add(picture: YuvImage): number {
    const last = this.looked.at(-1);
    const next: Looked = {
      picture,
      likely: new Uint8Array(picture.y.length),
      counts: 0,
      before: nothing(picture),
      flow: last ? flowBetween(last.picture, picture, 1) : null,
    };
    this.looked.push(next);
    if (!last || !next.flow) return Infinity;
    const { said, others } = carried(last, last.before, next, next.flow, 1);
    next.before = said;
    return others / Math.max(shownIn(said), leastShown * picture.y.length);
  }

  /**
   * Says who was found in the picture that was added last. Of those in which nobody looked, their neighbours tell.
   * @param likely how likely each of its pixels shows somebody, 0..255; null where nobody was found
   */
  found(likely: Uint8Array | null): void {
    const last = this.looked[this.looked.length - 1];
    last.likely = likely ?? last.likely;
    last.counts = likely ? 1 : ofNone;
  }

  /** How likely each pixel shows somebody, 0..255: picture by picture, from the last one to the first. */
  *backwards(): Generator<Uint8Array> {
    let [after, later]: [Said | null, Looked | null] = [null, null];
    for (const one of this.looked.toReversed()) {
      const said: Said =
        later?.flow && after ? carried(later, after, one, later.flow, -1).said : nothing(one.picture);
      const agreed = new Uint8Array(one.likely.length);
      for (let pixel = 0; pixel < agreed.length; pixel++) {
        const sum = one.counts * one.likely[pixel] + one.before.sum[pixel] + said.sum[pixel];
        const weight = one.counts + one.before.weight[pixel] + said.weight[pixel];
        agreed[pixel] = weight > 0 ? Math.round(sum / weight) : 0;
      }
      yield agreed;
      [after, later] = [said, one];
    }
  }
}
