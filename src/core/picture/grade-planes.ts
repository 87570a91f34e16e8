import { cdlTables, type Cdl } from './grade';
import { factorsOf, chromaSide, type YuvImage } from './planes';
import type { Bounds } from '../geometry/size';

/** Puts a colour decision on a part of a picture in place, through its own matrix. */
export function gradeYuv(image: YuvImage, cdl: Cdl, bounds: Bounds): void {
  const f = factorsOf(image);
  const fineness = 4;
  const [red, green, blue] = cdlTables(cdl, fineness);
  const top = 255 * fineness;
  const { width, y, u, v } = image;
  const chromaWidth = chromaSide(width);
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
