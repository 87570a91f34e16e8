'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { CoreError } from '@/core/error';
import type { HeldSettings } from '@/core/shoot/held';
import { openDeviceCamera, type Held, type OpenCamera } from '@/media/camera';
import { asCoreError } from '@/workers/plain-errors';
import { openPracticeCamera, type PracticeControls } from '@/workers/practice-camera';

type CameraState = {
  camera: OpenCamera | null;
  /** the switches of the practice camera; null for a real one */
  practice: PracticeControls | null;
  held: Held | null;
  problem: CoreError | null;
  opening: boolean;
};

const off: CameraState = { camera: null, practice: null, held: null, problem: null, opening: false };
const gone: CoreError = {
  code: 'camera.gone',
  message: 'The camera was taken away. What was recorded until then is kept. Connect it and open it again.',
};

/**
 * One camera, real or practice. Closing the screen turns it off.
 * @param heldBefore what the camera of a name was held at when the plate was filmed, so that it is again
 */
export function useCamera(
  wish: { width: number; height: number; rate: number },
  heldBefore: (camera: string) => Promise<HeldSettings | undefined>,
) {
  const [state, setState] = useState<CameraState>(off);
  const open = useRef<OpenCamera | null>(null);
  const close = useCallback(() => {
    open.current?.close();
    open.current = null;
    setState(off);
  }, []);
  useEffect(() => () => open.current?.close(), []);

  const take = useCallback(
    async (make: () => Promise<{ camera: OpenCamera; practice: PracticeControls | null }>) => {
      open.current?.close();
      open.current = null;
      setState({ ...off, opening: true });
      try {
        const { camera, practice } = await make();
        open.current = camera;
        camera.stream.getVideoTracks()[0]?.addEventListener('ended', () => {
          if (open.current !== camera) return;
          open.current = null;
          camera.close();
          setState({ ...off, problem: gone });
        });
        const held = await camera.hold(await heldBefore(camera.name));
        setState({ camera, practice, held, problem: null, opening: false });
      } catch (error) {
        setState({ ...off, problem: asCoreError(error) });
      }
    },
    [heldBefore],
  );
  const { width, height, rate } = wish;
  return {
    ...state,
    close,
    openDevice: useCallback(
      () => take(async () => ({ camera: await openDeviceCamera({ width, height, rate }), practice: null })),
      [take, width, height, rate],
    ),
    openPractice: useCallback(
      () =>
        take(async () => {
          const practice = await openPracticeCamera();
          return { camera: practice, practice };
        }),
      [take],
    ),
    /** asks the camera once more what it holds */
    holdAgain: useCallback(async () => {
      const camera = open.current;
      if (!camera) return;
      const held = await camera.hold(await heldBefore(camera.name));
      setState((now) => (now.camera === camera ? { ...now, held } : now));
    }, [heldBefore]),
  };
}
