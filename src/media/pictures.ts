import { VideoSampleSink, type Input, type InputVideoTrack, type VideoSample } from 'mediabunny';
import { refuse } from '@/core/error';
import { pictureAt } from '@/core/footage/picture-times';
import type { ReadColours } from '@/core/model/measures';
import { packedYuv, turnYuv, type YuvImage, type YuvKind, type YuvMatrix } from '@/core/picture/planes';
import { Cursors, type Placed } from './cursors';
import { checkFormat, deep } from './formats';
import { openInput } from './open';

export type Picture = { picture: YuvImage; time: number; duration: number };

/** Lines from which on a picture is high definition, whose untagged colours browsers read as BT.709. */
const highDefinition = 720;

/**
 * How the colours of a track's pictures are read: as the container or the stream says, else as somebody chose, else
 * by the picture's height, as browsers do.
 */
export async function coloursOf(track: InputVideoTrack, chosen?: YuvMatrix): Promise<ReadColours> {
  const { matrix, fullRange } = await track.getColorSpace();
  const lines = Math.min(await track.getCodedHeight(), await track.getCodedWidth());
  const suggested = lines < highDefinition ? 'bt601' : 'bt709';
  const said = matrix && (matrix === 'smpte170m' || matrix === 'bt470bg' ? 'bt601' : 'bt709');
  return { matrix: said ?? chosen ?? suggested, fullRange: fullRange ?? false, assumed: !said };
}

/** Memory of pictures that nobody looks at any more, for those that are read next: making it anew takes longer than filling it. */
class SpareMemory {
  private readonly spare: Uint8Array<ArrayBuffer>[] = [];

  /** @param most pictures' memory that is kept for later */
  constructor(private readonly most = 4) {}

  /** Bytes of any content. */
  take(length: number): Uint8Array<ArrayBuffer> {
    const found = this.spare.pop();
    return found?.length === length ? found : new Uint8Array(length);
  }

  /** Takes the memory of a picture, whose planes must not be read from now on. */
  giveBack({ y }: YuvImage): void {
    if (this.spare.length < this.most) this.spare.push(new Uint8Array(y.buffer as ArrayBuffer));
  }
}

/**
 * Copies the planes of a decoded picture, upright and tightly packed.
 * @param kind how its colours are read
 * @param memory where to copy to
 * @see WebCodecs, VideoFrame.copyTo: without a layout planes follow one another without gaps
 */
export async function planesOf(
  sample: VideoSample,
  kind: YuvKind,
  memory = new SpareMemory(),
): Promise<YuvImage> {
  const format = checkFormat(sample.format);
  const bits = deep[format] ?? 8;
  const bytes = memory.take(sample.allocationSize() / (bits > 8 ? 2 : 1));
  if (bits > 8) {
    const words = new Uint16Array(bytes.length);
    await sample.copyTo(words);
    for (let at = 0; at < bytes.length; at++)
      bytes[at] = Math.min(255, (words[at] + 2 ** (bits - 9)) >> (bits - 8));
  } else await sample.copyTo(bytes);
  const image = packedYuv(bytes, sample.visibleRect, kind);
  if (format === 'NV12') {
    const pairs = bytes.slice(image.y.length);
    for (let at = 0; at < image.u.length; at++) {
      image.u[at] = pairs[2 * at];
      image.v[at] = pairs[2 * at + 1];
    }
  }
  return turnYuv(image, sample.rotation);
}

type Reading = { start?: number; chosen?: YuvMatrix; memory?: SpareMemory };

/**
 * Every picture of a file in order, from `start` seconds on; closed by leaving the loop.
 * @param chosen how colours are read where the file does not say it
 * @param memory where pictures are copied to
 */
export async function* readPictures(
  input: Input,
  { start = 0, chosen, memory = new SpareMemory() }: Reading = {},
): AsyncGenerator<Picture> {
  const track = await input.getPrimaryVideoTrack();
  if (!track) refuse('media.no-pictures', 'The file holds no pictures. Choose a video.');
  const kind = await coloursOf(track, chosen);
  for await (const sample of new VideoSampleSink(track).samples(start)) {
    try {
      if (sample.timestamp + sample.duration <= 0 && sample.timestamp < 0) continue;
      yield {
        picture: await planesOf(sample, kind, memory),
        time: sample.timestamp,
        duration: sample.duration,
      };
    } finally {
      sample.close();
    }
  }
}

/**
 * Pictures of a file by time, decoded onwards where possible and kept for stepping to and fro. A picture that was given
 * out stays as it is until {@link release}.
 */
export class PictureReader {
  private readonly input: Input;
  private readonly cursors: Cursors<YuvImage>;
  private readonly memory = new SpareMemory();

  /**
   * @param times seconds at which each picture begins to show, as measured
   * @param keep pictures that stay at hand
   * @param chosen how colours are read where the file does not say it
   */
  constructor(
    blob: Blob,
    private readonly times: Float64Array,
    keep = 6,
    chosen?: YuvMatrix,
  ) {
    const input = openInput(blob);
    const { memory } = this;
    const tick = times.length > 1 ? times[1] - times[0] : 0.04;
    async function* open(index: number): AsyncGenerator<Placed<YuvImage>> {
      const start = times[index] + tick / 4;
      for await (const { picture, time } of readPictures(input, { start, chosen, memory }))
        yield { index: pictureAt(times, time), picture };
    }
    this.input = input;
    this.cursors = new Cursors(open, keep);
  }

  /**
   * The picture that shows at a time in seconds.
   * @throws CoreError `media.truncated` where the file ends before it
   */
  async at(seconds: number): Promise<YuvImage> {
    const found = await this.cursors.at(pictureAt(this.times, seconds));
    return found ?? refuse('media.truncated', 'The file has fewer pictures than it had. Bring it in again.');
  }

  /** The seconds of the two pictures that some seconds lie between, and how far on the way from one to the other. */
  around(seconds: number): { earlier: number; later: number; share: number } {
    const { times } = this;
    const index = Math.max(
      0,
      times.findLastIndex((time) => time <= seconds + 1e-6),
    );
    const [earlier, later] = [times[index], times[Math.min(times.length - 1, index + 1)]];
    const share = later > earlier ? Math.min(1, Math.max(0, (seconds - earlier) / (later - earlier))) : 0;
    return { earlier: earlier + 1e-6, later: later + 1e-6, share };
  }

  /** Says that nobody looks any more at pictures that were given out and are not kept. */
  release(): void {
    for (const picture of this.cursors.takeDropped()) this.memory.giveBack(picture);
  }

  async close(): Promise<void> {
    await this.cursors.close();
    this.input.dispose();
  }
}
