import type { PoseLandmarker } from '@mediapipe/tasks-vision';
import { refuse } from '@/core/error';
import type { Pose } from '@/core/people/pose';
import type { GrayImage, RgbaImage } from '@/core/picture/image';

/** Where the program and the model are that find people: the shell's own files, kept by themselves (bin/people.mjs). */
const place = (name: string) => new URL(`/people/${name}`, self.location.origin).href;
/** people who are found in one picture, at the most */
const mostPeople = 4;

async function load(): Promise<PoseLandmarker> {
  const { PoseLandmarker } = (await import(
    /* webpackIgnore: true */ /* turbopackIgnore: true */ place('vision_bundle.mjs')
  )) as typeof import('@mediapipe/tasks-vision');
  return PoseLandmarker.createFromOptions(
    {
      wasmLoaderPath: place('vision_wasm_internal.js'),
      wasmBinaryPath: place('vision_wasm_internal.wasm'),
    },
    {
      baseOptions: { modelAssetPath: place('pose.task'), delegate: 'CPU' },
      runningMode: 'IMAGE',
      numPoses: mostPeople,
      outputSegmentationMasks: true,
    },
  );
}

let loading: Promise<PoseLandmarker> | null = null;

/** Who is in a picture: how likely each pixel shows somebody, 0..1, and where each one's body is. */
export type People = { matte: GrayImage; poses: Pose[] };

/**
 * Finds people; null where nobody is found. The model is loaded when it is first asked.
 * @throws CoreError `people.absent` where it cannot be fetched
 */
export async function findPeople(picture: RgbaImage): Promise<People | null> {
  const { width, height } = picture;
  loading ??= load();
  const landmarker = await loading.catch(() => {
    loading = null;
    return refuse(
      'people.absent',
      'What finds people (21 MB) could not be fetched. Open the bench once with a network, then do it again; a clean plate or a drawn outline needs no network.',
    );
  });
  const { landmarks, segmentationMasks = [] } = landmarker.detect(
    new ImageData(new Uint8ClampedArray(picture.data), width, height),
  );
  const data = new Float32Array(width * height);
  for (const mask of segmentationMasks) {
    mask.getAsFloat32Array().forEach((value, pixel) => (data[pixel] = Math.max(data[pixel], value)));
    mask.close();
  }
  if (segmentationMasks.length === 0) return null;
  const poses = landmarks.map((one) => one.map(({ x, y, visibility }) => ({ x, y, seen: visibility })));
  return { matte: { width, height, data }, poses };
}
