import {
  AudioSample,
  AudioSampleSource,
  canEncodeAudio,
  canEncodeVideo,
  MovOutputFormat,
  Mp4OutputFormat,
  Output,
  VideoSample,
  VideoSampleSource,
  WebMOutputFormat,
  type StreamTarget,
} from 'mediabunny';
import type { Size } from '@/core/geometry/size';
import { convertYuv } from '@/core/picture/convert-planes';
import { blankYuv, bt709, planesLength, sameKind, type YuvImage } from '@/core/picture/planes';
import { perSecond, timeOfFrame, type Rate } from '@/core/time/rate';
import { GrowingBlob } from './growing-blob';

export type Container = 'mp4' | 'mov' | 'webm';

export const mimeOf: Record<Container, string> = {
  mp4: 'video/mp4',
  mov: 'video/quicktime',
  webm: 'video/webm',
};

/** What this browser can write: each container needs a codec for pictures and one for sound. */
export async function writableContainers(size: Size): Promise<Record<Container, boolean>> {
  const [avc, vp9, aac, opus] = await Promise.all([
    canEncodeVideo('avc', size),
    canEncodeVideo('vp9', size),
    canEncodeAudio('aac'),
    canEncodeAudio('opus'),
  ]);
  return { mp4: avc && aac, mov: avc, webm: vp9 && opus };
}

const formats = {
  mp4: () => new Mp4OutputFormat({ fastStart: false }),
  mov: () => new MovOutputFormat({ fastStart: false }),
  webm: () => new WebMOutputFormat(),
};
const soundCodec = { mp4: 'aac', mov: 'pcm-s16', webm: 'opus' } as const;

const colour = { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', fullRange: false } as const;

type WriterOptions = {
  container: Container;
  size: Size;
  bitrate: number;
  /** seconds between key pictures */
  keyEvery: number;
  /** the exact rate; without one pictures bring their own times */
  rate: Rate | null;
  sound: { sampleRate: number; channels: number } | null;
  target?: StreamTarget;
};

/** Encodes 4:2:0 pictures, of whatever kind, as BT.709 limited range and tagged so, and sound into a file. */
export class MovieWriter {
  private readonly output: Output;
  private readonly pictures: VideoSampleSource;
  private readonly sound: AudioSampleSource | null;
  private readonly grown: GrowingBlob | null;
  private bytes = new Uint8Array(0);
  private readonly converted: YuvImage;

  private constructor(private readonly options: WriterOptions) {
    const { container } = options;
    this.converted = blankYuv(options.size);
    this.grown = options.target ? null : new GrowingBlob();
    this.output = new Output({
      format: formats[container](),
      target: options.target ?? (this.grown as GrowingBlob).target,
    });
    this.pictures = new VideoSampleSource({
      codec: container === 'webm' ? 'vp9' : 'avc',
      bitrate: options.bitrate,
      keyFrameInterval: options.keyEvery,
      latencyMode: 'quality',
    });
    this.output.addVideoTrack(this.pictures, options.rate ? { frameRate: perSecond(options.rate) } : {});
    this.sound = options.sound
      ? new AudioSampleSource({ codec: soundCodec[container], bitrate: 192_000 })
      : null;
    if (this.sound) this.output.addAudioTrack(this.sound);
  }

  static async open(options: WriterOptions): Promise<MovieWriter> {
    const writer = new MovieWriter(options);
    await writer.output.start();
    return writer;
  }

  /** The picture's planes one after the other, which they are already where they were made so. */
  private packed(image: YuvImage): Uint8Array<ArrayBuffer> {
    const [size, { buffer, byteOffset }] = [planesLength(image), image.y];
    const follows = (plane: Uint8Array, before: Uint8Array) =>
      plane.buffer === buffer && plane.byteOffset === before.byteOffset + before.length;
    if (follows(image.u, image.y) && follows(image.v, image.u))
      return new Uint8Array(buffer as ArrayBuffer, byteOffset, size);
    if (this.bytes.length !== size) this.bytes = new Uint8Array(size);
    this.bytes.set(image.y);
    this.bytes.set(image.u, image.y.length);
    this.bytes.set(image.v, image.y.length + image.u.length);
    return this.bytes;
  }

  /** Adds a picture. The planes may be painted over as soon as this returns its promise's value. */
  async addPicture(picture: YuvImage, time: number, duration: number): Promise<void> {
    const image = sameKind(picture, bt709) ? picture : convertYuv(picture, this.converted);
    // The frame takes its own copy at once; the sample adds the exact time, which a frame rounds.
    const frame = new VideoFrame(this.packed(image), {
      format: 'I420',
      codedWidth: image.width,
      codedHeight: image.height,
      timestamp: Math.round(time * 1e6),
      duration: Math.round(duration * 1e6),
      colorSpace: colour,
    });
    const sample = new VideoSample(frame, { timestamp: time, duration });
    await this.pictures.add(sample);
    sample.close();
  }

  /** Adds the picture of a frame that counts from 0 at the writer's own rate. */
  addFrame(image: YuvImage, frame: number): Promise<void> {
    const rate = this.options.rate as Rate;
    return this.addPicture(image, timeOfFrame(rate, frame), timeOfFrame(rate, 1));
  }

  /** Adds sound, a channel each, at `time` seconds. */
  async addSound(channels: readonly Float32Array[], sampleRate: number, time: number): Promise<void> {
    const data = new Float32Array(channels.length * channels[0].length);
    channels.forEach((samples, channel) => data.set(samples, channel * samples.length));
    const sample = new AudioSample({
      data,
      format: 'f32-planar',
      numberOfChannels: channels.length,
      sampleRate,
      timestamp: time,
    });
    await this.sound?.add(sample);
    sample.close();
  }

  /** Finishes the file; null where it went to the target that was given. */
  async finish(): Promise<Blob | null> {
    await this.output.finalize();
    return this.grown?.as(mimeOf[this.options.container]) ?? null;
  }

  async cancel(): Promise<void> {
    await this.output.cancel();
  }
}
