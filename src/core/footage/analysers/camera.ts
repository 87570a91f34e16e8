import {
  between,
  cornerMove,
  inPlace,
  mixed,
  packPlacements,
  type Placement,
} from '../../geometry/placement';
import type { Size } from '../../geometry/size';
import type { Pass } from '../../pass';
import type { GrayImage } from '../../picture/image';
import { bridged, isPlaced } from '../bridged';
import { nudgeBetween } from '../nudge';
import { pixelsOf, prepareReference, type Reference } from '../reference';
import { registerFrame } from '../register';
import { Restless, type Seen } from '../restless';
import type { Analyser, Found } from './analyser';

/** pictures from one that is registered in any case to the next */
const stride = 10;
/** pixels of the analysed picture that a corner may move between two that are registered */
const still = 0.2;
/** pixels of it by which a corner seems to move where somebody draws it along */
const slight = 0.05;
/** pixels of it that a corner may move from one picture to the next, by a rough look, before both are registered */
const nudge = 0.12;

/** A picture that has not been placed yet, and whether it moved against the one before it. */
type Waiting = { luma: Uint8Array; moved: boolean };

/**
 * Registers about every tenth picture, and by halving every one round a change. Each picture is held against its
 * neighbour by a rough look, so that no knock between two of them goes unseen. Pictures that cannot be registered
 * (covered, dark, blurred) are bridged from those round them, and keep their low agreement.
 */
class CameraTrack implements Pass<Uint8Array, Found<null>> {
  private reference: Reference | null = null;
  private restless: Restless | null = null;
  /** what of the reference is to be gone by, once somebody moved */
  private ground: Reference | null = null;
  /** the picture that was registered last in any case */
  private seen: Seen | null = null;
  private places = new Int32Array(0);
  private before: Uint8Array | null = null;
  private waiting: Waiting[] = [];
  private last: Placement = inPlace;
  private readonly track: Placement[] = [];

  constructor(private readonly size: Size) {}

  push(luma: Uint8Array): void {
    const copy = luma.slice();
    if (!this.reference || !this.before) {
      this.reference = prepareReference({ ...this.size, data: copy });
      this.restless = new Restless(this.reference, this.size);
      this.seen = { luma: copy, placement: inPlace };
      this.places = pixelsOf(this.reference.anchors[0]);
      this.track.push(inPlace);
    } else {
      const moved = nudgeBetween(this.before, copy, this.size, this.places) > nudge;
      this.waiting.push({ luma: copy, moved });
      if (this.waiting.length === stride) this.fillIn();
    }
    this.before = copy;
  }

  finish(): Found<null> {
    this.fillIn();
    return { small: null, curve: packPlacements(bridged(this.track)) };
  }

  private register({ luma }: Waiting): Placement {
    const frame = { ...this.size, data: luma };
    const found = registerFrame(this.reference as Reference, frame);
    return isPlaced(found) ? this.behind(frame, found) : found;
  }

  /** Registers a picture, and tells from it who moves. */
  private registerEnd({ luma }: Waiting): Placement {
    const frame = { ...this.size, data: luma };
    const whole = registerFrame(this.reference as Reference, frame);
    if (!isPlaced(whole)) return whole;
    const found = this.behind(frame, whole);
    const ground = this.seen && this.restless?.look(this.seen, { luma, placement: found });
    this.seen = { luma, placement: found };
    if (!ground) return found;
    this.ground = ground;
    this.seen.placement = this.behind(frame, whole);
    return this.seen.placement;
  }

  /** How a picture lies behind whoever is known to move, where they may have drawn what was found along. */
  private behind(frame: GrayImage, found: Placement): Placement {
    if (!this.ground || cornerMove(between(this.last, found), this.size) <= slight) return found;
    const { agreement, ...place } = registerFrame(this.ground, frame);
    return agreement > 0 ? { ...place, agreement: found.agreement } : found;
  }

  /** Fills in the pictures since the last one that was registered. */
  private fillIn(): void {
    const { waiting, track, size } = this;
    if (waiting.length === 0) return;
    const start = track.length;
    const end = this.registerEnd(waiting[waiting.length - 1]);
    const fill = (from: number, before: Placement, to: number, after: Placement) => {
      const changes =
        waiting.slice(from + 1, to + 1).some(({ moved }) => moved) ||
        isPlaced(before) !== isPlaced(after) ||
        cornerMove(between(before, after), size) > still;
      if (to - from > 1 && changes) {
        const middle = (from + to) >> 1;
        const found = this.register(waiting[middle]);
        fill(from, before, middle, found);
        fill(middle, found, to, after);
        return;
      }
      for (let index = from + 1; index <= to; index++)
        track[start + index] = mixed(before, after, (index - from) / (to - from));
    };
    fill(-1, this.last, waiting.length - 1, end);
    this.last = end;
    this.waiting = [];
  }
}

/** Each picture against the take's own first one: a curve of packed placements, in pixels of the analysed picture. */
export const camera: Analyser<null> = {
  begin: ({ analysis }) => new CameraTrack(analysis),
};
