import { expose, transfer } from 'comlink';
import type { Finding } from '@/core/finding/finding';
import type { RgbaImage } from '@/core/picture/image';
import type { Size } from '@/core/geometry/size';
import { LiveWatch, type WatchFrame } from '@/core/watch/alarms';
import { MovingPass, type PassPoint } from '@/core/watch/moving-pass';
import { readPicture, type Reading } from '@/core/watch/reading';
import { watchReference, type WatchReference } from '@/core/watch/reference';
import { bitmapPixels } from '@/media/bitmap-pixels';
import { plainErrors } from './plain-errors';

/** What a check tells the page. */
export type Check = { reading: Reading; fresh: Finding[]; current: Finding[]; milliseconds: number };

let reference: WatchReference | null = null;
let watch: LiveWatch | null = null;
let told: { frame: WatchFrame; delivery: Size } | null = null;
let pass: MovingPass | null = null;

/** Watches against these pictures of the empty set from now on; without any, nothing is watched. */
function useReference(pictures: RgbaImage[], frame: WatchFrame, delivery: Size): void {
  reference = pictures.length > 0 ? watchReference(pictures) : null;
  told = { frame, delivery };
  beginAgain();
}

/** Forgets what was seen until now: what is wrong from here on is told anew. */
function beginAgain(): void {
  watch = reference && told && new LiveWatch(told.frame, told.delivery);
}

function check(bitmap: ImageBitmap, time: number): Check | null {
  if (!reference || !watch) {
    bitmap.close();
    return null;
  }
  const begun = performance.now();
  const reading = readPicture(reference, bitmapPixels(bitmap), watch.delivery);
  const fresh = watch.push(reading, time);
  return { reading, fresh, current: watch.current(), milliseconds: performance.now() - begun };
}

/** A picture of the camera as plain data, to keep as a reference. */
function grab(bitmap: ImageBitmap): RgbaImage {
  const { width, height, data } = bitmapPixels(bitmap);
  return transfer({ width, height, data }, [data.buffer as ArrayBuffer]);
}

function beginPass(delivery: Size, anew: boolean): boolean {
  if (anew || !pass) pass = new MovingPass(delivery);
  pass.begin();
  return pass.hasFirst();
}

const pushPass = (bitmap: ImageBitmap, time: number): PassPoint | null =>
  pass ? pass.push(bitmapPixels(bitmap), time) : null;

const finishPass = () => pass?.finish() ?? null;

const api = plainErrors({ useReference, beginAgain, check, grab, beginPass, pushPass, finishPass });
export type WatchApi = typeof api;
expose(api);
