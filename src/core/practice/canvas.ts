import type { Affine } from '../geometry/affine';

export type Rgb = [number, number, number];
/** A colour, or one that depends on where it is on the stage (stage units). */
export type Paint = Rgb | ((x: number, y: number) => Rgb);
export type Shape = [number, number][];

/** A picture of linear-looking display values 0..255 that shapes are filled into, with clean edges. */
export class Canvas {
  constructor(
    readonly width: number,
    readonly height: number,
    /** stage units to pixels */
    readonly camera: Affine,
    readonly data: Float32Array = new Float32Array(width * height * 3),
  ) {}

  /** The same pixels, drawn on as if everything stood so far higher, stage units. */
  raised(by: number): Canvas {
    const [a, b, c, d, e, f] = this.camera;
    return new Canvas(this.width, this.height, [a, b, c, d, e - c * by, f - d * by], this.data);
  }

  /** Fills a closed shape; even-odd, four lines a pixel, exact across. */
  fill(shape: Shape, paint: Paint, opacity = 1): void {
    const [a, b, c, d, e, f] = this.camera;
    const det = a * d - b * c;
    const points = shape.map(([x, y]): [number, number] => [a * x + c * y + e, b * x + d * y + f]);
    const ys = points.map(([, y]) => y);
    const top = Math.max(0, Math.floor(Math.min(...ys)));
    const bottom = Math.min(this.height, Math.ceil(Math.max(...ys)));
    const cover = new Float32Array(this.width);
    for (let row = top; row < bottom; row++) {
      cover.fill(0);
      let [left, right] = [this.width, 0];
      for (let line = 0; line < 4; line++) {
        const y = row + (line + 0.5) / 4;
        const crossings: number[] = [];
        points.forEach(([x0, y0], index) => {
          const [x1, y1] = points[(index + 1) % points.length];
          if (y0 <= y !== y1 <= y) crossings.push(x0 + ((y - y0) / (y1 - y0)) * (x1 - x0));
        });
        crossings.sort((p, q) => p - q);
        for (let i = 0; i + 1 < crossings.length; i += 2) {
          const from = Math.max(0, crossings[i]);
          const to = Math.min(this.width, crossings[i + 1]);
          for (let x = Math.floor(from); x < to; x++)
            cover[x] += (Math.min(x + 1, to) - Math.max(x, from)) / 4;
          left = Math.min(left, Math.floor(from));
          right = Math.max(right, Math.ceil(to));
        }
      }
      for (let x = left; x < right; x++) {
        if (cover[x] <= 0) continue;
        const px = x + 0.5 - e;
        const py = row + 0.5 - f;
        const colour =
          typeof paint === 'function' ? paint((d * px - c * py) / det, (a * py - b * px) / det) : paint;
        const at = (row * this.width + x) * 3;
        const amount = Math.min(1, cover[x]) * opacity;
        for (let channel = 0; channel < 3; channel++) {
          this.data[at + channel] += (colour[channel] - this.data[at + channel]) * amount;
        }
      }
    }
  }

  /** Darkens a soft round patch, as a soft shadow does. */
  shade(cx: number, cy: number, rx: number, ry: number, depth: number): void {
    const [a, , , d, e, f] = this.camera;
    for (
      let row = Math.max(0, Math.floor(d * (cy - ry) + f));
      row < Math.min(this.height, d * (cy + ry) + f);
      row++
    ) {
      for (
        let x = Math.max(0, Math.floor(a * (cx - rx) + e));
        x < Math.min(this.width, a * (cx + rx) + e);
        x++
      ) {
        const away = Math.hypot(((x - e) / a - cx) / rx, ((row - f) / d - cy) / ry);
        if (away >= 1) continue;
        const keep = 1 - depth * (1 - away * away) ** 2;
        for (let channel = 0; channel < 3; channel++) this.data[(row * this.width + x) * 3 + channel] *= keep;
      }
    }
  }
}

/** A rectangle: its upper left corner and its sides, in pixels of the canvas. */
export const box = (x: number, y: number, w: number, h: number): Shape => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
];

/** An ellipse: its middle and half its axes, in pixels of the canvas; a polygon of so many sides. */
export const disc = (cx: number, cy: number, rx: number, ry = rx, sides = 40): Shape =>
  Array.from({ length: sides }, (_, i) => {
    const angle = (i / sides) * 2 * Math.PI;
    return [cx + rx * Math.cos(angle), cy + ry * Math.sin(angle)];
  });

/** A thick line between two points, of one width or tapering to another; pixels of the canvas. */
export function bar(x0: number, y0: number, x1: number, y1: number, width: number, end = width): Shape {
  const length = Math.hypot(x1 - x0, y1 - y0) || 1;
  const [nx, ny] = [-(y1 - y0) / length / 2, (x1 - x0) / length / 2];
  return [
    [x0 + nx * width, y0 + ny * width],
    [x1 + nx * end, y1 + ny * end],
    [x1 - nx * end, y1 - ny * end],
    [x0 - nx * width, y0 - ny * width],
  ];
}
