import type { Flow } from '../../picture/between';
import type { YuvImage } from '../../picture/planes';
import { betweenLooks, settle, type Settled, type Unlooked } from './between-looks';
import { carried, nothing, type Looked, type Said } from './carried';

/** a picture in which nobody was found counts so much: finders miss somebody more often than they make somebody up. By trial */
const ofNone = 0.5;
/** somebody counts as no less than this share of a picture. By trial */
const leastShown = 0.05;

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
 * exponential mean to both sides; of what is thin, moves otherwise than in blocks, or was hidden, each picture says what
 * it says by itself.
 */
export class Agreement {
  private readonly looked: Looked[] = [];

  /**
   * Adds the next picture of the stretch.
   * @param picture about as large as movement is looked for in it, all of one size
   * @param flow how the picture before moves to this one, as seen in this one; null for the first
   * @returns how many of its pixels show something else than the picture before, as a share of those that show somebody;
   *   infinite for the first
   */
  add(picture: YuvImage, flow: Flow | null): number {
    const last = this.looked.at(-1);
    const next: Looked = {
      picture,
      likely: new Uint8Array(picture.y.length),
      counts: 0,
      before: nothing(picture),
      flow,
    };
    this.looked.push(next);
    if (!last || !flow) return Infinity;
    const { said, others } = carried(last, last.before, next, flow, 1);
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
    let [nextLook, unlooked]: [Settled | null, Unlooked[]] = [null, []];
    for (const one of this.looked.toReversed()) {
      const said: Said =
        later?.flow && after ? carried(later, after, one, later.flow, -1).said : nothing(one.picture);
      const agreed = new Uint8Array(one.likely.length);
      for (let pixel = 0; pixel < agreed.length; pixel++) {
        const sum = one.counts * one.likely[pixel] + one.before.sum[pixel] + said.sum[pixel];
        const weight = one.counts + one.before.weight[pixel] + said.weight[pixel];
        agreed[pixel] = weight > 0 ? sum / weight + 0.5 : 0;
      }
      [after, later] = [said, one];
      if (one.counts === 0) {
        unlooked.push({ one, agreed });
        continue;
      }
      const look = settle(one, agreed);
      yield* betweenLooks(look, unlooked, nextLook);
      yield look.likely;
      [nextLook, unlooked] = [look, []];
    }
    yield* betweenLooks(null, unlooked, nextLook);
  }
}
