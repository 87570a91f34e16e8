import { median } from '@/core/statistics';
import {
  chain,
  cornerMove,
  inverted,
  placementMatrix,
  scalePlacement,
  unpackPlacements,
  type Placement,
} from '@/core/geometry/placement';
import { cameraAt, cameraPath } from '@/core/footage/camera-path';
import { matchTake } from '@/core/footage/colour-match';
import { coveredCells, packCells, presenceOf, type Standing } from '@/core/footage/presence';
import { pictureAt } from '@/core/footage/picture-times';
import { prepareReference } from '@/core/footage/reference';
import { registerFrame } from '@/core/footage/register';
import { softnessBetween } from '@/core/footage/softness';
import type { Comparison, MeasuredTake } from '@/core/model/measures';
import type { Size } from '@/core/geometry/size';
import { resamplePlane } from '@/core/picture/resample';
import { refuse } from '@/core/error';
import { allowed } from '@/core/finding/allowed';
import type { RgbaImage } from '@/core/picture/image';
import { yuvToRgba } from '@/core/picture/planes';

/** shares of the take at which its light is held against the plate's */
const lightAt = [0, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875, 1];

const inTheMiddle = <One>(list: readonly One[]): One => list[list.length >> 1];

/** How a take's first picture lies against the plate, as most of its kept views have it. */
export function baseOf(take: MeasuredTake, track: readonly Placement[], plate: MeasuredTake): Placement {
  const reference = prepareReference(inTheMiddle(plate.stills.views).luma);
  const offsets = take.stills.views.map(({ time, luma }) => {
    const found = registerFrame(reference, luma);
    const own = track[pictureAt(take.times, time)];
    return { ...chain(found, inverted(own)), agreement: found.agreement };
  });
  const part = (key: keyof Placement) => median(offsets.map((offset) => offset[key]));
  return {
    dx: part('dx'),
    dy: part('dy'),
    rotation: part('rotation'),
    scale: part('scale'),
    agreement: part('agreement'),
  };
}

/**
 * Pixels of the analysed picture that a corner of the kept views still lies off once their movement was undone: they
 * are put back as the painter would, and registered again.
 * @param camera where the camera stood at some seconds, in pixels of the analysed picture
 */
function leftOver(take: MeasuredTake, plate: MeasuredTake, camera: (seconds: number) => Placement): number {
  const { analysis, stills } = take;
  const whole = { left: 0, top: 0, right: analysis.width, bottom: analysis.height };
  const reference = prepareReference(inTheMiddle(plate.stills.views).luma);
  const left = stills.views.map(({ time, luma }) => {
    const data = new Uint8Array(luma.data.length);
    const back = placementMatrix(camera(time), analysis);
    resamplePlane(luma.data, analysis, back, data, analysis, whole, null, 'repeated');
    const found = registerFrame(reference, { ...analysis, data });
    return found.agreement < allowed.agreement ? 0 : cornerMove(found, analysis);
  });
  return Math.max(...left);
}

/**
 * How much softer the kept views of a take are than its plate, in pixels of its picture. The first picture of a file is
 * often compressed more than any other, and says nothing.
 */
function softerIn(take: MeasuredTake, plate: MeasuredTake): { time: number; by: number }[] {
  const sharp = inTheMiddle(plate.stills.views).luma;
  return take.stills.views.slice(1).flatMap(({ time, luma }) => {
    const found = softnessBetween(sharp, luma);
    return found ? [{ time, by: (found.sharper * take.size.width) / found.across }] : [];
  });
}

/** @throws CoreError `take.size` where pictures of a take and its plate differ in size */
export function checkOneSize(take: Size, plate: Size): void {
  if (take.width === plate.width && take.height === plate.height) return;
  refuse(
    'take.size',
    'The take and the plate differ in size or are turned. Film or choose both the same way.',
  );
}

/** What is said of a take that shows nothing of what its plate does. */
export const nothingAlike = (size: Size): Comparison => ({
  path: cameraPath([], new Float64Array(), size),
  left: 0,
  colour: null,
  agreement: 0,
  covered: new Uint8Array(coveredCells.width * coveredCells.height),
  standing: { times: [], packed: [] },
});

/**
 * Holds a measured take against its measured plate, from what was kept of both: nothing is decoded again.
 * @throws CoreError `take.size` where their pictures differ in size
 */
export function compareTake(take: MeasuredTake, plate: MeasuredTake): Comparison {
  checkOneSize(take.analysis, plate.analysis);
  const track = unpackPlacements(take.track);
  const base = baseOf(take, track, plate);
  const factor = take.size.width / take.analysis.width;
  const placements = track.map((own) => scalePlacement(chain(base, own), factor));
  const empty = yuvToRgba(inTheMiddle(plate.stills.pictures).picture);
  const { pictures } = take.stills;
  // What covers the set has a light of its own.
  const seen = ({ time }: { time: number }) =>
    track[pictureAt(take.times, time)].agreement >= allowed.agreement;
  const lit = new Set(lightAt.map((share) => Math.round(share * (pictures.length - 1))));
  const covered = new Uint8Array(coveredCells.width * coveredCells.height);
  const standing: Standing = { times: [], packed: [] };
  const views: { time: number; picture: RgbaImage }[] = [];
  for (const [index, still] of pictures.entries()) {
    const picture = yuvToRgba(still.picture);
    if (lit.has(index) && (seen(still) || !pictures.some(seen))) views.push({ time: still.time, picture });
    const there = presenceOf(empty, picture, coveredCells, 30);
    there.forEach((value, cell) => (covered[cell] |= value));
    standing.times.push(still.time);
    standing.packed.push(packCells(there));
  }
  const path = cameraPath(placements, take.times, take.size);
  const camera = cameraAt(path);
  const off = leftOver(take, plate, (seconds) => scalePlacement(camera(seconds), 1 / factor));
  return {
    path,
    left: Math.max(path.left, off * factor),
    colour: matchTake(empty, views),
    agreement: base.agreement,
    softer: softerIn(take, plate),
    covered,
    standing,
  };
}
