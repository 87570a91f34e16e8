import { cornerMove, inPlace, packPlacements, type Placement } from '../../geometry/placement';
import type { Size } from '../../geometry/size';
import type { Pass } from '../../pass';
import { prepareReference, type Reference } from '../reference';
import { registerFrame } from '../register';
import type { Analyser, Found } from './analyser';

/** pictures from one that is registered in any case to the next */
const stride = 10;
/** pixels of the analysed picture that a corner may move between two that are registered */
const still = 0.2;

/** Registers about every tenth picture, and by halving every one round a change. */
class CameraTrack implements Pass<Uint8Array, Found<null>> {
  private reference: Reference | null = null;
  private readonly waiting: Uint8Array[] = [];
  private last: Placement = inPlace;
  private readonly track: Placement[] = [];

  constructor(private readonly size: Size) {}

  push(luma: Uint8Array): void {
    const copy = luma.slice();
    if (!this.reference) {
      this.reference = prepareReference({ ...this.size, data: copy });
      this.track.push(inPlace);
      return;
    }
    this.waiting.push(copy);
    if (this.waiting.length === stride) this.fillIn();
  }

  finish(): Found<null> {
    this.fillIn();
    return { small: null, curve: packPlacements(this.track) };
  }

  private register(luma: Uint8Array): Placement {
    return registerFrame(this.reference as Reference, { ...this.size, data: luma });
  }

  /** Fills in the pictures since the last one that was registered. */
  private fillIn(): void {
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
      if (to - from > 1 && moved > still) {
        const between = (from + to) >> 1;
        const found = this.register(waiting[between]);
        fill(from, before, between, found);
        fill(between, found, to, after);
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

/** Each picture against the take's own first one: a curve of packed placements, in pixels of the analysed picture. */
export const camera: Analyser<null> = {
  version: 1,
  begin: ({ analysis }) => new CameraTrack(analysis),
};
