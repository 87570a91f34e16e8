import { StreamTarget } from 'mediabunny';

/** bytes that are handed to the browser at once */
const pieceSize = 4 * 2 ** 20;

/**
 * A file that grows piece by piece in the browser's own keeping, which moves to disk what is too much for its memory.
 * In one buffer it would be held twice each time that the buffer grows.
 */
export class GrowingBlob {
  private grown = new Blob();
  readonly target: StreamTarget;

  constructor() {
    const write = ({ data, position }: { data: Uint8Array<ArrayBuffer>; position: number }) => {
      const { grown } = this;
      this.grown = new Blob([grown.slice(0, position), data, grown.slice(position + data.length)]);
    };
    this.target = new StreamTarget(new WritableStream({ write }), { chunked: true, chunkSize: pieceSize });
  }

  /** All that was written so far, as a file of some kind. */
  as(mime: string): Blob {
    return this.grown.slice(0, this.grown.size, mime);
  }
}
