import { refuse } from '@/core/error';
import type { Size } from '@/core/geometry/size';
import type { RgbaImage } from '@/core/picture/image';

let canvas: OffscreenCanvas | null = null;

/**
 * The pixels of a bitmap, which is used up.
 * @param size what it is brought to; left out, its own
 * @throws CoreError `canvas.none` where the browser draws nothing here
 */
export function bitmapPixels(bitmap: ImageBitmap, { width, height }: Size = bitmap): RgbaImage {
  if (canvas?.width !== width || canvas.height !== height) canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) return refuse('canvas.none', 'This browser cannot read pictures here. Restart it.');
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return context.getImageData(0, 0, width, height);
}
