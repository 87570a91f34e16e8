import { allowed } from '../finding/allowed';
import {
  chain,
  cornerMove,
  inPlace,
  inverted,
  mixed,
  packPlacements,
  type Placement,
} from '../geometry/placement';
import type { Size } from '../geometry/size';
import { coverScale } from '../motion/edge-cover';
import type { Pass } from '../pass';
import type { GrayImage } from '../picture/image';
import { prepareReference, type Reference } from './reference';
import { groundFrame } from './ground';

/** How a camera goes that moves freely, over a stretch of a take. */
export type PathTask = {
  is: 'path';
  media: string;
  /** seconds of the take */
  from: number;
  until: number;
};

/** Where each picture of a stretch lies against the first one. */
export type FreePath = {
  /** of the pictures that lengths count in */
  size: Size;
  /** seconds of the take at which each begins to show */
  times: Float64Array;
  /** as `packPlacements` packs them */
  placements: Float32Array;
  /** seconds of pictures that could not be placed: the camera is taken to have stood there */
  lost: number[];
};

/** share of the width by which a picture may lie off the one that it is held against, before the next is held against it */
const anchored = 0.06;

/**
 * Follows a camera from picture to picture. Each is held against an earlier one that shows about the same, so that
 * errors do not add up with every picture.
 */
export class FreePathPass implements Pass<{ luma: GrayImage; seconds: number }, FreePath> {
  private anchor: { reference: Reference; at: Placement } | null = null;
  private before: { luma: GrayImage; at: Placement } | null = null;
  private readonly times: number[] = [];
  private readonly placements: Placement[] = [];
  private readonly lost: number[] = [];

  /** @param placeIn how a picture is held against an earlier one; whoever fills much of it is left out as in `groundFrame` */
  constructor(
    private readonly placeIn: (reference: Reference, frame: GrayImage) => Placement = groundFrame,
  ) {}

  push({ luma, seconds }: { luma: GrayImage; seconds: number }): void {
    const at = this.place(luma);
    if (!at) this.lost.push(seconds);
    const here = at ?? this.before?.at ?? inPlace;
    this.times.push(seconds);
    this.placements.push(here);
    // What cannot be placed begins anew with itself.
    if (!this.anchor || !at) this.hold(luma, here);
    this.before = { luma, at: here };
  }

  finish(): FreePath {
    const { width = 0, height = 0 } = this.before?.luma ?? {};
    return {
      size: { width, height },
      times: Float64Array.from(this.times),
      placements: packPlacements(this.placements),
      lost: this.lost,
    };
  }

  private hold(luma: GrayImage, at: Placement): void {
    this.anchor = { reference: prepareReference(luma), at };
  }

  private place(luma: GrayImage): Placement | null {
    const { anchor, before } = this;
    if (!anchor || !before) return inPlace;
    const found = this.placeIn(anchor.reference, luma);
    const isNear = cornerMove(found, luma) < anchored * luma.width;
    if (found.agreement >= allowed.agreement && isNear) return chain(anchor.at, found);
    this.hold(before.luma, before.at);
    const again = this.placeIn((this.anchor as NonNullable<typeof this.anchor>).reference, luma);
    return again.agreement >= allowed.agreement ? chain(before.at, again) : null;
  }
}

/** the standard deviation of what is smoothed over, in seconds: at full strength, and the share of it at which a mean ends */
const [longest, ends] = [1, 3];

/** Values as a heavier camera would have them; beyond both ends they go on as they came, so that no end is drawn inwards. */
function calmed(values: readonly number[], times: Float64Array, deviation: number): number[] {
  const last = values.length - 1;
  const valueAt = (index: number): [number, number] => {
    if (index < 0)
      return [2 * times[0] - times[Math.min(last, -index)], 2 * values[0] - values[Math.min(last, -index)]];
    if (index <= last) return [times[index], values[index]];
    const mirrored = Math.max(0, 2 * last - index);
    return [2 * times[last] - times[mirrored], 2 * values[last] - values[mirrored]];
  };
  return values.map((_, index) => {
    let [sum, weights] = [0, 0];
    for (const step of [-1, 1])
      for (let at = step < 0 ? index : index + 1; at > index - last && at < index + last; at += step) {
        const [time, value] = valueAt(at);
        const far = (time - times[index]) / deviation;
        if (Math.abs(far) > ends) break;
        const weight = Math.exp((-far * far) / 2);
        sum += weight * value;
        weights += weight;
      }
    return weights > 0 ? sum / weights : values[index];
  });
}

/** What makes a path calm. */
export type Smoothing = {
  /** for each picture, how it has to be moved, in pixels of the path's size */
  moves: Placement[];
  /** by how much all of them are enlarged, so that no edge shows */
  cover: number;
  /** how much of what was asked for was done, 0..1: more would enlarge further than is allowed */
  done: number;
  /** how far corners jump from what the picture before and the one after say, in pixels: before and after, in 95 % of the pictures */
  shakes: { before: number; after: number };
};

/** The 95th percentile of how far a corner lies from midway between the pictures before and after it. */
function shakeOf(placements: readonly Placement[], size: Size): number {
  const jumps = placements.slice(1, -1).map((here, index) => {
    const between = mixed(placements[index], placements[index + 2], 0.5);
    return cornerMove(chain(inverted(between), here), size);
  });
  jumps.sort((one, other) => one - other);
  return jumps[Math.floor(0.95 * (jumps.length - 1))] ?? 0;
}

/**
 * Smooths a camera on its own way.
 * @param strength 0..1
 */
export function smoothPath(
  placements: readonly Placement[],
  times: Float64Array,
  size: Size,
  strength: number,
): Smoothing {
  const of = (key: 'dx' | 'dy' | 'rotation' | 'scale') => placements.map((placement) => placement[key]);
  const deviation = Math.max(1e-3, strength * longest);
  const calm = (key: 'dx' | 'dy' | 'rotation' | 'scale') => calmed(of(key), times, deviation);
  const [dx, dy, rotation, scale] = [calm('dx'), calm('dy'), calm('rotation'), calm('scale')];
  const whole = placements.map((here, index) =>
    chain(inverted(here), {
      dx: dx[index],
      dy: dy[index],
      rotation: rotation[index],
      scale: scale[index],
      agreement: here.agreement,
    }),
  );
  const partly = (share: number) => whole.map((move) => mixed(inPlace, move, share));
  const coverOf = (moves: readonly Placement[]) =>
    coverScale(
      moves.map(({ dx: x, dy: y, rotation: turn, scale: size }) => ({ x, y, rotation: turn, scale: size })),
      size,
    );
  let done = 1;
  if (coverOf(whole) > allowed.smoothed) {
    let [low, high] = [0, 1];
    for (let round = 0; round < 20; round++) {
      const middle = (low + high) / 2;
      if (coverOf(partly(middle)) > allowed.smoothed) high = middle;
      else low = middle;
    }
    done = low;
  }
  const moves = partly(done);
  const after = placements.map((here, index) => chain(here, moves[index]));
  return {
    moves,
    cover: coverOf(moves),
    done,
    shakes: { before: shakeOf(placements, size), after: shakeOf(after, size) },
  };
}
