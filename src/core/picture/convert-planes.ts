import { factorsOf, chromaSide, type YuvImage } from './planes';

/**
 * Puts a picture into the codes of another matrix and range; a colour outside them becomes the nearest code.
 * @param into a picture of the same size whose kind is the wanted one; painted over
 */
export function convertYuv(image: YuvImage, into: YuvImage): YuvImage {
  const [from, to] = [factorsOf(image), factorsOf(into)];
  const chromaWidth = chromaSide(image.width);
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
      into.y[at] = Math.min(255, Math.max(0, luma / to.luma + to.black + 0.5));
      // Chroma is a difference to luma, and so the same for all four pixels that share it.
      if ((row & 1) === 0 && (column & 1) === 0) {
        into.u[chroma] = Math.min(255, Math.max(0, (b - luma) / (2 * (1 - to.kb) * to.chroma) + 128.5));
        into.v[chroma] = Math.min(255, Math.max(0, (r - luma) / (2 * (1 - to.kr) * to.chroma) + 128.5));
      }
    }
  }
  return into;
}
