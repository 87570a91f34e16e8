import { VideoSampleSink, type Input, type VideoSample } from 'mediabunny';
import { refuse } from '@/core/error';
import { pictureAt } from '@/core/footage/picture-times';
import { chromaSide, turnYuv, type YuvImage, type YuvKind } from '@/core/picture/planes';
import { Cursors, type Placed } from './cursors';
import { openInput } from './open';

export type Picture = { picture: YuvImage; time: number; duration: number };

/** The matrix and range that a file says, else what its height suggests. */
function kindOf(sample: VideoSample): YuvKind {
  const { matrix, fullRange } = sample.colorSpace;
  const old = matrix === 'smpte170m' || matrix === 'bt470bg' || (!matrix && sample.codedHeight < 720);
  return { matrix: old ? 'bt601' : 'bt709', fullRange: fullRange ?? false };
}

/** Copies the planes of a decoded picture, upright and tightly packed. */
export async function planesOf(sample: VideoSample): Promise<YuvImage> {
  const { format } = sample;
  if (format !== 'I420' && format !== 'NV12' && format !== 'I420A') {
    refuse(
      'media.depth',
      'These pictures are not 8-bit 4:2:0. Set the camera to 8 bit SDR, or convert the file to H.264.',
    );
  }
  const bytes = new Uint8Array(sample.allocationSize());
  const layout = await sample.copyTo(bytes);
  const { width, height } = sample.visibleRect;
  const plane = (index: number, columns: number, rows: number, step = 1, first = 0): Uint8Array => {
    const { offset, stride } = layout[index];
    if (step === 1 && stride === columns) return bytes.subarray(offset, offset + columns * rows);
    const out = new Uint8Array(columns * rows);
    for (let row = 0; row < rows; row++) {
      const from = offset + row * stride + first;
      if (step === 1) out.set(bytes.subarray(from, from + columns), row * columns);
      else for (let x = 0; x < columns; x++) out[row * columns + x] = bytes[from + x * step];
    }
    return out;
  };
  const [cw, ch] = [chromaSide(width), chromaSide(height)];
  const image: YuvImage = {
    width,
    height,
    ...kindOf(sample),
    y: plane(0, width, height),
    u: format === 'NV12' ? plane(1, cw, ch, 2, 0) : plane(1, cw, ch),
    v: format === 'NV12' ? plane(1, cw, ch, 2, 1) : plane(2, cw, ch),
  };
  return turnYuv(image, sample.rotation);
}

/** Every picture of a file in order, from `start` seconds on; closed by leaving the loop. */
export async function* readPictures(input: Input, start = 0): AsyncGenerator<Picture> {
  const track = await input.getPrimaryVideoTrack();
  if (!track) refuse('media.no-pictures', 'The file holds no pictures. Choose a video.');
  for await (const sample of new VideoSampleSink(track).samples(start)) {
    try {
      if (sample.timestamp + sample.duration <= 0 && sample.timestamp < 0) continue;
      yield { picture: await planesOf(sample), time: sample.timestamp, duration: sample.duration };
    } finally {
      sample.close();
    }
  }
}

/** Pictures of a file by time, decoded onwards where possible and kept for stepping to and fro. */
export class PictureReader {
  private readonly input: Input;
  private readonly cursors: Cursors<YuvImage>;

  /**
   * @param times seconds at which each picture begins to show, as measured
   * @param keep pictures that stay at hand
   */
  constructor(
    blob: Blob,
    private readonly times: Float64Array,
    keep = 6,
  ) {
    const input = openInput(blob);
    const tick = times.length > 1 ? times[1] - times[0] : 0.04;
    async function* open(index: number): AsyncGenerator<Placed<YuvImage>> {
      for await (const { picture, time } of readPictures(input, times[index] + tick / 4))
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

  async close(): Promise<void> {
    await this.cursors.close();
    this.input.dispose();
  }
}
