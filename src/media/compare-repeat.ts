import { isPlaced } from '@/core/footage/bridged';
import { cameraPath } from '@/core/footage/camera-path';
import { matchViews, type MatchedView } from '@/core/footage/colour-match';
import { FreePathPass, type FreePath } from '@/core/footage/free-path';
import { coveredCells, packCells, presenceOf, type Standing } from '@/core/footage/presence';
import { registerFrame } from '@/core/footage/register';
import { inStep, pathInSize, type Look, type Travelled } from '@/core/footage/repeats/in-step';
import { leftInParts } from '@/core/footage/repeats/left';
import {
  RepeatTrack,
  travelOf,
  wholeWay,
  type Placed,
  type Repeat,
} from '@/core/footage/repeats/repeat-track';
import {
  packPlacements,
  placementMatrix,
  scalePlacement,
  unpackPlacements,
  type Placement,
} from '@/core/geometry/placement';
import { fitWithin, type Size } from '@/core/geometry/size';
import type { Comparison } from '@/core/model/measures';
import type { GrayImage, RgbaImage } from '@/core/picture/image';
import { resizeYuv, yuvToRgba, type YuvImage } from '@/core/picture/planes';
import { resamplePlane } from '@/core/picture/resample';
import { median, quantile } from '@/core/statistics';
import { checkOneSize, nothingAlike } from './compare-take';
import { Footage, type Source } from './footage';
import type { Progress } from './measure-take';
import { gone, grayOf, looked } from './task-pictures';

/** pixels of the longer side of pictures that are laid on one another, of those that takes are laid in step by, and of those that light and people are told by */
const [acrossPath, acrossStep, acrossLight] = [640, 320, 480];
/** pictures of a take that are looked at, at the most: of a longer one every second, or fewer */
const mostPictures = 3000;
/** pictures of a take that another one's are looked for in */
const looks = 32;
/** pictures of a take in which it is looked who stands where, and by which its light is told, and in which what is left is measured again */
const [stands, lit, measuredAgain] = [48, 9, 8];

/** share of the parts of pictures of which no more is said to be left */
const usualLeft = 0.95;

/** True for about so many of a number of things, evenly. */
const isOneOf = (index: number, many: number, of: number): boolean =>
  many >= of || Math.floor((index * many) / of) !== Math.floor(((index - 1) * many) / of);

/** How the camera of a take goes in pictures of some size, and some pictures in the size that takes are laid in step by. */
async function travel(
  footage: Footage,
  media: string,
  within: readonly number[],
  across: number,
  onProgress: Progress,
): Promise<Travelled> {
  // Half of a picture is enough to say when its camera moves.
  const pass = new FreePathPass(registerFrame);
  const kept: Look[] = [];
  for (const [index, seconds] of within.entries()) {
    const picture = await footage.at(media, seconds + 1e-6);
    if (!picture) return gone();
    pass.push({ luma: grayOf(picture, across), seconds });
    if (isOneOf(index, looks, within.length)) kept.push({ seconds, luma: grayOf(picture, acrossStep) });
    footage.release();
    onProgress((index + 1) / within.length);
  }
  return { path: pass.finish(), looks: kept };
}

/** The plate that takes are held against one after the other, with its way, which is the same for all of them. */
let followed: { plate: string; way: Travelled } | null = null;

/** The way of a plate's camera, followed once for all takes that are held against it. */
async function wayOfPlate(
  footage: Footage,
  { media, matrix }: Source,
  times: readonly number[],
  onProgress: Progress,
): Promise<Travelled> {
  const plate = `${media} ${matrix ?? ''}`;
  if (followed?.plate !== plate)
    followed = { plate, way: await travel(footage, media, times, acrossPath, onProgress) };
  return followed.way;
}

/** A plane as it would lie where the camera had gone the other way. @param placement in pixels of the plane */
function movedBack(data: Uint8Array, size: Size, placement: Placement): Uint8Array {
  const whole = { left: 0, top: 0, right: size.width, bottom: size.height };
  const out = new Uint8Array(data.length);
  resamplePlane(data, size, placementMatrix(placement, size), out, size, whole, null, 'repeated');
  return out;
}

function pictureBack(picture: YuvImage, placement: Placement): YuvImage {
  const { width, height, y, u, v } = picture;
  const chroma = { width: width / 2, height: height / 2 };
  const half = scalePlacement(placement, 0.5);
  return {
    ...picture,
    y: movedBack(y, { width, height }, placement),
    u: movedBack(u, chroma, half),
    v: movedBack(v, chroma, half),
  };
}

/** Of a take of which nothing could be placed. */
const nowhere: Placed = { times: new Float64Array(), placements: new Float32Array() };
const noRepeat: Repeat = { late: 0, lead: nowhere, own: nowhere, travels: { lead: 0, own: 0 } };

/** What is measured of both takes' pictures once they lie on one another. */
class Beside {
  readonly views: MatchedView[] = [];
  readonly standing: Standing = { times: [], packed: [] };
  readonly covered = new Uint8Array(coveredCells.width * coveredCells.height);
  /** pixels that parts of pictures still lie off */
  readonly left: number[] = [];

