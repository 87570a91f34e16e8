import { carried, nothing, type Looked, type Said } from './carried';
import { settled } from './own-word';

/** A picture in which nobody looked for people, and what was agreed on of it. */
export type Unlooked = { one: Looked; agreed: Uint8Array };

/** A picture in which somebody looked, once it is settled who is in it; and whether that is another than was agreed on. */
export type Settled = Looked & { isCorrected: boolean };

/** what was agreed on of a picture counts so much beside the looks to both sides. By trial */
const ofAgreed = 0.1;
/** share of who shows that may change before what was agreed on counts as put right. By trial */
const mostAlike = 0.02;

/** Settles who is in a picture in which somebody looked. */
export function settle(one: Looked, agreed: Uint8Array): Settled {
  const likely = settled(one.picture, one.likely, agreed);
  let [shown, changed] = [0, 0];
  for (let pixel = 0; pixel < likely.length; pixel++) {
    if (likely[pixel] > 127) shown++;
    if (likely[pixel] > 127 !== agreed[pixel] > 127) changed++;
  }
  return { ...one, likely, counts: 1, isCorrected: changed > mostAlike * shown };
}

/** What a look says of pictures one after the other, the nearest first: later ones where `way` is 1, else earlier ones. */
function saidOf(look: Settled, pictures: readonly Looked[], way: 1 | -1): Said[] {
  let [from, beyond]: [Looked, Said] = [look, nothing(look.picture)];
  return pictures.map((to) => {
    const flow = way === 1 ? to.flow : from.flow;
    beyond = flow ? carried(from, beyond, to, flow, way).said : nothing(to.picture);
    from = to;
    return beyond;
  });
}

/**
 * Who is in pictures in which nobody looked, between two in which somebody did.
 * @param unlooked from the last to the first
 * @returns likelihoods of each, 0..255 a pixel: what was agreed on; where one of the looks was put right, what both of
 *   them say, carried along what moves, the nearer one more
 */
export function betweenLooks(
  earlier: Settled | null,
  unlooked: readonly Unlooked[],
  later: Settled | null,
): Uint8Array[] {
  if (!earlier?.isCorrected && !later?.isCorrected) return unlooked.map(({ agreed }) => agreed);
  const pictures = unlooked.map(({ one }) => one);
  const fromEarlier = earlier ? saidOf(earlier, pictures.toReversed(), 1).reverse() : [];
  const fromLater = later ? saidOf(later, pictures, -1) : [];
  return unlooked.map(({ agreed }, index) => {
    const nearLater = 1 - (index + 1) / (unlooked.length + 1);
    const looks = [
      { said: fromEarlier[index], near: 1 - nearLater },
      { said: fromLater[index], near: nearLater },
    ].filter(({ said }) => said !== undefined);
    return agreed.map((value, pixel) => {
      let [sum, weight] = [ofAgreed * value, ofAgreed];
      for (const { said, near } of looks) {
        sum += near * said.sum[pixel];
        weight += near * said.weight[pixel];
      }
      return Math.round(sum / weight);
    });
  });
}
