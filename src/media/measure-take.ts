import { refuse } from '@/core/error';
import { analyse, type FoundBy } from '@/core/footage/analysers';
import type { AnalyserName, TakePart } from '@/core/footage/take-parts';
import { pictureTimes } from '@/core/footage/picture-times';
import { fitWithin, type Size } from '@/core/geometry/size';
import type { ReadColours, Stills, TakePictures } from '@/core/model/measures';
import { resizePlane, resizeYuv, yuvToRgba, type YuvImage, type YuvMatrix } from '@/core/picture/planes';
import { openInput } from './open';
import { coloursOf, readPictures } from './pictures';
import { MovieWriter } from './writer';

const analysisSide = 960;
const proxySide = 640;
const posterSide = 480;
const stillSide = 160;
const stillCount = 16;
const viewCount = 3;

export type Progress = (share: number) => void;

/** What decoding keeps of a take's pictures. */
type DecodedTake = TakePictures & {
  /** seconds at which each picture begins to show */
  starts: Float64Array<ArrayBuffer>;
  stills: Stills;
  /** a small JPEG to know the take by */
  poster: Blob;
  /** a small film whose pictures match the take's one to one */
  proxy: Blob;
  /** false where the file breaks off before its end */
  complete: boolean;
};

/** The largest size within a limit that divides evenly, where there is one: shrinking to it is quick and exact. */
function shrinkByWhole(size: Size, limit: number): Size {
  const factor = Math.ceil(Math.max(size.width, size.height) / limit);
  const even = size.width % (2 * factor) === 0 && size.height % (2 * factor) === 0;
  return even ? { width: size.width / factor, height: size.height / factor } : fitWithin(size, limit);
}

async function posterOf(picture: YuvImage): Promise<Blob> {
  const { data, width, height } = yuvToRgba(picture);
  const canvas = new OffscreenCanvas(width, height);
  canvas
    .getContext('2d')
    ?.putImageData(new ImageData(data as Uint8ClampedArray<ArrayBuffer>, width, height), 0, 0);
  return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.85 });
}

/** Keeps of a take's pictures what will be needed when the take is no longer decoded. */
class Keeper {
  private readonly kept: { time: number; poster: YuvImage; luma: Uint8Array }[] = [];
  private readonly starts: number[] = [];
  private readonly proxySize: Size;

  private constructor(
    private readonly size: Size,
    private readonly analysis: Size,
    private readonly colours: ReadColours,
    private readonly apart: number,
    private readonly proxy: MovieWriter,
  ) {
    this.proxySize = fitWithin(size, proxySide);
  }

  /** @param duration seconds of the take, as its file says */
  static async begin(size: Size, analysis: Size, colours: ReadColours, duration: number): Promise<Keeper> {
    const writer = await MovieWriter.open({
      container: 'mp4',
      size: fitWithin(size, proxySide),
      bitrate: 5_000_000,
      keyEvery: 0.3,
      rate: null,
      sound: null,
    });
    return new Keeper(size, analysis, colours, duration / stillCount, writer);
  }

  async push(picture: YuvImage, luma: Uint8Array, time: number, duration: number): Promise<void> {
    const { kept, starts, analysis, proxySize } = this;
    if (time >= kept.length * this.apart)
      kept.push({ time, poster: resizeYuv(picture, fitWithin(picture, posterSide)), luma });
    starts.push(time);
    const same = proxySize.width === analysis.width && proxySize.height === analysis.height;
    await this.proxy.addPicture(
      resizeYuv(picture, proxySize, same ? { luma } : {}),
      Math.max(0, time),
      duration,
    );
  }

  async finish(complete: boolean): Promise<DecodedTake> {
    const { size, analysis, colours, kept } = this;
    const starts = Float64Array.from(this.starts);
    const views = Array.from(
      { length: viewCount },
      (_, index) => kept[Math.round((index * (kept.length - 1)) / (viewCount - 1))],
    );
    return {
      size,
      analysis,
      times: pictureTimes(starts),
      colours,
      starts,
      stills: {
        pictures: kept.map(({ time, poster }) => ({
          time,
          picture: resizeYuv(poster, fitWithin(poster, stillSide)),
        })),
        views: views.map(({ time, luma }) => ({ time, luma: { ...analysis, data: luma } })),
      },
      poster: await posterOf(kept[kept.length >> 1].poster),
      proxy: (await this.proxy.finish()) as Blob,
      complete,
    };
  }
}

/**
 * Decodes a take once for all that is missing of it. A file that breaks off keeps what can be read.
 * @param expected seconds of the take, as its file says
 * @param parts what is missing; pictures that are there already are not kept again
 * @param chosen how colours are read where the file does not say it
 * @throws CoreError where not one picture can be decoded
 */
export async function measureTake(
  blob: Blob,
  expected: number,
  parts: readonly TakePart[],
  chosen: YuvMatrix | undefined,
  onProgress: Progress,
): Promise<{ pictures: DecodedTake | null; found: FoundBy }> {
  const input = openInput(blob);
  const names = parts.filter((part): part is AnalyserName => part !== 'pictures');
  let keeper: Keeper | null = null;
  let passes: ReturnType<typeof analyse> | null = null;
  let [count, last, step] = [0, 0, 0];
  let complete = true;
  let analysis: Size = { width: 0, height: 0 };
  try {
    const track = await input.getPrimaryVideoTrack();
    const colours = track && (await coloursOf(track, chosen));
    for await (const { picture, time, duration } of readPictures(input, { chosen })) {
      if (!passes) {
        const size = { width: picture.width, height: picture.height };
        analysis = shrinkByWhole(size, analysisSide);
        passes = analyse(names, { analysis, fullRange: picture.fullRange });
        if (colours && parts.includes('pictures'))
          keeper = await Keeper.begin(size, analysis, colours, expected);
      }
      const luma = resizePlane(picture.y, picture, analysis);
      passes.push(luma, time);
      await keeper?.push(picture, luma, time, duration);
      if (count++ === 1) step = time - last;
      last = time;
      onProgress(Math.min(1, time / Math.max(0.1, expected)));
    }
  } catch (error) {
    if (count === 0) throw error;
    complete = false;
  } finally {
    input.dispose();
  }
  if (!passes) {
    return refuse(
      'media.no-pictures',
      'Not one picture of this file can be decoded. Copy it from the camera again.',
    );
  }
  const read = last + step;
  if (read < expected - Math.max(0.3, expected * 0.03)) complete = false;
  return { pictures: keeper && (await keeper.finish(complete)), found: passes.finish() };
}
