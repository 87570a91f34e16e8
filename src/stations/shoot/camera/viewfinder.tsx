'use client';
import { useState, type ReactNode, type RefObject } from 'react';
import { useSize } from '@/ui/use-size';
import type { useCamera } from './use-camera';

/** The camera's picture with what is laid over it; without one, the ways to open a camera. */
export function Viewfinder({
  video,
  cam,
  takesRoom,
  bright,
  overlay,
  guides,
}: {
  video: RefObject<HTMLVideoElement | null>;
  cam: ReturnType<typeof useCamera>;
  /** it takes the height that there is; else its own, and the page scrolls */
  takesRoom: boolean;
  /** differences are lifted out of the dark */
  bright: boolean;
  overlay: ReactNode;
  /** drawn for a picture of this width to height */
  guides: (ratio: number) => ReactNode;
}) {
  const [ratio, setRatio] = useState(16 / 9);
  const [stage, area] = useSize<HTMLDivElement>();
  return (
    <div
      ref={stage}
      className={`relative flex items-center justify-center overflow-hidden bg-stage ${takesRoom ? 'min-h-0 flex-1' : 'flex-none'}`}
    >
      <div
        className="relative w-full max-w-full"
        style={{
          aspectRatio: String(ratio),
          // Where height is short the picture keeps its shape, so that what is laid over it fits.
          ...(takesRoom && area.height > 0 ? { width: Math.min(area.width, area.height * ratio) } : {}),
        }}
      >
        <div className="absolute inset-0" style={bright ? { filter: 'brightness(4)' } : undefined}>
          <video
            ref={video}
            muted
            playsInline
            className="absolute inset-0 h-full w-full"
            aria-label="Viewfinder"
            onLoadedMetadata={({ currentTarget: { videoWidth, videoHeight } }) =>
              videoHeight > 0 && setRatio(videoWidth / videoHeight)
            }
          />
          {overlay}
        </div>
        {guides(ratio)}
        {!cam.camera && (
          <div className="absolute inset-0 flex flex-col items-center justify-center gap-2.5 p-4 text-center">
            {cam.problem && (
              <p
                className="max-w-[44ch] bg-raised px-3 py-2 text-[14px]"
                role="alert"
                data-problem={cam.problem.code}
              >
                {cam.problem.message}
              </p>
            )}
            <div className="flex flex-wrap justify-center gap-2">
              <button
                type="button"
                className="knob main"
                disabled={cam.opening}
                onClick={() => void cam.openDevice()}
              >
                {cam.opening ? 'Opening …' : 'Open the camera'}
              </button>
              <button type="button" className="knob bg-raised" onClick={() => void cam.openPractice()}>
                Practice camera
              </button>
            </div>
          </div>
        )}
      </div>
    </div>
  );
}
