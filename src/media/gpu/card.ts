import type { Size } from '@/core/geometry/size';
import type { Node } from '@/core/picture/node';
import type { YuvImage } from '@/core/picture/planes';
import { GpuPainter, type YuvOf } from './gpu-painter';
import { Surfaces } from './surfaces';

/** times that a lost card is opened again for one picture */
const attempts = 3;

/** A graphics card that paints. One that is lost is opened again, and the picture painted anew. */
export class Card {
  private surfaces: Surfaces | null = null;
  private painter: GpuPainter | null = null;

  /**
   * @param delivery the size that trees count in
   * @param size the size to paint at
   * @param open another way to a card, for tests
   */
  constructor(
    private readonly delivery: Size,
    private readonly size: Size = delivery,
    private readonly open: () => Surfaces | null = Surfaces.open,
  ) {}

  /** What the browser calls it; null where there is none. */
  get name(): string | null {
    return this.ready() ? (this.surfaces?.name ?? null) : null;
  }

  private ready(): GpuPainter | null {
    if (this.surfaces?.lost) this.close();
    if (!this.painter) {
      this.surfaces = this.open();
      this.painter = this.surfaces && new GpuPainter(this.surfaces, this.delivery, this.size);
    }
    return this.painter;
  }

  /** One frame; null where there is no card, or it is lost again and again. */
  paint(tree: Node, frame: number, pictureOf: YuvOf): YuvImage | null {
    for (let attempt = 0; attempt < attempts; attempt++) {
      const painted = this.ready()?.paint(tree, frame, pictureOf);
      if (painted) return painted;
      if (!this.painter) return null;
    }
    return null;
  }

  /** Lets go of the card. */
  close(): void {
    this.surfaces?.close();
    [this.surfaces, this.painter] = [null, null];
  }
}
