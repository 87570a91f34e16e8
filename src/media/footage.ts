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

/** Readers for all sources of a shot, one file each. */
export class Footage {
  private readonly readers = new Map<string, PictureReader>();

  /** @param keep pictures of each file that stay at hand */
  constructor(sources: readonly Source[], keep?: number) {
    for (const source of sources)
      this.readers.set(source.media, new PictureReader(source.blob, source.times, keep, source.matrix));
  }

  /** The picture of a file that shows at some seconds; null where the file is missing. */
  async at(media: string, seconds: number): Promise<YuvImage | null> {
    return (await this.readers.get(media)?.at(seconds)) ?? null;
  }

  /** Says that nobody looks any more at pictures that were given out and are not kept. */
  release(): void {
    for (const reader of this.readers.values()) reader.release();
  }

  async close(): Promise<void> {
    await Promise.all([...this.readers.values()].map((reader) => reader.close()));
  }
}
