import { pictureBetween } from '@/core/picture/between';
import type { YuvImage, YuvMatrix } from '@/core/picture/planes';
import { PictureReader } from './pictures';

/** A file that pictures come from: the proxy or the original, with the real times of its pictures. */
export type Source = {
  media: string;
  blob: Blob;
  times: Float64Array;
  /** how its colours are read where it does not say so */
  matrix?: YuvMatrix;
};

/** nearer to a picture than this share of the way to the next, that picture shows */
const whole = 0.02;
/** pictures made of two that stay at hand */
const mostMade = 24;

/** Readers for all sources of a shot, one file each. */
export class Footage {
  private readonly readers = new Map<string, PictureReader>();
  /** pictures that were made of two, which takes long */
  private readonly made = new Map<string, YuvImage>();

  /** @param keep pictures of each file that stay at hand */
  constructor(sources: readonly Source[], keep?: number) {
    for (const source of sources)
      this.readers.set(source.media, new PictureReader(source.blob, source.times, keep, source.matrix));
  }

  /**
   * The picture of a file that shows at some seconds; null where the file is missing.
   * @param between makes one of the two that some seconds lie between, along what moves
   */
  async at(media: string, seconds: number, between?: 'moves'): Promise<YuvImage | null> {
    const reader = this.readers.get(media);
    if (!reader) return null;
    return between ? this.between(media, reader, seconds) : reader.at(seconds);
  }

  /** The two pictures that some seconds lie between; null where the file is missing. */
  async around(
    media: string,
    seconds: number,
  ): Promise<{ one: YuvImage; two: YuvImage; share: number } | null> {
    const reader = this.readers.get(media);
    if (!reader) return null;
    const { earlier, later, share } = reader.around(seconds);
    return { one: await reader.at(earlier), two: await reader.at(later), share };
  }

  private async between(media: string, reader: PictureReader, seconds: number): Promise<YuvImage> {
    const { earlier, later, share } = reader.around(seconds);
    if (share < whole) return reader.at(earlier);
    if (share > 1 - whole) return reader.at(later);
    const key = `${media} ${seconds}`;
    const kept = this.made.get(key);
    if (kept) return kept;
    const [one, two] = [await reader.at(earlier), await reader.at(later)];
    const made = pictureBetween(one, two, share);
    const [oldest] = this.made.keys();
    if (this.made.size >= mostMade) this.made.delete(oldest);
    this.made.set(key, made);
    return made;
  }

  /** Says that nobody looks any more at pictures that were given out and are not kept. */
  release(): void {
    for (const reader of this.readers.values()) reader.release();
  }

  async close(): Promise<void> {
    await Promise.all([...this.readers.values()].map((reader) => reader.close()));
  }
}