  /** @param size of the pictures that placements count in */
  constructor(private readonly size: Size) {}

  /** Both pictures, the take's put back to where the plate's camera was. */
  private laid(plate: YuvImage, picture: YuvImage, placed: Placement): { empty: RgbaImage; back: RgbaImage } {
    const small = resizeYuv(picture, fitWithin(picture, acrossLight));
    const back = pictureBack(small, scalePlacement(placed, small.width / this.size.width));
    return { empty: yuvToRgba(resizeYuv(plate, small)), back: yuvToRgba(back) };
  }

  addPeople(seconds: number, plate: YuvImage, picture: YuvImage, placed: Placement): void {
    const { empty, back } = this.laid(plate, picture, placed);
    const there = presenceOf(empty, back, coveredCells, 30);
    there.forEach((value, cell) => (this.covered[cell] |= value));
    this.standing.times.push(seconds);
    this.standing.packed.push(packCells(there));
  }

  addLight(seconds: number, plate: YuvImage, picture: YuvImage, placed: Placement): void {
    if (!isPlaced(placed)) return;
    const { empty, back } = this.laid(plate, picture, placed);
    this.views.push({ time: seconds, picture: back, reference: empty });
  }

  addLeft(plate: GrayImage, luma: GrayImage, placed: Placement): void {
    if (!isPlaced(placed)) return;
    const data = movedBack(luma.data as Uint8Array, luma, placed);
    this.left.push(...leftInParts(plate, { ...luma, data }));
  }
}

/** What is said of a take, from what was measured of it picture by picture. */
function comparisonFrom(
  track: RepeatTrack,
  late: number,
  { views, covered, standing, left }: Beside,
  { lead, own, size }: { lead: FreePath; own: FreePath; size: Size },
): Comparison {
  const factor = size.width / lead.size.width;
  const { times, beside, own: placed } = track.finish();
  const inFull = (placements: readonly Placement[]) =>
    placements.map((placement) => scalePlacement(placement, factor));
  const way = wholeWay(times, inFull(placed), pathInSize(own, size));
  const path = cameraPath(inFull(beside), times, size);
  return {
    path,
    // Where no part of it can be told, nothing is known to be put right.
    left: left.length > 0 ? quantile(left, usualLeft) * factor : path.furthest.move,
    colour: matchViews(views),
    agreement: median(beside.map(({ agreement }) => agreement)),
    covered,
    standing,
    repeat: {
      late,
      lead: { times: lead.times, placements: pathInSize(lead, size).placements },
      own: { times: own.times, placements: packPlacements(way) },
      travels: {
        lead: travelOf(inFull(unpackPlacements(lead.placements)), size),
        own: travelOf(inFull(placed), size),
      },
    },
  };
}

/**
 * Holds a take against a plate whose camera moves, and whose move it repeats, picture by picture.
 * @throws CoreError `take.size` where their pictures differ in size; `absent` where one of them is not here
 */
export async function compareRepeat(
  [take, plate]: readonly [Source, Source],
  onProgress: Progress,
): Promise<Comparison> {
  const footage = new Footage([take, plate]);
  try {
    const [first, empty] = [await footage.at(take.media, 0), await footage.at(plate.media, 0)];
    if (!first || !empty) return gone();
    checkOneSize(first, empty);
    const size = { width: first.width, height: first.height };
    const [ownTimes, leadTimes] = [take, plate].map(({ times }) => looked(times, 0, Infinity, mostPictures));
    const lead = await wayOfPlate(footage, plate, leadTimes, (share) => onProgress(0.25 * share));
    const own = await travel(footage, take.media, ownTimes, acrossStep, (share) =>
      onProgress(0.25 + 0.25 * share),
    );
    const step = inStep({ ...lead, path: pathInSize(lead.path, own.path.size) }, own);
    const track = step && new RepeatTrack(lead.path, step.late);
    const met = ownTimes.filter((seconds) => track?.meets(seconds));
    if (!track || met.length === 0) return { ...nothingAlike(size), repeat: noRepeat };
    const beside = new Beside(lead.path.size);
    for (const [index, seconds] of met.entries()) {
      const one = await footage.at(plate.media, leadTimes[track.leadAt(seconds)] + 1e-6);
      const other = await footage.at(take.media, seconds + 1e-6);
      if (!one || !other) return gone();
      const [reference, luma] = [grayOf(one, acrossPath), grayOf(other, acrossPath)];
      const placed = track.push(reference, luma, seconds);
      if (isOneOf(index, stands, met.length)) beside.addPeople(seconds, one, other, placed);
      if (isOneOf(index, lit, met.length)) beside.addLight(seconds, one, other, placed);
      if (isOneOf(index, measuredAgain, met.length)) beside.addLeft(reference, luma, placed);
      footage.release();
      onProgress(0.5 + (0.5 * (index + 1)) / met.length);
    }
    return comparisonFrom(track, step.late, beside, { lead: lead.path, own: own.path, size });
  } finally {
    await footage.close();
  }
}
