import { invertAffine, multiplyAffine, type Affine } from '../geometry/affine';
import type { Bounds, Point, Size } from '../geometry/size';
import { convertYuv } from './convert-planes';
import { gradeYuv } from './grade-planes';
import { boundsOf, commonPart } from './bounds';
import { layPlane, withRuns, type MaskPlanes } from './lay';
import type { DrawItem, DrawList, DrawMask } from './draw-list';
import { CleanPictures } from './spill';
import { FittedEdges } from './fit/fitted-edges';
import { halveMask, rasterMask } from './mask';
import type { Edges, Fit } from './node';
import { blankYuv, bt709, chromaSide, halved, resizeYuv, sameKind, type YuvImage } from './planes';
import { resamplePlane } from './resample';
import { smearOf, smearPlane, type Smear } from './smear';

const isIdentity = ([a, b, c, d, e, f]: Affine, size: Size) =>
  Math.abs(a - 1) * size.width < 0.02 &&
  Math.abs(d - 1) * size.height < 0.02 &&
  Math.abs(b) * size.width < 0.02 &&
  Math.abs(c) * size.height < 0.02 &&
  Math.hypot(e, f) < 0.02;

/** True where a map only moves a picture by whole pixels of luma and chroma, and what shows lies inside it. */
function isWholeShift([a, b, c, d, e, f]: Affine, { width, height }: Size, bounds: Bounds): boolean {
  const near = (value: number, whole: number, by = 1) => Math.abs(value - whole) * by < 0.02;
  if (!near(a, 1, width) || !near(d, 1, height) || !near(b, 0, width) || !near(c, 0, height)) return false;
  const [across, down] = [2 * Math.round(e / 2), 2 * Math.round(f / 2)];
  if (!near(e, across) || !near(f, down)) return false;
  const { left, top, right, bottom } = bounds;
  return left + across >= 0 && top + down >= 0 && right + across <= width && bottom + down <= height;
}

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
  private readonly fitted = new FittedEdges();
  private readonly scratch = new Map<string, YuvImage>();
  private readonly output: YuvImage;
  private readonly moved: YuvImage;
  private readonly inside: Uint8Array;
  private readonly insideChroma: Uint8Array;
  /** sums of sub-frames, made when the first frame needs them */
  private sums: { y: Uint16Array; u: Uint16Array; v: Uint16Array } | null = null;

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
   * @param lists what is painted; the mean of what they give where there are several
   * @param pictures the picture for each item of each list; a smaller one than the item's size is a proxy
   * @returns planes that are painted over by the next call
   */
  paint(lists: readonly DrawList[], pictures: readonly (readonly YuvImage[])[]): YuvImage {
    if (lists.length === 1) return this.paintList(lists[0], pictures[0]);
    const [[picture]] = pictures;
    const isOne = pictures.every((shown) => shown.length === 1 && shown[0] === picture);
    const smear = isOne ? smearOf(lists, this.delivery) : null;
    if (smear) return this.paintSmeared(lists[0][0], picture, smear);
    const { output } = this;
    this.sums ??= {
      y: new Uint16Array(output.y.length),
      u: new Uint16Array(output.u.length),
      v: new Uint16Array(output.v.length),
    };
    for (const plane of ['y', 'u', 'v'] as const) this.sums[plane].fill(lists.length >> 1);
    lists.forEach((list, index) => {
      this.paintList(list, pictures[index]);
      for (const plane of ['y', 'u', 'v'] as const) {
        const [sum, codes] = [(this.sums as NonNullable<typeof this.sums>)[plane], output[plane]];
        for (let at = 0; at < codes.length; at++) sum[at] += codes[at];
      }
    });
    for (const plane of ['y', 'u', 'v'] as const) {
      const [sum, codes] = [this.sums[plane], output[plane]];
      for (let at = 0; at < codes.length; at++) codes[at] = sum[at] / lists.length;
    }
    return output;
  }

  /** One layer where it fills the frame, and the mean of where it was moved from there. */
  private paintSmeared(item: DrawItem, picture: YuvImage, { along, shifts }: Smear): YuvImage {
    const [a, b, c, d, e, f] = item.matrix;
    const matrix: Affine = along === 'width' ? [a, b, c, d, 0, f] : [a, b, c, d, e, 0];
    const { y, u, v } = this.paintList([{ ...item, matrix }], [picture]);
    const factor = this.size[along] / this.delivery[along];
    const [luma, chroma] = [factor, factor / 2].map((scale) => ({
      along,
      shifts: shifts.map((shift) => shift * scale),
    }));
    const small = { width: chromaSide(this.size.width), height: chromaSide(this.size.height) };
    smearPlane(y, this.size, luma, item.edges);
    for (const plane of [u, v]) smearPlane(plane, small, chroma, item.edges);
    return this.output;
  }

  private paintList(items: DrawList, pictures: readonly YuvImage[]): YuvImage {
    const out = this.output;
    const maps = items.map((item, index) => this.mapOf(item, pictures[index]));
    const masks = items.map((item, index) => item.mask && this.maskOf(item.mask, item, pictures[index]));
    const reaches = (index: number) =>
      items[index].edges !== 'empty' || coversFrame(maps[index], pictures[index], this.size);
    const opaque = items.map((item, index) => item.opacity >= 1 && reaches(index));
    const lowest = opaque.findLastIndex((hides, index) => hides && !masks[index]);
    if (lowest < 0) {
      out.y.fill(16);
      out.u.fill(128);
      out.v.fill(128);
    }
    let open: Bounds = { left: 0, top: 0, right: this.size.width, bottom: this.size.height };
    const shown = items.map(() => open);
    for (let index = items.length - 1; index >= 0; index--) {
      const mask = masks[index];
      shown[index] = mask ? commonPart(open, mask.bounds) : open;
      if (mask && opaque[index]) open = commonPart(open, mask.open);
    }
    const clean = new CleanPictures();
    for (let index = Math.max(0, lowest); index < items.length; index++)
      this.lay(
        items[index],
        clean.of(pictures[index], items[index].without),
        maps[index],
        masks[index],
        shown[index],
      );
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

  /** @param bounds what shows of it: what its mask leaves and nothing before it hides */
  private lay(item: DrawItem, source: YuvImage, map: Affine, mask: MaskPlanes | null, bounds: Bounds): void {
    const { size, output } = this;
    if (bounds.right <= bounds.left || bounds.bottom <= bounds.top) return;
    let picture = sameKind(source, bt709) ? source : convertYuv(source, this.scratchOf('converted', source));
    let reaches = true;
    if (!(isIdentity(map, size) && picture.width === size.width && picture.height === size.height)) {
      const isWhole = isWholeShift(map, picture, bounds);
      reaches = isWhole || item.edges !== 'empty' || coversFrame(map, picture, size);
      picture = isWhole
        ? this.shift(picture, map, bounds)
        : this.move(picture, map, bounds, !reaches, item.edges);
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
    layPlane(
      output.u,
      picture.u,
      chromaSide(size.width),
      small,
      mask?.chroma ?? null,
      insideChroma,
      item.opacity,
    );
    layPlane(
      output.v,
      picture.v,
      chromaSide(size.width),
      small,
      mask?.chroma ?? null,
      insideChroma,
      item.opacity,
    );
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
  private move(picture: YuvImage, map: Affine, bounds: Bounds, markInside: boolean, edges: Edges): YuvImage {
    let [source, back] = [picture, map];
    const shrink = Math.hypot(map[0], map[1]);
    if (shrink > 1.3) {
      const to = {
        width: Math.round(picture.width / shrink),
        height: Math.round(picture.height / shrink),
      };
      back = multiplyAffine([to.width / picture.width, 0, 0, to.height / picture.height, 0, 0], map);
      const fits = to.width === this.size.width && to.height === this.size.height;
      const isAll = fits && !markInside && isIdentity(back, this.size);
      source = resizeYuv(picture, to, {
        into: this.scratchOf('shrunk', to),
        part: isAll ? bounds : undefined,
      });
      if (isAll) return source;
    }
    const chromaFrom = { width: chromaSide(source.width), height: chromaSide(source.height) };
    const chromaTo = { width: chromaSide(this.size.width), height: chromaSide(this.size.height) };
    const chromaBack: Affine = [back[0], back[1], back[2], back[3], back[4] / 2, back[5] / 2];
    const small = halved(bounds);
    const { moved } = this;
    const [inside, insideChroma] = markInside ? [this.inside, this.insideChroma] : [null, null];
    resamplePlane(source.y, source, back, moved.y, this.size, bounds, inside, edges);
    resamplePlane(source.u, chromaFrom, chromaBack, moved.u, chromaTo, small, insideChroma, edges);
    resamplePlane(source.v, chromaFrom, chromaBack, moved.v, chromaTo, small, null, edges);
    return moved;
  }

  /** Copies the part of a picture that shows where it is only moved by whole pixels of all planes. */
  private shift(picture: YuvImage, [, , , , e, f]: Affine, bounds: Bounds): YuvImage {
    const { moved } = this;
    const [across, down] = [Math.round(e), Math.round(f)];
    const copy = (from: Uint8Array, to: Uint8Array, widths: [number, number], part: Bounds, by: Point) => {
      for (let y = part.top; y < part.bottom; y++) {
        const start = (y + by[1]) * widths[0] + part.left + by[0];
        to.set(from.subarray(start, start + part.right - part.left), y * widths[1] + part.left);
      }
    };
    copy(picture.y, moved.y, [picture.width, this.size.width], bounds, [across, down]);
    const widths: [number, number] = [chromaSide(picture.width), chromaSide(this.size.width)];
    for (const plane of ['u', 'v'] as const)
      copy(picture[plane], moved[plane], widths, halved(bounds), [across / 2, down / 2]);
    return moved;
  }

  private maskOf(mask: DrawMask, item: DrawItem, picture: YuvImage): MaskPlanes {
    const { media, time, matrix } = item;
    const key = JSON.stringify(mask.fit ? [mask, media, time, matrix, picture.width] : mask);
    const kept = this.masks.get(key);
    if (kept) return kept;
    const image = mask.fit ? this.fittedMask(mask, mask.fit, item, picture) : this.drawnMask(mask);
    const planes = {
      luma: withRuns(image.data, image.width),
      chroma: withRuns(halveMask(image), chromaSide(image.width)),
      bounds: boundsOf(image, 0),
      open: boundsOf(image, 255),
    };
    if (this.masks.size > 8) this.masks.clear();
    this.masks.set(key, planes);
    return planes;
  }

  private drawnMask({ rings, feather, inverted }: DrawMask) {
    const factor = this.size.width / this.delivery.width;
    const painted = rings.map((ring) => ring.map(([x, y]): Point => [x * factor, y * factor]));
    return rasterMask(painted, feather * factor, this.size, inverted);
  }

  private fittedMask({ rings, inverted }: DrawMask, fit: Fit, item: DrawItem, picture: YuvImage) {
    const { media, time: seconds, size: content, matrix } = item;
    const stage = [this.size.width / this.delivery.width, this.size.height / this.delivery.height];
    const map = multiplyAffine([stage[0], 0, 0, stage[1], 0, 0], matrix);
    const cover = this.fitted.cover({ rings, fit, content, media, seconds }, picture, map, this.size);
    return { ...this.size, data: inverted ? cover.map((value) => 255 - value) : cover };
  }
}
