import { invertAffine, multiplyAffine, type Affine } from '../geometry/affine';
import { refuse } from '../error';
import type { Size } from '../geometry/size';
import { convertYuv } from './convert-planes';
import { gradeYuv } from './grade-planes';
import { boundsOf, halved, layPlane, withRuns, type MaskPlanes } from './lay';
import type { DrawItem } from './layers';
import { halveMask, rasterMask } from './mask';
import { blankYuv, bt709, half, resizeYuv, sameKind, type YuvImage } from './planes';
import { resamplePlane, type Bounds } from './resample';

const isIdentity = ([a, b, c, d, e, f]: Affine, size: Size) =>
  Math.abs(a - 1) * size.width < 0.02 &&
  Math.abs(d - 1) * size.height < 0.02 &&
  Math.abs(b) * size.width < 0.02 &&
  Math.abs(c) * size.height < 0.02 &&
  Math.hypot(e, f) < 0.02;

/** True where a map leaves no part of the output without a source pixel. */
function coversFrame(back: Affine, source: Size, output: Size): boolean {
  const [a, b, c, d, e, f] = back;
  const slack = 0.01;
  return [
    [0, 0],
    [output.width, 0],
    [0, output.height],
    [output.width, output.height],
  ].every(([x, y]) => {
    const px = a * x + c * y + e;
    const py = b * x + d * y + f;
    return px >= -slack && py >= -slack && px <= source.width + slack && py <= source.height + slack;
  });
}

/**
 * Paints draw lists straight on 4:2:0 planes: what is not moved, masked or graded is copied.
 * Keeps masks and working planes between frames, so that no plane is made for a frame.
 */
export class PlanarPainter {
  private readonly masks = new Map<string, MaskPlanes>();
  private readonly scratch = new Map<string, YuvImage>();
  private readonly output: YuvImage;
  private readonly moved: YuvImage;
  private readonly inside: Uint8Array;
  private readonly insideChroma: Uint8Array;

  /**
   * @param delivery the size that draw lists count in
   * @param size the size to paint at; smaller for a preview
   */
  constructor(
    private readonly delivery: Size,
    private readonly size: Size = delivery,
  ) {
    this.output = blankYuv(size);
    this.moved = blankYuv(size);
    this.inside = new Uint8Array(this.output.y.length);
    this.insideChroma = new Uint8Array(this.output.u.length);
  }

  /**
   * Paints one frame.
   * @param pictures the picture for each item; a smaller one than the item's size is a proxy
   * @returns planes that are painted over by the next call
   * @throws CoreError `blend` where an item asks for a mode that planes cannot do
   */
  paint(items: readonly DrawItem[], pictures: readonly YuvImage[]): YuvImage {
    const out = this.output;
    const odd = items.find(({ blend }) => blend !== 'normal');
    if (odd) refuse('blend', `The blend mode ${odd.blend} needs the full painter.`);
    const maps = items.map((item, index) => this.mapOf(item, pictures[index]));
    const hides = (item: DrawItem, index: number) =>
      !item.mask && item.opacity >= 1 && coversFrame(maps[index], pictures[index], this.size);
    const lowest = items.findLastIndex(hides);
    if (lowest < 0) {
      out.y.fill(16);
      out.u.fill(128);
      out.v.fill(128);
    }
    for (let index = Math.max(0, lowest); index < items.length; index++)
      this.lay(items[index], pictures[index], maps[index]);
    return out;
  }

  /** Output pixels to pixels of the picture at hand. */
  private mapOf(item: DrawItem, picture: Size): Affine {
    const stage: Affine = [
      this.size.width / this.delivery.width,
      0,
      0,
      this.size.height / this.delivery.height,
      0,
      0,
    ];
    const proxy: Affine = [item.size.width / picture.width, 0, 0, item.size.height / picture.height, 0, 0];
    return invertAffine(multiplyAffine(stage, multiplyAffine(item.matrix, proxy)));
  }

