import { invertAffine, multiplyAffine, type Affine } from '../footage/placement';
import { refuse } from '../error';
import type { GrayImage, Size } from './image';
import { cdlTables, type Cdl } from './grade';
import type { DrawItem } from './layers';
import { halveMask, rasterMask } from './mask';
import { blankYuv, bt709, factorsOf, half, resizeYuv, type YuvImage, type YuvKind } from './planes';
import { resamplePlane, type Bounds } from './resample';

/** A mask with, for each row, where its longest fully covered run begins and ends. */
type MaskPlane = { cover: Uint8Array; solid: Int32Array };
type MaskPlanes = { luma: MaskPlane; chroma: MaskPlane; bounds: Bounds };

function withRuns(cover: Uint8Array, width: number): MaskPlane {
  const solid = new Int32Array((cover.length / width) * 2);
  for (let row = 0; row * width < cover.length; row++) {
    let start = -1;
    for (let x = 0; x <= width; x++) {
      const full = x < width && cover[row * width + x] === 255;
      if (full && start < 0) start = x;
      if (full || start < 0) continue;
      if (x - start > solid[2 * row + 1] - solid[2 * row]) [solid[2 * row], solid[2 * row + 1]] = [start, x];
      start = -1;
    }
  }
  return { cover, solid };
}

/** Smallest even-aligned part of the frame that a mask touches. */
function boundsOf({ width, height, data }: GrayImage): Bounds {
  let [left, top, right, bottom] = [width, height, 0, 0];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (data[y * width + x] === 0) continue;
      if (x < left) left = x;
      if (x >= right) right = x + 1;
      if (y < top) top = y;
      bottom = y + 1;
    }
  }
  return {
    left: left & ~1,
    top: top & ~1,
    right: Math.min(width, right + (right & 1)),
    bottom: Math.min(height, bottom + (bottom & 1)),
  };
}

const halved = (bounds: Bounds): Bounds => ({
  left: bounds.left >> 1,
  top: bounds.top >> 1,
  right: half(bounds.right),
  bottom: half(bounds.bottom),
});

/** Lays one plane over another; rows and runs that are fully covered are copied. */
function layPlane(
  back: Uint8Array,
  front: Uint8Array,
  width: number,
  bounds: Bounds,
  mask: MaskPlane | null,
  inside: Uint8Array | null,
  opacity: number,
): void {
  const full = opacity >= 1 && !inside;
  for (let y = bounds.top; y < bounds.bottom; y++) {
    const base = y * width;
    const end = base + bounds.right;
    const solidStart = full ? (mask ? base + mask.solid[2 * y] : base + bounds.left) : -1;
    const solidEnd = mask ? base + mask.solid[2 * y + 1] : end;
    for (let at = base + bounds.left; at < end; at++) {
      if (at === solidStart && solidEnd > at) {
        back.set(front.subarray(at, solidEnd), at);
        at = solidEnd - 1;
        continue;
      }
      const amount = mask ? mask.cover[at] : 255;
      if (amount > 0 && (!inside || inside[at])) {
        back[at] += ((front[at] - back[at]) * amount * opacity) / 255 + (front[at] >= back[at] ? 0.5 : -0.5);
      }
    }
  }
}

/** Puts a colour decision on a part of a picture in place, through its own matrix. */
export function gradeYuv(image: YuvImage, cdl: Cdl, bounds: Bounds): void {
  const f = factorsOf(image);
  const fineness = 4;
  const [red, green, blue] = cdlTables(cdl, fineness);
  const top = 255 * fineness;
  const { width, y, u, v } = image;
  const chromaWidth = half(width);
  const clamp = (value: number) => (value < 0 ? 0 : value > top ? top : value) | 0;
  for (let row = bounds.top; row < bounds.bottom; row += 2) {
    for (let column = bounds.left; column < bounds.right; column += 2) {
      const chroma = (row >> 1) * chromaWidth + (column >> 1);
      const cu = u[chroma] - 128;
      const cv = v[chroma] - 128;
      const addRed = f.redFromV * cv;
      const addGreen = f.greenFromU * cu + f.greenFromV * cv;
      const addBlue = f.blueFromU * cu;
      let [sumRed, sumBlue, sumLuma, count] = [0, 0, 0, 0];
      for (let line = row; line < row + 2 && line < bounds.bottom; line++) {
        for (let x = column; x < column + 2 && x < bounds.right; x++) {
          const at = line * width + x;
          const base = (y[at] - f.black) * f.luma;
          let r = red[clamp((base + addRed) * fineness + 0.5)];
          let g = green[clamp((base + addGreen) * fineness + 0.5)];
          let b = blue[clamp((base + addBlue) * fineness + 0.5)];
          if (cdl.saturation !== 1) {
            const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
            r = Math.min(1, Math.max(0, luma + (r - luma) * cdl.saturation));
            g = Math.min(1, Math.max(0, luma + (g - luma) * cdl.saturation));
            b = Math.min(1, Math.max(0, luma + (b - luma) * cdl.saturation));
          }
          const luma = f.kr * r + f.kg * g + f.kb * b;
          y[at] = (luma * 255) / f.luma + f.black + 0.5;
          sumRed += r;
          sumBlue += b;
          sumLuma += luma;
          count++;
        }
      }
      u[chroma] = ((sumBlue - sumLuma) * 255) / count / (2 * (1 - f.kb) * f.chroma) + 128.5;
      v[chroma] = ((sumRed - sumLuma) * 255) / count / (2 * (1 - f.kr) * f.chroma) + 128.5;
    }
  }
}

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

