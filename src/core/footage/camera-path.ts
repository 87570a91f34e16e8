import { allowed } from '../finding/allowed';
import {
  between,
  cornerMove,
  inPlace,
  mixed,
  packPlacements,
  unpackPlacements,
  type Placement,
} from '../geometry/placement';
import type { Size } from '../geometry/size';
import { lastNotAfter } from './picture-times';

/** How the camera of a take stood against its plate all along, told in little; pixels of the take's own size. */
export type CameraPath = {
  /** seconds of the pictures between which the camera stood, or moved evenly */
  times: Float64Array;
  /** where it stood in each, as `packPlacements` packs them */
  placements: Float32Array;
  /** 1 where the next of them is the very next picture, so that nothing lies in between */
  holds: Uint8Array;
  /** the one picture that lies furthest away: by how much its corner did, where, and at which second */
  furthest: { move: number; placement: Placement; at: number };
  /** the second at which it has left its first place by half of that; null where it lay as far off from the start */
  leaves: number | null;
  /** pixels by which the corner of the picture lies off that this path tells worst */
  left: number;
  /** pictures that could not be placed, and the second of the first of them; null where all could be */
  unplaced: { pictures: number; at: number } | null;
};

/** A stretch of pictures in which a camera stood: its first and its last index, with the mean of its placements. */
export type Stretch = { from: number; to: number; placement: Placement };

/** pictures from which on a stretch is one in which the camera stood; shorter ones are parts of a move */
const standing = 12;

/** pixels that noise stays under, in a picture 1280 wide */
const noise = 0.3;

const noiseIn = ({ width, height }: Size): number => (noise * Math.max(width, height)) / 1280;

/** A locked camera either stands or moves: stretches that stand get their mean, so that noise does not shake them. */
export function calmStretches(placements: readonly Placement[], size: Size): Stretch[] {
  const limit = noiseIn(size);
  const out: Stretch[] = [];
  let start = 0;
  while (start < placements.length) {
    let end = start + 1;
    let mean = placements[start];
    while (end < placements.length && cornerMove(between(mean, placements[end]), size) < limit) {
      mean = mixed(mean, placements[end], 1 / (end - start + 1));
      end++;
    }
    out.push({ from: start, to: end - 1, placement: mean });
    start = end;
  }
  return out;
}

/**
 * What a path is made of: both ends of a stretch in which the camera stood, and each picture of a move. Stretches that
 * stand close to the next are parts of a slow drift, which goes on evenly from one to the other.
 */
function knotsOf(stretches: readonly Stretch[], placements: readonly Placement[], size: Size) {
  const stands = (one: Stretch | undefined): one is Stretch => !!one && one.to - one.from + 1 >= standing;
  const drifts = (one: Stretch, other: Stretch | undefined) =>
    stands(one) &&
    stands(other) &&
    cornerMove(between(one.placement, other.placement), size) < 2 * noiseIn(size);
  return stretches.flatMap((stretch, at) => {
    const { from, to, placement } = stretch;
    if (!stands(stretch) && stretches.length > 1)
      return placements.slice(from, to + 1).map((one, step) => ({ index: from + step, placement: one }));
    const ends = [
      ...(drifts(stretch, stretches[at - 1]) ? [] : [from]),
      ...(drifts(stretch, stretches[at + 1]) ? [] : [to]),
    ];
    return [...new Set(ends.length > 0 ? ends : [(from + to) >> 1])].map((index) => ({ index, placement }));
  });
}

/** Index of the first picture that has left the first one's place by more than `move` pixels; -1 where none has. */
function leaving(placements: readonly Placement[], size: Size, move: number): number {
  const first = placements[0] ?? inPlace;
  // What lay off from the start did not move when it came back.
  if (cornerMove(first, size) > move) return -1;
  return placements.findIndex((placement) => cornerMove(between(first, placement), size) > move);
}

/**
 * @param placements each picture of a take against its reference, in pixels of `size`
 * @param times seconds at which each picture begins to show
 */
export function cameraPath(placements: readonly Placement[], times: Float64Array, size: Size): CameraPath {
  const knots = knotsOf(calmStretches(placements, size), placements, size);
  let furthest = { move: 0, placement: inPlace, at: times[0] ?? 0 };
  placements.forEach((placement, index) => {
    const move = cornerMove(placement, size);
    if (move > furthest.move) furthest = { move, placement, at: times[index] };
  });
  const leaves = leaving(placements, size, furthest.move / 2);
  const unplaced = placements.flatMap(({ agreement }, index) =>
    agreement < allowed.agreement ? [times[index]] : [],
  );
  const path: CameraPath = {
    times: Float64Array.from(knots, ({ index }) => times[index]),
    placements: packPlacements(knots.map(({ placement }) => placement)),
    holds: Uint8Array.from(knots, ({ index }, at) => (knots[at + 1]?.index === index + 1 ? 1 : 0)),
    furthest,
    leaves: leaves > 0 ? times[leaves] : null,
    left: 0,
    unplaced: unplaced.length > 0 ? { pictures: unplaced.length, at: unplaced[0] } : null,
  };
  const camera = cameraAt(path);
  const left = placements.map((placement, index) =>
    cornerMove(between(camera(times[index]), placement), size),
  );
  return { ...path, left: left.reduce((most, one) => Math.max(most, one), 0) };
}

/**
 * Where the camera stood at some seconds, as a function; noise is gone. Between two pictures that follow one another
 * it is where the earlier one was, else it moves evenly from the one to the other.
 */
export function cameraAt({ times, placements, holds }: CameraPath): (seconds: number) => Placement {
  const knots = unpackPlacements(placements);
  return (seconds) => {
    const at = lastNotAfter(times, seconds);
    const [before, after] = [knots[at] ?? inPlace, knots[at + 1]];
    if (!after || holds[at]) return before;
    const share = (seconds - times[at]) / (times[at + 1] - times[at]);
    return mixed(before, after, Math.min(1, Math.max(0, share)));
  };
}
