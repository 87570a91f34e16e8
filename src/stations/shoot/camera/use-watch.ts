'use client';
import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import type { Finding } from '@/core/finding/finding';
import type { RgbaImage } from '@/core/picture/image';
import type { Size } from '@/core/geometry/size';
import type { WatchFrame } from '@/core/watch/alarms';
import { useSteady } from '@/ui/use-steady';
import type { OpenCamera, TakenPicture } from '@/media/camera';
import { openWatch, transferred, type Client } from '@/workers/clients';
import type { Check, WatchApi } from '@/workers/watch.worker';

/** Milliseconds between the begins of two checks; a slow device takes as long as it takes. */
const apart = 250;

/**
 * The picture that a camera shows now; null while it has none. One that does not know when it took it is believed to
 * have taken it just now.
 */
export async function pictureOf(
  video: HTMLVideoElement | null,
  camera: Pick<OpenCamera, 'picture'> | null,
): Promise<TakenPicture | null> {
  if (camera?.picture) return camera.picture().catch(() => null);
  if (!video || video.readyState < 2 || video.videoWidth === 0) return null;
  const time = performance.now() / 1000;
  return createImageBitmap(video).then(
    (bitmap) => ({ bitmap, time }),
    () => null,
  );
}

/**
 * Checks a video several times a second in a worker.
 * @param onFresh hears of findings that are new
 */
export function useWatch(
  video: RefObject<HTMLVideoElement | null>,
  camera: OpenCamera | null,
  on: boolean,
  pictures: RgbaImage[] | null,
  frame: WatchFrame,
  delivery: Size,
  onFresh: (findings: Finding[]) => void,
) {
  const client = useRef<Client<WatchApi> | null>(null);
  const [check, setCheck] = useState<Check | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const heard = useRef(onFresh);
  // Pictures that were taken before it are looked at no more.
  const since = useRef(-Infinity);
  useEffect(() => {
    heard.current = onFresh;
  });
  const steady = useSteady(frame);
  const { width, height } = delivery;

  useEffect(() => {
    if (!on) return;
    let here = true;
    const watch = openWatch();
    client.current = watch;
    const begun = performance.now() / 1000;
    const run = async () => {
      await watch.api.useReference(pictures ?? [], steady, { width, height });
      while (here) {
        const start = performance.now();
        const taken = pictures && (await pictureOf(video.current, camera));
        if (taken && taken.time < since.current) taken.bitmap.close();
        else if (taken && here) {
          // The bitmap goes over to the worker, which uses it up.
          const found = await watch.api.check(transferred(taken.bitmap), taken.time - begun);
          if (!here) return;
          if (taken.time < since.current) continue;
          setCheck(found);
          setProblem(null);
          if (found && found.fresh.length > 0) heard.current(found.fresh);
        }
        await new Promise((resolve) =>
          setTimeout(resolve, Math.max(10, apart - (performance.now() - start))),
        );
      }
    };
    run().catch((error: { message?: string }) => {
      if (!here) return;
      setCheck(null);
      setProblem(error.message ?? 'The watch stopped. Open the camera again.');
    });
    return () => {
      here = false;
      watch.end();
      client.current = null;
      setCheck(null);
      setProblem(null);
    };
  }, [on, camera, pictures, steady, width, height, video]);

  /** Pictures of the set as the camera shows it now, a quarter of a second apart. */
  const grab = useCallback(
    async (count: number): Promise<RgbaImage[]> => {
      const out: RgbaImage[] = [];
      for (let index = 0; index < count; index++) {
        const taken = await pictureOf(video.current, camera);
        const { current } = client;
        if (taken && current) out.push(await current.api.grab(transferred(taken.bitmap)));
        await new Promise((resolve) => setTimeout(resolve, 250));
      }
      return out;
    },
    [video, camera],
  );
  /** Forgets what was seen until now: another take begins. */
  const beginAgain = useCallback(async () => {
    since.current = performance.now() / 1000;
    setCheck(null);
    await client.current?.api.beginAgain();
  }, []);
  return { check: on && pictures ? check : null, problem, grab, beginAgain };
}
