import type { ImageEmbedder, PoseLandmarker } from '@mediapipe/tasks-vision';
import { refuse } from '@/core/error';
import type { Cutout } from '@/core/footage/cutout';
import type { FaceTold } from '@/core/people/face';
import { asWide, inFours } from '@/core/people/in-fours';
import type { Pose } from '@/core/people/pose';
import type { GrayImage, RgbaImage } from '@/core/picture/image';
import { hasCard } from './gpu/has-card';

/** Where the program and the model are that find people: the shell's own files, kept by themselves (bin/people.mjs). */
const place = (name: string) => new URL(`/people/${name}`, self.location.origin).href;
/** people who are found in one picture, at the most */
const mostPeople = 4;

/** Who is in a picture: how likely each pixel shows somebody, 0..1, and where each one's body is. */
export type People = { matte: GrayImage; poses: Pose[] };

/** What finds people in a picture, which it uses up; null where nobody is found. */
export type FindPeople = (picture: RgbaImage) => Promise<People | null>;

/** What finds a face's points in a square round it, which it uses up. @see cutFace */
export type FindFace = (square: RgbaImage) => Promise<FaceTold>;

/** What finds people and their faces. */
export type Faces = { find: FindPeople; face: FindFace };

/** Work on people that goes on beside who asks for it. */
export type Beside = {
  find: FindPeople;
  /** cuts them out by how likely each pixel is one of theirs; uses the images up. @see cutOutLikely */
  cut: (luma: GrayImage, matte: GrayImage, differs: Uint8Array | null) => Promise<Cutout>;
};

const program = () =>
  import(/* webpackIgnore: true */ /* turbopackIgnore: true */ place('vision_bundle.mjs')) as Promise<
    typeof import('@mediapipe/tasks-vision')
  >;
const parts = {
  wasmLoaderPath: place('vision_wasm_internal.js'),
  wasmBinaryPath: place('vision_wasm_internal.wasm'),
};

async function openBy(delegate: 'CPU' | 'GPU'): Promise<PoseLandmarker> {
  const { PoseLandmarker } = await program();
  return PoseLandmarker.createFromOptions(parts, {
    baseOptions: { modelAssetPath: place('pose.task'), delegate },
    runningMode: 'IMAGE',
    numPoses: mostPeople,
    outputSegmentationMasks: true,
  });
}

/** On the processor: a square is small, and to hand it to a card takes longer. */
async function openFace(): Promise<ImageEmbedder> {
  const { ImageEmbedder } = await program();
  return ImageEmbedder.createFromOptions(parts, {
    baseOptions: { modelAssetPath: place('face.tflite'), delegate: 'CPU' },
    runningMode: 'IMAGE',
  });
}

function lookAt(landmarker: PoseLandmarker, picture: RgbaImage): People | null {
  const { width, height, data } = inFours(picture);
  const { landmarks, segmentationMasks = [] } = landmarker.detect(
    new ImageData(new Uint8ClampedArray(data), width, height),
  );
  const likely = new Float32Array(width * height);
  for (const mask of segmentationMasks) {
    mask.getAsFloat32Array().forEach((value, pixel) => (likely[pixel] = Math.max(likely[pixel], value)));
    mask.close();
  }
  if (segmentationMasks.length === 0) return null;
  const poses = landmarks.map((one) => one.map(({ x, y, visibility }) => ({ x, y, seen: visibility })));
  return asWide({ matte: { width, height, data: likely }, poses }, picture.width);
}

/** a matte of the card may differ from the processor's by so much a pixel, in the mean */
const mostOff = 0.02;

/** The same people, and as good as the same mattes. */
function isSame(one: People | null, other: People | null): boolean {
  if (!one || !other) return one === other;
  const [a, b] = [one.matte.data, other.matte.data];
  let off = 0;
  for (let pixel = 0; pixel < a.length; pixel++) off += Math.abs(a[pixel] - b[pixel]);
  return one.poses.length === other.poses.length && off / a.length <= mostOff;
}

/** How long a picture takes; a first look opens what has to be opened, and is not counted. */
function timed(landmarker: PoseLandmarker, picture: RgbaImage): { found: People | null; took: number } {
  lookAt(landmarker, picture);
  const begun = performance.now();
  const found = lookAt(landmarker, picture);
  return { found, took: performance.now() - begun };
}

/**
 * What finds people on this device: the processor, or the graphics card where it finds the same people in a picture in
 * less time.
 */
async function openFastest(picture: RgbaImage): Promise<PoseLandmarker> {
  const processor = await openBy('CPU');
  const card = hasCard() ? await openBy('GPU').catch(() => null) : null;
  if (!card) return processor;
  let isBetter = false;
  try {
    const [one, other] = [timed(processor, picture), timed(card, picture)];
    // A picture with nobody in it tells nothing of mattes.
    isBetter = one.found !== null && isSame(one.found, other.found) && other.took < one.took;
  } catch {
    // A card that fails at its first picture is not asked for another.
  }
  (isBetter ? processor : card).close();
  return isBetter ? card : processor;
}

let loading: Promise<PoseLandmarker> | null = null;

/**
 * Finds people; null where nobody is found. The model is loaded when it is first asked.
 * @throws CoreError `people.absent` where it cannot be fetched
 */
export async function findPeople(picture: RgbaImage): Promise<People | null> {
  loading ??= openFastest(picture);
  const landmarker = await loading.catch(() => {
    loading = null;
    return refuse(
      'people.absent',
      'What finds people (21 MB) could not be fetched. Open the bench once with a network, then do it again; a clean plate or a drawn outline needs no network.',
    );
  });
  return lookAt(landmarker, picture);
}

let loadingFace: Promise<ImageEmbedder> | null = null;

/**
 * Finds a face's points. The model is loaded when it is first asked.
 * @throws CoreError `people.absent` where it cannot be fetched
 */
export const findFace: FindFace = async ({ width, height, data }) => {
  loadingFace ??= openFace();
  const embedder = await loadingFace.catch(() => {
    loadingFace = null;
    return refuse(
      'people.absent',
      'What tells how far a mouth is open (14 MB) could not be fetched. Open the bench once with a network, then do it again.',
    );
  });
  const { embeddings } = embedder.embed(new ImageData(new Uint8ClampedArray(data), width, height));
  const told = (name: string) => embeddings.find(({ headName }) => headName === name)?.floatEmbedding ?? [];
  return { points: told('face'), lips: told('lips'), likely: told('is a face')[0] };
};
