import { cornerMove, inPlace, packPlacements, unpackPlacements, type Placement } from '../geometry/placement';
import type { Size } from '../geometry/size';
import { lastNotAfter } from './picture-times';

/** How the camera of a take stood against its plate all along, told in little; pixels of the take's own size. */
export type CameraPath = {
  /** seconds at which each stretch begins in which the camera stood */
  begins: Float64Array;
  /** where it stood in each, as `packPlacements` packs them */
  placements: Float32Array;
  /** the one picture that lies furthest away: by how much its corner did, where, and at which second */
  furthest: { move: number; placement: Placement; at: number };
  /** the second at which it has left its first place by half of that; null where it lay as far off from the start */
  leaves: number | null;
};

/** A stretch of pictures in which a camera stood: from an index on, with the mean of its placements. */
export type Stretch = { from: number; placement: Placement };

/**
 * A locked camera either stands or moves: stretches that stand get their mean, so that noise does not shake them.
 * @param limit pixels that noise stays under
 */
export function calmStretches(placements: readonly Placement[], limit = 0.15): Stretch[] {
  const out: Stretch[] = [];
  let start = 0;
  const mean = (from: number, to: number, key: keyof Placement) => {
    let sum = 0;
    for (let index = from; index < to; index++) sum += placements[index][key];
    return sum / (to - from);
  };
  const near = (a: Placement, b: { dx: number; dy: number; rotation: number }) =>
    Math.hypot(a.dx - b.dx, a.dy - b.dy) < limit && Math.abs(a.rotation - b.rotation) < 0.03;
  while (start < placements.length) {
    let end = start + 1;
    const anchor = { ...placements[start] };
    while (end < placements.length && near(placements[end], anchor)) {
      anchor.dx += (placements[end].dx - anchor.dx) / (end - start + 1);
      anchor.dy += (placements[end].dy - anchor.dy) / (end - start + 1);
      anchor.rotation += (placements[end].rotation - anchor.rotation) / (end - start + 1);
      end++;
    }
    out.push({
      from: start,
      placement: {
        dx: mean(start, end, 'dx'),
        dy: mean(start, end, 'dy'),
        rotation: mean(start, end, 'rotation'),
        scale: mean(start, end, 'scale'),
        agreement: mean(start, end, 'agreement'),
      },
    });
    start = end;
  }
  return out;
}

/** Index of the first picture that has left the first one's place by more than `move` pixels; -1 where none has. */
function leaving(placements: readonly Placement[], size: Size, move: number): number {
  const first = placements[0] ?? inPlace;
  return placements.findIndex((placement) => {
    const own = { ...placement, dx: placement.dx - first.dx, dy: placement.dy - first.dy };
    return cornerMove({ ...own, rotation: placement.rotation - first.rotation }, size) > move;
  });
}

/**
 * @param placements each picture of a take against its reference, in pixels of `size`
 * @param times seconds at which each picture begins to show
 */
export function cameraPath(placements: readonly Placement[], times: Float64Array, size: Size): CameraPath {
  const stretches = calmStretches(placements);
  let furthest = { move: 0, placement: inPlace, at: times[0] ?? 0 };
  placements.forEach((placement, index) => {
    const move = cornerMove(placement, size);
    if (move > furthest.move) furthest = { move, placement, at: times[index] };
  });
  const left = leaving(placements, size, furthest.move / 2);
  return {
    begins: Float64Array.from(stretches, ({ from }) => times[from]),
    placements: packPlacements(stretches.map(({ placement }) => placement)),
    furthest,
    leaves: left > 0 ? times[left] : null,
  };
}

/** Where the camera stood at some seconds, as a function; noise is gone. */
export function cameraAt({ begins, placements }: CameraPath): (seconds: number) => Placement {
  const stretches = unpackPlacements(placements);
  return (seconds) => stretches[lastNotAfter(begins, seconds)] ?? inPlace;
}
