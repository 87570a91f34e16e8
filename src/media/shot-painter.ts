import type { Size } from '@/core/geometry/size';
import { describeFrame, type DrawItem, type DrawList } from '@/core/picture/draw-list';
import type { RgbaImage } from '@/core/picture/image';
import { mediaIn, type Node } from '@/core/picture/node';
import { PlanarPainter } from '@/core/picture/planar-painter';
import { resizeYuv, rgbaToYuv, yuvToRgba, type YuvImage } from '@/core/picture/planes';
import { paintFrame } from '@/core/picture/reference/paint';
import { untried, type Painters } from '@/core/picture/painters';
import { spotsAt, veiled, type Veil } from '@/core/picture/veil';
import { picturesIn, wishOf, type Wanted } from '@/core/picture/wanted';
import { Card } from './gpu/card';
import type { YuvOf } from './gpu/gpu-painter';
import { HeldPictures } from './held-pictures';

/** Where pictures come from. */
export type Pictures = {
  /** null where a file is missing; what is given stays as it is until `release` */
  at: (media: string, seconds: number, between?: 'moves') => Promise<YuvImage | null>;
  release: () => void;
};

/** Whoever is hidden in the files of a picture, by the file. */
function veilsIn(tree: Node): Map<string, readonly Veil[]> {
  const found = new Map<string, readonly Veil[]>();
  for (const { content } of mediaIn(tree))
    if (content.veils)
      found.set(content.media, [...new Set([...(found.get(content.media) ?? []), ...content.veils])]);
  return found;
}

/**
 * Paints frames of a picture: on planes where that can be done, else with the slow painter that can do everything; or
 * on the graphics card, where that was found to be faster.
 */
export class ShotPainter {
  private readonly planar: PlanarPainter;
  private readonly card: Card | null;
  /** whoever is hidden in each file of what is painted */
  private veils: ReadonlyMap<string, readonly Veil[]> = new Map();
  private readonly held = new HeldPictures();

  /**
   * @param delivery the size that the picture counts in
   * @param size the size to paint at; smaller for a preview
   * @param painters who paints on this device; where the card is gone, the processor
   */
  constructor(
    private readonly footage: Pictures,
    private readonly delivery: Size,
    private readonly size: Size = delivery,
    private readonly painters: Painters = untried,
  ) {
    this.planar = new PlanarPainter(delivery, size);
    this.card = Object.values(painters).includes('card') ? new Card(delivery, size) : null;
  }

  /**
   * One frame of the film. Files that are missing are left out.
   * @returns planes that may be painted over by the next call
   */
  async paint(tree: Node, frame: number): Promise<YuvImage> {
    this.footage.release();
    this.veils = veilsIn(tree);
    this.held.begin(tree, frame);
    const lists = describeFrame(tree, frame, this.size.width / this.delivery.width);
    if (this.painters[lists ? 'plain' : 'rest'] === 'card') {
      // Lists name only what shows; without them everything is asked for.
      const wanted = lists
        ? lists.flat().map(({ media, time, between }) => ({ media, seconds: time, between }))
        : picturesIn(tree, frame);
      const painted = await this.paintOnCard(tree, frame, wanted);
      if (painted) return painted;
    }
    return lists ? this.paintLists(lists) : this.paintSlowly(tree, frame);
  }

  /** Lets go of the card. */
  close(): void {
    this.card?.close();
  }

  private async paintLists(lists: readonly DrawList[]): Promise<YuvImage> {
    const items: DrawItem[][] = [];
    const pictures: YuvImage[][] = [];
    for (const list of lists) {
      const there: [DrawItem, YuvImage][] = [];
      for (const item of list) {
        const { media, time, between } = item;
        const picture = await this.pictureOf({ media, seconds: time, between });
        if (picture) there.push([item, picture]);
      }
      items.push(there.map(([item]) => item));
      pictures.push(there.map(([, picture]) => picture));
    }
    return this.planar.paint(items, pictures);
  }

  /** A file's picture, in which nobody shows who is hidden, as grainy and as soft as what it is held beside. */
  private async pictureOf(wish: Wanted): Promise<YuvImage | null> {
    const { media, seconds, between } = wish;
    const picture = await this.footage.at(media, seconds, between);
    const veils = this.veils.get(media);
    if (!picture) return null;
    const seen = veils ? veiled(picture, spotsAt(veils, seconds, picture)) : picture;
    return this.held.evened(wish, seen);
  }

  private async picturesOf(wanted: readonly Wanted[]): Promise<Map<string, YuvImage>> {
    const found = new Map<string, YuvImage>();
    for (const wish of wanted) {
      const picture = await this.pictureOf(wish);
      if (picture) found.set(wishOf(wish), picture);
    }
    return found;
  }

  private async paintOnCard(tree: Node, frame: number, wanted: readonly Wanted[]): Promise<YuvImage | null> {
    const found = await this.picturesOf(wanted);
    const pictureOf: YuvOf = (media, seconds, between) =>
      found.get(wishOf({ media, seconds, between })) ?? null;
    return this.card?.paint(tree, frame, pictureOf) ?? null;
  }

  private async paintSlowly(tree: Node, frame: number): Promise<YuvImage> {
    const found = new Map<string, RgbaImage>();
    for (const [key, picture] of await this.picturesOf(picturesIn(tree, frame)))
      found.set(key, yuvToRgba(picture));
    const painted = paintFrame(
      tree,
      frame,
      this.delivery,
      (media, seconds, between) => found.get(wishOf({ media, seconds, between })) ?? null,
    );
    const whole = rgbaToYuv(painted);
    return this.size.width === whole.width ? whole : resizeYuv(whole, this.size);
  }
}
