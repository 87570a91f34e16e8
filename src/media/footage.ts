import type { DrawItem } from '@/core/picture/layers';
import type { YuvImage } from '@/core/picture/planes';
import { PictureReader } from './pictures';

/** A file that pictures come from: the proxy or the original, with the real times of its pictures. */
export type Source = { media: string; blob: Blob; times: Float64Array };

/** Readers for all sources of a shot, one decoder each. */
export class Footage {
  private readonly readers = new Map<string, PictureReader>();

  constructor(sources: readonly Source[], keep?: number) {
    for (const source of sources)
      this.readers.set(source.media, new PictureReader(source.blob, source.times, keep));
  }

  /** The pictures for a draw list, in its order. Items whose source is missing are left out. */
  async picturesFor(items: readonly DrawItem[]): Promise<{ items: DrawItem[]; pictures: YuvImage[] }> {
    const present = items.filter((item) => this.readers.has(item.media));
    const pictures: YuvImage[] = [];
    for (const item of present)
      pictures.push(await (this.readers.get(item.media) as PictureReader).at(item.time));
    return { items: present, pictures };
  }

  async close(): Promise<void> {
    await Promise.all([...this.readers.values()].map((reader) => reader.close()));
  }
}
