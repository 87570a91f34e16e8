'use client';
import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import type { Finding } from '@/core/finding/finding';
import type { RgbaImage, Size } from '@/core/picture/image';
import type { WatchFrame } from '@/core/watch/alarms';
import { useSteady } from '@/ui/use-steady';
import { openWatch, transferred, type Client } from '@/workers/clients';
import type { Check, WatchApi } from '@/workers/watch.worker';

/** Milliseconds between the begins of two checks; a slow device takes as long as it takes. */
const apart = 250;

/** A picture of a video as it shows now; null while it has none. */
export async function pictureOf(video: HTMLVideoElement | null): Promise<ImageBitmap | null> {
  if (!video || video.readyState < 2 || video.videoWidth === 0) return null;
  return createImageBitmap(video).catch(() => null);
}

/**
 * Checks a video several times a second in a worker.
 * @param onFresh hears of findings that are new
 */
export function useWatch(
  video: RefObject<HTMLVideoElement | null>,
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
    const begun = performance.now();
    const run = async () => {
      await watch.api.useReference(pictures ?? [], steady, { width, height });
      while (here) {
        const start = performance.now();
        const bitmap = pictures && (await pictureOf(video.current));
        if (bitmap && here) {
          // The bitmap goes over to the worker, which uses it up.
          const found = await watch.api.check(transferred(bitmap), (start - begun) / 1000);
          if (!here) return;
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
  }, [on, pictures, steady, width, height, video]);

  /** Pictures of the set as the camera shows it now, a quarter of a second apart. */
  const grab = useCallback(
    async (count: number): Promise<RgbaImage[]> => {
      const out: RgbaImage[] = [];
      for (let index = 0; index < count; index++) {
        const bitmap = await pictureOf(video.current);
        const { current } = client;
        if (bitmap && current) out.push(await current.api.grab(transferred(bitmap)));
        await new Promise((resolve) => setTimeout(resolve, 250));
      }
      return out;
    },
    [video],
  );
  return { check: on && pictures ? check : null, problem, grab, client };
}
