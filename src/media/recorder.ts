import { refuse } from '@/core/error';

const kinds = [
  'video/mp4;codecs=avc1.42E01F,mp4a.40.2',
  'video/webm;codecs=h264,opus',
  'video/webm;codecs=vp9,opus',
  'video/webm;codecs=vp8,opus',
  'video/webm',
  'video/mp4',
];

/**
 * Records a stream in pieces that are kept one by one as they come, so that whatever ends the recording, what was
 * recorded until then is there.
 */
export class StreamRecorder {
  private readonly recorder: MediaRecorder;
  private writing: Promise<void> = Promise.resolve();
  private count = 0;
  private failure: unknown = null;
  private holed = false;
  readonly type: string;

  /**
   * @param keep keeps one piece; when it fails, recording ends and what was kept before stays
   * @throws CoreError `recording.none` where this browser cannot record
   */
  constructor(
    stream: MediaStream,
    bitsPerSecond: number,
    private readonly keep: (piece: Blob, index: number) => Promise<void>,
    private readonly onEnd: (failure: unknown) => void,
  ) {
    const type =
      typeof MediaRecorder === 'undefined' ? null : kinds.find((one) => MediaRecorder.isTypeSupported(one));
    if (!type)
      refuse(
        'recording.none',
        'This browser cannot record. Film with the camera application and use Quick check.',
      );
    this.recorder = new MediaRecorder(stream, {
      mimeType: type as string,
      videoBitsPerSecond: bitsPerSecond,
    });
    this.type = (type as string).split(';')[0];
    this.recorder.addEventListener('dataavailable', ({ data }) => this.take(data));
    this.recorder.addEventListener('error', (event) => this.end((event as ErrorEvent).error ?? event));
    this.recorder.addEventListener('stop', () => void this.writing.then(() => this.onEnd(this.failure)));
  }

  start(): void {
    this.recorder.start(1000);
  }

  /** Ends the recording; `onEnd` is called once the last piece is kept. */
  stop(): void {
    if (this.recorder.state !== 'inactive') this.recorder.stop();
  }

  private end(failure: unknown): void {
    this.failure ??= failure;
    this.stop();
  }

  private take(data: Blob): void {
    if (data.size === 0) return;
    const index = this.count++;
    this.writing = this.writing.then(async () => {
      // After a piece that could not be kept the rest would have a hole before it.
      if (this.holed) return;
      try {
        await this.keep(data, index);
      } catch (error) {
        this.holed = true;
        this.end(error);
      }
    });
  }
}
