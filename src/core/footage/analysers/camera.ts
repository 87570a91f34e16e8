import { allowed } from '../../finding/allowed';
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
import { median } from '../../statistics';
import { nudgeBetween } from '../nudge';
import { prepareReference, type Reference } from '../reference';
import { registerFrame } from '../register';
import type { Analyser, Found } from './analyser';

/** pictures from one that is registered in any case to the next */
const stride = 10;
/** pixels of the analysed picture that a corner may move between two that are registered */
const still = 0.2;
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
      this.places = placesOf(this.reference);
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
    return registerFrame(this.reference as Reference, { ...this.size, data: luma });
  }

  /** Fills in the pictures since the last one that was registered. */
  private fillIn(): void {
    const { waiting, track, size } = this;
    if (waiting.length === 0) return;
    const start = track.length;
    const end = this.register(waiting[waiting.length - 1]);
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

/** the agreement of a picture that is put where its neighbours stood, at the most */
const unplaced = 0.4;

const isPlaced = ({ agreement }: Placement): boolean => agreement >= allowed.agreement;

/** The places of a reference's finest level that carry position, as indices of pixels. */
function placesOf({ anchors: [finest], width, height }: Reference): Int32Array<ArrayBuffer> {
  return Int32Array.from(finest.x, (x, index) =>
    Math.round((finest.y[index] + height / 2 - 0.5) * width + x + width / 2 - 0.5),
  );
}

/** share of the take's usual agreement from which on a picture beside one that cannot be placed is trusted again */
const trusted = 0.85;

/**
 * Which pictures stand where they were found. Whatever covers the set comes and goes: what fits less and less before
 * it is covered, and more and more afterwards, is drawn along by what covers it.
 */
function placedWell(track: readonly Placement[]): boolean[] {
  const placed = track.map(isPlaced);
  const enough = trusted * median(track.map(({ agreement }) => agreement));
  const doubt = (index: number, neighbour: number) => {
    if (placed[neighbour] === false && track[index].agreement < enough) placed[index] = false;
  };
  for (let index = 1; index < track.length; index++) doubt(index, index - 1);
  for (let index = track.length - 2; index >= 0; index--) doubt(index, index + 1);
  return placed.some(Boolean) ? placed : track.map(isPlaced);
}

/** Pictures that could not be placed, put where those round them stood; all stay where none could be. */
function bridged(track: readonly Placement[]): Placement[] {
  const placed = placedWell(track);
  if (!placed.some(Boolean)) return [...track];
  return track.map((placement, index) => {
    if (placed[index]) return placement;
    const before = placed.lastIndexOf(true, index);
    const after = placed.indexOf(true, index);
    const [from, to] = [before < 0 ? after : before, after < 0 ? before : after];
    const share = from === to ? 0 : (index - from) / (to - from);
    const agreement = Math.min(placement.agreement, unplaced);
    return { ...mixed(track[from], track[to], share), agreement };
  });
}

/** Each picture against the take's own first one: a curve of packed placements, in pixels of the analysed picture. */
export const camera: Analyser<null> = {
  begin: ({ analysis }) => new CameraTrack(analysis),
};
