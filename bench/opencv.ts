/**
 * Mattes, tracking and registration here and by OpenCV, in one run and on pictures whose truth is known:
 * `npm run bench:opencv`. Needs ffmpeg, and Debian's packages for a photograph.
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import library from '@techstark/opencv-js';
import { plateMatte, prepareReference, registerFrame, type GrayImage, type RgbaImage } from '@/core';
import { moving, patchPicture, patchSize } from '@/core/__tests__/moving-patch';
import { shot, texture } from '@/core/__tests__/scene';
import { followPatch } from '@/core/footage/track/patch';
import { mapPoint, type Affine } from '@/core/geometry/affine';
import { inPlace, placementMatrix } from '@/core/geometry/placement';
import type { Point, Size } from '@/core/geometry/size';
import { seeded } from '@/core/random';
import { median, quantile } from '@/core/statistics';
import { filmWalker, outside, size as walked, type Ground } from '../e2e/support/walker-film';

type Mat = {
  data: Uint8Array;
  data32F: Float32Array;
  data64F: Float64Array;
  rows: number;
  delete(): void;
};
/** What is used of OpenCV here. */
type OpenCv = {
  onRuntimeInitialized: () => void;
  Mat: {
    new (): Mat;
    new (rows: number, columns: number, type: number): Mat;
    ones(rows: number, columns: number, type: number): Mat;
  };
  Size: new (width: number, height: number) => object;
  TermCriteria: new (type: number, rounds: number, epsilon: number) => object;
  BackgroundSubtractorMOG2: new (
    history: number,
    threshold: number,
    shadows: boolean,
  ) => { apply(picture: Mat, mask: Mat, rate: number): void };
  CV_8UC1: number;
  CV_8UC3: number;
  CV_32FC1: number;
  CV_32FC2: number;
  MORPH_OPEN: number;
  MORPH_CLOSE: number;
  MOTION_EUCLIDEAN: number;
  morphologyEx(from: Mat, to: Mat, kind: number, kernel: Mat): void;
  calcOpticalFlowPyrLK(
    one: Mat,
    other: Mat,
    from: Mat,
    to: Mat,
    status: Mat,
    error: Mat,
    window: object,
    levels: number,
  ): void;
  estimateAffine2D(from: Mat, to: Mat, inliers: Mat): Mat;
  findTransformECC(
    template: Mat,
    picture: Mat,
    warp: Mat,
    motion: number,
    criteria: object,
    mask: Mat,
    blur: number,
  ): number;
};
const cv = library as unknown as OpenCv;
await new Promise<void>((ready) => (cv.onRuntimeInitialized = ready));

const tell = (what: string, here: string, there: string) =>
  console.log(`${what}: here ${here}; OpenCV ${there}`);
/** Milliseconds that something takes, and its answer. */
function timed<Answer>(act: () => Answer): [answer: Answer, milliseconds: number] {
  const begun = performance.now();
  const answer = act();
  return [answer, performance.now() - begun];
}

function grayMat({ width, height, data }: GrayImage): Mat {
  const mat = new cv.Mat(height, width, cv.CV_8UC1);
  mat.data.set(Uint8Array.from(data, (value) => Math.min(255, Math.max(0, Math.round(value)))));
  return mat;
}
function colourMat({ width, height, data }: RgbaImage): Mat {
  const mat = new cv.Mat(height, width, cv.CV_8UC3);
  for (let pixel = 0; pixel < width * height; pixel++)
    for (let channel = 0; channel < 3; channel++) mat.data[3 * pixel + channel] = data[4 * pixel + channel];
  return mat;
}

/** Intersection over union with the figure that walks. */
function overlap(isIn: (pixel: number) => boolean, time: number): number {
  let [both, either] = [0, 0];
  for (let y = 0, p = 0; y < walked.height; y++)
    for (let x = 0; x < walked.width; x++, p++) {
      const [is, found] = [outside(x + 0.5, y + 0.5, time) < 0, isIn(p)];
      if (is && found) both++;
      if (is || found) either++;
    }
  return both / either;
}

function mattes(ground: Ground): void {
  const folder = mkdtempSync(join(tmpdir(), 'opencv-'));
  const times = Array.from({ length: 16 }, (_, index) => index);
  const { plates, plate, pictures } = filmWalker((name) => join(folder, name), ground, times);
  rmSync(folder, { recursive: true });
  plateMatte(plate, pictures[0]);
  const [own, ownTime] = timed(() => pictures.map((picture) => plateMatte(plate, picture)));
  const background = new cv.BackgroundSubtractorMOG2(30, 16, true);
  const mask = new cv.Mat();
  for (let round = 0; round < 10; round++)
    for (const one of plates) background.apply(colourMat(one), mask, -1);
  const [small, large] = [3, 5].map((side) => cv.Mat.ones(side, side, cv.CV_8UC1));
  const colours = pictures.map(colourMat);
  const [other, otherTime] = timed(() =>
    colours.map((picture) => {
      background.apply(picture, mask, 0);
      // Shadows are 127 and do not belong to anybody; specks go and gaps close, as is common practice.
      const found = new cv.Mat(walked.height, walked.width, cv.CV_8UC1);
      found.data.set(mask.data.map((value) => (value === 255 ? 255 : 0)));
      cv.morphologyEx(found, found, cv.MORPH_OPEN, small);
      cv.morphologyEx(found, found, cv.MORPH_CLOSE, large);
      return found.data.slice();
    }),
  );
  const least = (masks: readonly Uint8Array[]) =>
    Math.min(...masks.map((one, index) => overlap((pixel) => one[pixel] > 127, times[index])));
  const each = (milliseconds: number) => `${(milliseconds / times.length).toFixed(1)} ms`;
  tell(
    `Plate mattes before ${ground}, least overlap with the figure (wanted 0.95), time a picture`,
    `${least(own.map(({ data }) => data)).toFixed(3)}, ${each(ownTime)}`,
    `(MOG2) ${least(other).toFixed(3)}, ${each(otherTime)}`,
  );
}

