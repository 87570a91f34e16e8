import { fitWithin } from '@/core/geometry/size';
import { refuse } from '@/core/error';
import { rgbaToYuv, type YuvImage } from '@/core/picture/planes';
import { perSecond, type Rate } from '@/core/time/rate';
import { MovieWriter, writableContainers } from './writer';

/** seconds that a still stands for */
const seconds = 12;
/** pixels of a still's longer side at most */
const longest = 1920;
const bitrate = 12e6;

/**
 * A still as a film in which it stands: what is built can be tried with it before anything is filmed.
 * @throws CoreError `media.still` where it is no picture that this browser reads, or no film can be written
 */
export async function filmOfStill(still: Blob, rate: Rate): Promise<Blob> {
  const picture = await createImageBitmap(still).catch(() =>
    refuse('media.still', 'This picture cannot be read. Save it as PNG or JPEG, then bring it in again.'),
  );
  const fitted = fitWithin(picture, Math.min(longest, Math.max(picture.width, picture.height)));
  // Films have sides of even length.
  const even = (side: number) => Math.max(16, 2 * Math.round(side / 2));
  const size = { width: even(fitted.width), height: even(fitted.height) };
  const paper = new OffscreenCanvas(size.width, size.height).getContext(
    '2d',
  ) as OffscreenCanvasRenderingContext2D;
  // What is see-through shows paper.
  paper.fillStyle = '#ffffff';
  paper.fillRect(0, 0, size.width, size.height);
  paper.drawImage(picture, 0, 0, size.width, size.height);
  picture.close();
  return standingFilm(rgbaToYuv(paper.getImageData(0, 0, size.width, size.height)), rate);
}

/**
 * A picture as a film in which it stands.
 * @throws CoreError `media.still` where this browser can write no film
 */
export async function standingFilm(picture: YuvImage, rate: Rate): Promise<Blob> {
  const writable = await writableContainers(picture);
  if (!writable.mov && !writable.webm)
    refuse(
      'media.still',
      'This browser writes no film, which a still has to become. Film it for some seconds instead.',
    );
  const writer = await MovieWriter.open({
    container: writable.mov ? 'mp4' : 'webm',
    size: { width: picture.width, height: picture.height },
    bitrate,
    keyEvery: 1,
    rate,
    sound: null,
  });
  for (let frame = 0; frame < seconds * perSecond(rate); frame++) await writer.addFrame(picture, frame);
  return (await writer.finish()) as Blob;
}