const sameKind = (a: YuvKind, b: YuvKind) => a.matrix === b.matrix && a.fullRange === b.fullRange;

/** Brings a picture of another matrix or range to BT.709 limited range, in place of a copy. */
function toBt709(image: YuvImage): YuvImage {
  if (sameKind(image, bt709)) return image;
  const [from, to] = [factorsOf(image), factorsOf(bt709)];
  const out = blankYuv(image);
  const chromaWidth = half(image.width);
  for (let row = 0; row < image.height; row++) {
    for (let column = 0; column < image.width; column++) {
      const at = row * image.width + column;
      const chroma = (row >> 1) * chromaWidth + (column >> 1);
      const cu = image.u[chroma] - 128;
      const cv = image.v[chroma] - 128;
      const base = (image.y[at] - from.black) * from.luma;
      const r = base + from.redFromV * cv;
      const g = base + from.greenFromU * cu + from.greenFromV * cv;
      const b = base + from.blueFromU * cu;
      const luma = to.kr * r + to.kg * g + to.kb * b;
      out.y[at] = Math.min(255, Math.max(0, luma / to.luma + to.black + 0.5));
      if ((row & 1) === 0 && (column & 1) === 0) {
        out.u[chroma] = Math.min(255, Math.max(0, (b - luma) / (2 * (1 - to.kb) * to.chroma) + 128.5));
        out.v[chroma] = Math.min(255, Math.max(0, (r - luma) / (2 * (1 - to.kr) * to.chroma) + 128.5));
      }
    }
  }
  return out;
}

/**
 * Paints draw lists straight on 4:2:0 planes: what is not moved, masked or graded is copied.
 * Keeps masks and working planes between frames.
 */
export class PlanarPainter {
  private readonly masks = new Map<string, MaskPlanes>();
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
    const maps = items.map((item, index) => this.mapOf(item, pictures[index]));
    let first = 0;
    items.forEach((item, index) => {
      if (!item.mask && item.opacity >= 1 && coversFrame(maps[index], pictures[index], this.size))
        first = index;
    });
    if (!items[first] || items[first].mask || !coversFrame(maps[first], pictures[first], this.size)) {
      out.y.fill(16);
      out.u.fill(128);
      out.v.fill(128);
    }
    for (let index = first; index < items.length; index++)
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
    if (item.blend !== 'normal') refuse('blend', `The blend mode ${item.blend} needs the full painter.`);
    const { size, output } = this;
    const whole = { left: 0, top: 0, right: size.width, bottom: size.height };
    const mask = item.mask ? this.maskOf(item.mask) : null;
    const bounds = mask?.bounds ?? whole;
    if (bounds.right <= bounds.left) return;
    let picture = toBt709(source);
    let reaches = true;
    if (!(isIdentity(map, size) && picture.width === size.width && picture.height === size.height)) {
      reaches = coversFrame(map, picture, size);
      this.move(picture, map, bounds, !reaches);
      picture = this.moved;
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

  /** Resamples a picture into the working planes; large pictures are shrunk by means first. */
  private move(picture: YuvImage, map: Affine, bounds: Bounds, markInside: boolean): void {
    let [source, back] = [picture, map];
    const shrink = Math.hypot(map[0], map[1]);
    if (shrink > 1.3) {
      source = resizeYuv(picture, {
        width: Math.round(picture.width / shrink),
        height: Math.round(picture.height / shrink),
      });
      back = multiplyAffine([source.width / picture.width, 0, 0, source.height / picture.height, 0, 0], map);
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