function tracking(): void {
  const frames = Array.from({ length: 101 }, (_, frame) => patchPicture(frame + 1, moving(frame)));
  const off = ([x, y]: Point, frame: number) => Math.hypot(x - moving(frame).x, y - moving(frame).y);
  const begin = moving(0);
  const [own, ownTime] = timed(() => {
    const follow = followPatch(frames[0], [begin.x, begin.y], 20);
    return frames.slice(1).map((frame) => follow(frame));
  });
  const mats = frames.map(grayMat);
  const [other, otherTime] = timed(() => {
    const side = 7;
    let from = new cv.Mat(side * side, 1, cv.CV_32FC2);
    for (let index = 0; index < side * side; index++) {
      const [column, row] = [index % side, Math.floor(index / side)];
      from.data32F.set([begin.x - 18.5 + 6 * column, begin.y - 18.5 + 6 * row], 2 * index);
    }
    let at: Point = [begin.x - 0.5, begin.y - 0.5];
    return mats.slice(1).map((mat, index): Point => {
      const [to, status, error] = [new cv.Mat(), new cv.Mat(), new cv.Mat()];
      cv.calcOpticalFlowPyrLK(mats[index], mat, from, to, status, error, new cv.Size(15, 15), 3);
      const [a, b, tx, c, d, ty] = cv.estimateAffine2D(from, to, new cv.Mat()).data64F;
      at = [a * at[0] + b * at[1] + tx, c * at[0] + d * at[1] + ty];
      from = to;
      return [at[0] + 0.5, at[1] + 0.5];
    });
  });
  const errors = own.map((found, index) => (found ? off([found.x, found.y], index + 1) : Infinity));
  const others = other.map((found, index) => off(found, index + 1));
  const said = (all: number[], milliseconds: number) =>
    `${Math.max(...all).toFixed(2)} px at most, ${median(all).toFixed(2)} in the middle, ${(milliseconds / 100).toFixed(1)} ms`;
  tell(
    `A patch of ${patchSize.width} × ${patchSize.height} pictures that moves, grows by 1.6 and turns by 50° over 100 frames (wanted 0.5 px), time a picture`,
    said(errors, ownTime),
    `(Lucas-Kanade, 49 points, affine by RANSAC) ${said(others, otherTime)}`,
  );
}

function registration(): void {
  const size: Size = { width: 768, height: 576 };
  const next = seeded(7);
  const rounds = Array.from({ length: 12 }, (_, round) => {
    const scene = texture(100 + (round % 6), size);
    const truth = { ...inPlace, dx: next() * 8 - 4, dy: next() * 8 - 4, rotation: next() * 0.6 - 0.3 };
    const performer = { x: next() * 384, y: 116, w: 384, h: 460 };
    return {
      truth,
      reference: shot(scene, size, inPlace, { noise: 3, seed: round + 900 }),
      frame: shot(scene, size, truth, { gain: 0.85 + next() * 0.3, noise: 3, seed: round, performer }),
    };
  });
  const corners: Point[] = [
    [0, 0],
    [size.width, 0],
    [0, size.height],
    [size.width, size.height],
  ];
  const error = (found: Affine, truth: Affine) =>
    Math.max(
      ...corners.map((corner) => {
        const [[x, y], [toX, toY]] = [mapPoint(found, corner), mapPoint(truth, corner)];
        return Math.hypot(x - toX, y - toY);
      }),
    );
  const prepared = rounds.map(({ reference }) => prepareReference(reference));
  const [own, ownTime] = timed(() => rounds.map(({ frame }, round) => registerFrame(prepared[round], frame)));
  const mats = rounds.map(({ reference, frame }) => [grayMat(reference), grayMat(frame)] as const);
  const [other, otherTime] = timed(() =>
    mats.map(([reference, frame]): Affine => {
      const warp = new cv.Mat(2, 3, cv.CV_32FC1);
      warp.data32F.set([1, 0, 0, 0, 1, 0]);
      const criteria = new cv.TermCriteria(3, 50, 1e-6);
      cv.findTransformECC(reference, frame, warp, cv.MOTION_EUCLIDEAN, criteria, new cv.Mat(), 5);
      const [a, c, e, b, d, f] = warp.data32F;
      // Its pixels are counted from their middles.
      return [a, b, c, d, e + 0.5 - (a + c) / 2, f + 0.5 - (b + d) / 2];
    }),
  );
  const truths = rounds.map(({ truth }) => placementMatrix(truth, size));
  const said = (found: readonly Affine[], milliseconds: number) => {
    const errors = found.map((one, round) => error(one, truths[round]));
    return `${median(errors).toFixed(3)} px in the middle, ${quantile(errors, 0.95).toFixed(3)} at the 95th percentile, ${(milliseconds / rounds.length).toFixed(0)} ms`;
  };
  tell(
    'Registration at 768 × 576 behind a performer of 40 %, gain to 15 %, noise 3/255 (wanted 0.02 and 0.05 px), corner error, time a picture',
    said(
      own.map((found) => placementMatrix(found, size)),
      ownTime,
    ),
    `(ECC, Euclidean) ${said(other, otherTime)}`,
  );
}

mattes('waves');
mattes('photograph');
tracking();
registration();
