import type { Size } from '@/core/geometry/size';
import { describeFrame, type DrawItem, type DrawList } from '@/core/picture/draw-list';
import type { RgbaImage } from '@/core/picture/image';
import type { Node } from '@/core/picture/node';
import { PlanarPainter } from '@/core/picture/planar-painter';
import { resizeYuv, rgbaToYuv, yuvToRgba, type YuvImage } from '@/core/picture/planes';
import { paintFrame } from '@/core/picture/reference/paint';
import { picturesIn } from '@/core/picture/wanted';

/** Where pictures come from. */
export type Pictures = {
  /** null where a file is missing; what is given stays as it is until `release` */
  at: (media: string, seconds: number) => Promise<YuvImage | null>;
  release: () => void;
};

/** Paints frames of a picture: on planes where that can be done, else with the slow painter that can do everything. */
export class ShotPainter {
  private readonly planar: PlanarPainter;

  /**
   * @param delivery the size that the picture counts in
   * @param size the size to paint at; smaller for a preview
   */
  constructor(
    private readonly footage: Pictures,
    private readonly delivery: Size,
    private readonly size: Size = delivery,
  ) {
    this.planar = new PlanarPainter(delivery, size);
  }

  /**
   * One frame of the film. Files that are missing are left out.
   * @returns planes that may be painted over by the next call
   */
  async paint(tree: Node, frame: number): Promise<YuvImage> {
    this.footage.release();
    const lists = describeFrame(tree, frame, this.size.width / this.delivery.width);
    return lists ? this.paintLists(lists) : this.paintSlowly(tree, frame);
  }

  private async paintLists(lists: readonly DrawList[]): Promise<YuvImage> {
    const items: DrawItem[][] = [];
    const pictures: YuvImage[][] = [];
    for (const list of lists) {
      const there: [DrawItem, YuvImage][] = [];
      for (const item of list) {
        const picture = await this.footage.at(item.media, item.time);
        if (picture) there.push([item, picture]);
      }
      items.push(there.map(([item]) => item));
      pictures.push(there.map(([, picture]) => picture));
    }
    return this.planar.paint(items, pictures);
  }

  private async paintSlowly(tree: Node, frame: number): Promise<YuvImage> {
    const found = new Map<string, RgbaImage>();
    for (const { media, seconds } of picturesIn(tree, frame)) {
      const picture = await this.footage.at(media, seconds);
      if (picture) found.set(`${media} ${seconds}`, yuvToRgba(picture));
    }
    const painted = paintFrame(
      tree,
      frame,
      this.delivery,
      (media, seconds) => found.get(`${media} ${seconds}`) ?? null,
    );
    const whole = rgbaToYuv(painted);
    return this.size.width === whole.width ? whole : resizeYuv(whole, this.size);
  }
}
