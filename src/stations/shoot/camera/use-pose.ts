'use client';
import { useEffect, useState, type RefObject } from 'react';
import { comparePoses, nearestPose, type PoseMatch } from '@/core/people/compare-poses';
import { statureIn, type Pose } from '@/core/people/pose';
import type { OpenCamera } from '@/media/camera';
import { openPeople, transferred } from '@/workers/clients';
import { pictureOf } from './use-watch';

/** Milliseconds between the begins of two looks; a slow device takes as long as it takes. */
const apart = 300;

/** What is known of an earlier pose and of who stands before the camera now. */
export type PoseWatch =
  | { state: 'begins' }
  | { state: 'nobody earlier' }
  | { state: 'another shape' }
  | { state: 'trouble'; message: string }
  /** `match` is null where nobody is found now, and missing while nobody looked */
  | { state: 'seen'; earlier: Pose; ratio: number; match?: PoseMatch | null };

const ratioOf = ({ width, height }: ImageBitmap) => width / height;

/** Whoever is largest in a picture: that one was filmed. */
const largest = (poses: Pose[], ratio: number): Pose | null => {
  const tall = (pose: Pose) => statureIn(pose, ratio) ?? 0;
  return poses.length === 0 ? null : poses.reduce((best, one) => (tall(one) > tall(best) ? one : best));
};

/**
 * Finds who stands before the camera, again and again, and tells them from the pose in an earlier picture.
 * @param picture with the earlier pose; null while there is none
 * @param stature metres that the person is tall
 */
export function usePose(
  video: RefObject<HTMLVideoElement | null>,
  camera: OpenCamera | null,
  on: boolean,
  picture: Blob | null,
  stature: number,
): PoseWatch | null {
  const [watch, setWatch] = useState<PoseWatch | null>(null);
  useEffect(() => {
    if (!on || !camera || !picture) return;
    let here = true;
    const people = openPeople();
    const tell = (now: PoseWatch) => here && setWatch(now);
    const run = async () => {
      tell({ state: 'begins' });
      const still = await createImageBitmap(picture);
      const ratio = ratioOf(still);
      const earlier = largest(await people.api.posesIn(transferred(still)), ratio);
      if (!earlier) return tell({ state: 'nobody earlier' });
      tell({ state: 'seen', earlier, ratio });
      while (here) {
        const start = performance.now();
        const taken = await pictureOf(video.current, camera);
        if (taken && Math.abs(ratioOf(taken.bitmap) / ratio - 1) > 0.02) {
          taken.bitmap.close();
          tell({ state: 'another shape' });
        } else if (taken) {
          const now = nearestPose(earlier, await people.api.posesIn(transferred(taken.bitmap)));
          tell({ state: 'seen', earlier, ratio, match: now && comparePoses(earlier, now, ratio, stature) });
        }
        await new Promise((resolve) =>
          setTimeout(resolve, Math.max(10, apart - (performance.now() - start))),
        );
      }
    };
    run().catch((error: { message?: string }) =>
      tell({ state: 'trouble', message: error.message ?? 'The pose cannot be looked for here.' }),
    );
    return () => {
      here = false;
      people.end();
      setWatch(null);
    };
  }, [video, camera, on, picture, stature]);
  return on ? watch : null;
}
