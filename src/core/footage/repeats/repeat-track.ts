import { between, chain, cornerMove, unpackPlacements, type Placement } from '../../geometry/placement';
import type { Size } from '../../geometry/size';
import type { GrayImage } from '../../picture/image';
import { bridged } from '../bridged';
import type { FreePath } from '../free-path';
import { lastNotAfter, pictureAt } from '../picture-times';
import { prepareReference } from '../reference';
import { registerFrame } from '../register';
import { standsAt } from './in-step';

/** Pictures of a take, by their seconds, and where each lies. */
export type Placed = {
  times: Float64Array;
  /** as `packPlacements` packs them */
  placements: Float32Array;
};

/** How a take repeats the move of another one, in pixels of the take's own size. */
export type Repeat = {
  /** seconds by which its pictures come later than those of the other take that show the same */
  late: number;
  /** the pictures of the take that it repeats, each against the first of them */
  lead: Placed;
  /** its own pictures, each against that same first one */
  own: Placed;
  /** how far a corner gets from where it is at first: in the take that it repeats, and in its own pictures that were held against that */
  travels: { lead: number; own: number };
};

/** How far a corner of the picture gets from where it is in the first of some pictures, in pixels of `size`. */
export const travelOf = (placements: readonly Placement[], size: Size): number =>
  placements.reduce((most, one) => Math.max(most, cornerMove(between(placements[0], one), size)), 0);

/** Holds each picture of a take against the one of the take that it repeats that it is in step with. */
export class RepeatTrack {
  private readonly leads: Placement[];
  private readonly times: number[] = [];
  private readonly beside: Placement[] = [];
  private readonly with: number[] = [];

  /** @param late seconds by which the take comes later */
  constructor(
    private readonly lead: FreePath,
    private readonly late: number,
  ) {
    this.leads = unpackPlacements(lead.placements);
  }

  /** Index of the picture of the other take that one of this take is held against. */
  leadAt(seconds: number): number {
    return pictureAt(this.lead.times, seconds - this.late);
  }

  /** True where the other take has a picture for one of this take. */
  meets(seconds: number): boolean {
    const { times } = this.lead;
    const grace = (times[times.length - 1] - times[0]) / Math.max(1, times.length - 1);
    const then = seconds - this.late;
    return then > times[0] - grace && then < times[times.length - 1] + grace;
  }

  /** @returns how the picture lies against that of the other take */
  push(lead: GrayImage, own: GrayImage, seconds: number): Placement {
    const placed = registerFrame(prepareReference(lead), own);
    this.times.push(seconds);
    this.beside.push(placed);
    this.with.push(this.leadAt(seconds));
    return placed;
  }

  /**
   * How the pictures of the take lie beside the other take's way as it goes on between pictures, and against its first
   * picture. Those that could not be placed are put where those round them are.
   */
  finish(): { times: Float64Array; beside: Placement[]; own: Placement[] } {
    const standing = standsAt(this.lead);
    const own = bridged(this.beside).map((placed, index) => chain(this.leads[this.with[index]], placed));
    return {
      times: Float64Array.from(this.times),
      beside: own.map((placed, index) => ({
        ...between(standing(this.times[index] - this.late), placed),
        agreement: placed.agreement,
      })),
      own,
    };
  }
}

/**
 * Where each picture of a take lies against the first one of the take that it repeats; beyond the pictures that were
 * held against one of that, as its camera went by itself.
 * @param times of the pictures that were held against one
 * @param own where those lie
 * @param path the take's own way, in pixels that `own` counts in
 */
export function wholeWay(times: Float64Array, own: readonly Placement[], path: FreePath): Placement[] {
  const standing = standsAt(path);
  const last = times.length - 1;
  return [...path.times].map((seconds) => {
    const at = lastNotAfter(times, seconds);
    if (seconds >= times[0] && seconds <= times[last]) return own[at];
    const nearest = seconds < times[0] ? 0 : last;
    return chain(own[nearest], between(standing(times[nearest]), standing(seconds)));
  });
}