  private lay(item: DrawItem, source: YuvImage, map: Affine): void {
    const { size, output } = this;
    const whole = { left: 0, top: 0, right: size.width, bottom: size.height };
    const mask = item.mask ? this.maskOf(item.mask) : null;
    const bounds = mask?.bounds ?? whole;
    if (bounds.right <= bounds.left) return;
    let picture = sameKind(source, bt709) ? source : convertYuv(source, this.scratchOf('converted', source));
    let reaches = true;
    if (!(isIdentity(map, size) && picture.width === size.width && picture.height === size.height)) {
      reaches = coversFrame(map, picture, size);
      picture = this.move(picture, map, bounds, !reaches);
    } else if (item.grade) {
      this.moved.y.set(picture.y);
      this.moved.u.set(picture.u);
      this.moved.v.set(picture.v);
      picture = this.moved;
    }
    if (item.grade) gradeYuv(picture, item.grade, bounds);
    const small = halved(bounds);
    const [inside, insideChroma] = reaches ? [null, null] : [this.inside, this.insideChroma];
    layPlane(output.y, picture.y, size.width, bounds, mask?.luma ?? null, inside, item.opacity);
    layPlane(output.u, picture.u, half(size.width), small, mask?.chroma ?? null, insideChroma, item.opacity);
    layPlane(output.v, picture.v, half(size.width), small, mask?.chroma ?? null, insideChroma, item.opacity);
  }

  /** Working planes of a size, made once for each use of them. */
  private scratchOf(use: 'converted' | 'shrunk', { width, height }: Size): YuvImage {
    const key = `${use} ${width} ${height}`;
    const kept = this.scratch.get(key);
    if (kept) return kept;
    const made = blankYuv({ width, height });
    this.scratch.set(key, made);
    return made;
  }

  /**
   * Resamples a picture; large pictures are shrunk by means first, which is all where that fits exactly.
   * @returns working planes that hold it
   */
  private move(picture: YuvImage, map: Affine, bounds: Bounds, markInside: boolean): YuvImage {
    let [source, back] = [picture, map];
    const shrink = Math.hypot(map[0], map[1]);
    if (shrink > 1.3) {
      const to = {
        width: Math.round(picture.width / shrink),
        height: Math.round(picture.height / shrink),
      };
      source = resizeYuv(picture, to, { into: this.scratchOf('shrunk', to) });
      back = multiplyAffine([source.width / picture.width, 0, 0, source.height / picture.height, 0, 0], map);
      const fits = source.width === this.size.width && source.height === this.size.height;
      if (fits && !markInside && isIdentity(back, this.size)) return source;
    }
    const chromaFrom = { width: half(source.width), height: half(source.height) };
    const chromaTo = { width: half(this.size.width), height: half(this.size.height) };
    const chromaBack: Affine = [back[0], back[1], back[2], back[3], back[4] / 2, back[5] / 2];
    const small = halved(bounds);
    const { moved } = this;
    resamplePlane(source.y, source, back, moved.y, this.size, bounds, markInside ? this.inside : null);
    resamplePlane(
      source.u,
      chromaFrom,
      chromaBack,
      moved.u,
      chromaTo,
      small,
      markInside ? this.insideChroma : null,
    );
    resamplePlane(source.v, chromaFrom, chromaBack, moved.v, chromaTo, small, null);
    return moved;
  }

  private maskOf(mask: NonNullable<DrawItem['mask']>): MaskPlanes {
    const key = JSON.stringify(mask);
    const kept = this.masks.get(key);
    if (kept) return kept;
    const factor = this.size.width / this.delivery.width;
    const points = mask.points.map(([x, y]): [number, number] => [x * factor, y * factor]);
    const image = rasterMask(points, mask.feather * factor, this.size);
    const planes = {
      luma: withRuns(image.data, image.width),
      chroma: withRuns(halveMask(image), half(image.width)),
      bounds: boundsOf(image),
    };
    if (this.masks.size > 8) this.masks.clear();
    this.masks.set(key, planes);
    return planes;
  }
}
