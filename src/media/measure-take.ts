import { refuse } from '@/core/error';
import { cornerMove, inPlace, type Placement } from '@/core/geometry/placement';
import { prepareReference, registerFrame, type Reference } from '@/core/footage/register';
import type { Still, TakeMeasure } from '@/core/model/measures';
import { fitWithin, type Size } from '@/core/geometry/size';
import { resizePlane, resizeYuv, yuvToRgba, type YuvImage } from '@/core/picture/planes';
import { openInput } from './open';
import { readPictures } from './pictures';
import { MovieWriter } from './writer';

const analysisSide = 960;
const proxySide = 640;
const stillSide = 480;
const stride = 10;
const stillCount = 16;
const tiles: Size = { width: 64, height: 36 };

export type Progress = (share: number) => void;

/** The largest size within a limit that divides evenly, where there is one: shrinking to it is quick and exact. */
function shrinkByWhole(size: Size, limit: number): Size {
  const factor = Math.ceil(Math.max(size.width, size.height) / limit);
  const even = size.width % (2 * factor) === 0 && size.height % (2 * factor) === 0;
  return even ? { width: size.width / factor, height: size.height / factor } : fitWithin(size, limit);
}

/** Registers about every tenth picture, and by halving every one round a change. */
class CameraTrack {
  private reference: Reference | null = null;
  private readonly waiting: Uint8Array[] = [];
  private last: Placement = inPlace;
  readonly track: Placement[] = [];

  constructor(private readonly size: Size) {}

  push(luma: Uint8Array): void {
    if (!this.reference) {
      this.reference = prepareReference({ ...this.size, data: luma });
      this.track.push(inPlace);
      return;
    }
    this.waiting.push(luma);
    if (this.waiting.length === stride) this.settle();
  }

  private register(luma: Uint8Array): Placement {
    return registerFrame(this.reference as Reference, { ...this.size, data: luma });
  }

  /** Fills in the pictures since the last one that was registered. */
  settle(): void {
    const { waiting } = this;
    if (waiting.length === 0) return;
    const start = this.track.length;
    const end = this.register(waiting[waiting.length - 1]);
    const fill = (from: number, before: Placement, to: number, after: Placement) => {
      const difference = { ...after, dx: after.dx - before.dx, dy: after.dy - before.dy };
      const moved = cornerMove(
        { ...difference, rotation: after.rotation - before.rotation, scale: after.scale / before.scale },
        this.size,
      );
      if (to - from > 1 && moved > 0.2) {
        const middle = (from + to) >> 1;
        const found = this.register(waiting[middle]);
        fill(from, before, middle, found);
        fill(middle, found, to, after);
        return;
      }
      for (let index = from + 1; index <= to; index++) {
        const share = (index - from) / (to - from);
        const mix = (key: keyof Placement) => before[key] + (after[key] - before[key]) * share;
        this.track[start + index] = {
          dx: mix('dx'),
          dy: mix('dy'),
          rotation: mix('rotation'),
          scale: mix('scale'),
          agreement: mix('agreement'),
        };
      }
    };
    fill(-1, this.last, waiting.length - 1, end);
    this.last = end;
    waiting.length = 0;
  }
}

/** Where the picture changes during a take: lightest and darkest of each tile. */
class MotionTiles {
  private readonly low = new Uint8Array(tiles.width * tiles.height).fill(255);
  private readonly high = new Uint8Array(tiles.width * tiles.height);

  push(luma: Uint8Array, size: Size): void {
    const small = resizePlane(luma, size, tiles);
    small.forEach((value, at) => {
      if (value < this.low[at]) this.low[at] = value;
      if (value > this.high[at]) this.high[at] = value;
    });
  }

  result(): TakeMeasure['motion'] {
    let [count, across] = [0, 0];
    this.high.forEach((value, at) => {
      if (value - this.low[at] < 14) return;
      count++;
      across += ((at % tiles.width) + 0.5) / tiles.width;
    });
    return { share: count / this.high.length, middle: count ? across / count : 0.5 };
  }
}

const stillOf = (picture: YuvImage, time: number, luma: Uint8Array, analysis: Size): Still => ({
  time,
  picture: resizeYuv(picture, fitWithin(picture, stillSide)),
  luma: { ...analysis, data: luma },
});

/** A small JPEG to know the take by. */
async function posterOf(still: Still): Promise<Blob> {
  const { data, width, height } = yuvToRgba(still.picture);
  const canvas = new OffscreenCanvas(width, height);
  canvas
    .getContext('2d')
    ?.putImageData(new ImageData(data as Uint8ClampedArray<ArrayBuffer>, width, height), 0, 0);
  return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.85 });
}

/**
 * Decodes a take once: real times, camera track, motion, stills and a proxy whose pictures match one to one.
 * A file that breaks off keeps what can be read.
 * @throws CoreError where not one picture can be decoded
 */
export async function measureTake(
  blob: Blob,
  expected: { duration: number; rate: number },
  onProgress: Progress,
): Promise<{ measure: TakeMeasure; stills: Still[]; poster: Blob; proxy: Blob; complete: boolean }> {
  const input = openInput(blob);
  const times: number[] = [];
  const stills: Still[] = [];
  const motion = new MotionTiles();
  let [size, analysis, proxySize]: Size[] = [];
  let camera: CameraTrack | null = null;
  let writer: MovieWriter | null = null;
  let complete = true;
  const apart = expected.duration / stillCount;
  try {
    for await (const { picture, time, duration } of readPictures(input)) {
      if (!camera || !writer) {
        size = { width: picture.width, height: picture.height };
        analysis = shrinkByWhole(size, analysisSide);
        proxySize = fitWithin(size, proxySide);
        camera = new CameraTrack(analysis);
        writer = await MovieWriter.open({
          container: 'mp4',
          size: proxySize,
          bitrate: 5_000_000,
          keyEvery: 0.3,
          rate: null,
          sound: null,
        });
      }
      const luma = resizePlane(picture.y, picture, analysis);
      camera.push(luma);
      if (times.length % 4 === 0) motion.push(luma, analysis);
      if (time >= stills.length * apart) stills.push(stillOf(picture, time, luma, analysis));
      times.push(time);
      const same = proxySize.width === analysis.width && proxySize.height === analysis.height;
      await writer.addPicture(
        resizeYuv(picture, proxySize, same ? { luma } : {}),
        Math.max(0, time),
        duration,
      );
      onProgress(Math.min(1, time / Math.max(0.1, expected.duration)));
    }
  } catch (error) {
    if (times.length === 0) throw error;
    complete = false;
  } finally {
    input.dispose();
  }
  if (!camera || !writer) {
    return refuse(
      'media.no-pictures',
      'Not one picture of this file can be decoded. Copy it from the camera again.',
    );
  }
  camera.settle();
  const read = times[times.length - 1] + (times[1] ?? 0) - times[0];
  if (read < expected.duration - Math.max(0.3, expected.duration * 0.03)) complete = false;
  return {
    measure: {
      size,
      analysis,
      times: Float64Array.from(times),
      track: camera.track,
      motion: motion.result(),
    },
    stills,
    poster: await posterOf(stills[stills.length >> 1]),
    proxy: (await writer.finish()) as Blob,
    complete,
  };
}
