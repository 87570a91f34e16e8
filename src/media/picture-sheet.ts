import type { ShotSheet } from '@/core/footage/cuts/shots';
import { resizeYuv, yuvToRgba, type YuvImage } from '@/core/picture/planes';
import { PictureReader } from './pictures';

/** pixels across of a picture on a sheet */
const across = 128;

/** A picture in some size, as browsers draw it. */
export function imageOf(picture: YuvImage, size: { width: number; height: number }): ImageData {
  const { data } = yuvToRgba(resizeYuv(picture, size));
  return new ImageData(data as Uint8ClampedArray<ArrayBuffer>, size.width, size.height);
}

/**
 * Small pictures side by side and row by row, as a JPEG.
 * @param pictureAt may use the memory of the picture that it gave before
 */
export async function drawSheet(
  count: number,
  perRow: number,
  pictureAt: (index: number) => Promise<YuvImage>,
): Promise<{ sheet: ShotSheet; pictures: Blob }> {
  const first = await pictureAt(0);
  const size = {
    width: across,
    height: Math.max(2, Math.round((across * first.height) / first.width / 2) * 2),
  };
  const columns = Math.min(perRow, count);
  const canvas = new OffscreenCanvas(columns * size.width, Math.ceil(count / columns) * size.height);
  const paper = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
  for (let index = 0; index < count; index++) {
    const picture = imageOf(await pictureAt(index), size);
    paper.putImageData(picture, (index % columns) * size.width, Math.floor(index / columns) * size.height);
  }
  const pictures = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.8 });
  return { pictures, sheet: { columns, count, ...size } };
}

/**
 * Small pictures of a film at some seconds, as `drawSheet` lays them.
 * @param times seconds at which each of its pictures begins to show
 */
export async function sheetAt(
  film: Blob,
  times: Float64Array,
  seconds: readonly number[],
  perRow: number,
): Promise<{ sheet: ShotSheet; pictures: Blob }> {
  const reader = new PictureReader(film, times, 1);
  try {
    return await drawSheet(seconds.length, perRow, (index) => {
      reader.release();
      return reader.at(seconds[index]);
    });
  } finally {
    await reader.close();
  }
}
