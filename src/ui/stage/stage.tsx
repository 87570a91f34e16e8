'use client';
import { useRef, type ReactNode } from 'react';
import { useData, useServices } from '../bench-context';
import { Closer } from './closer';
import { StageCanvas } from './loupe';
import { held } from './seam-line';
import { SecondPicture, type Second } from './second-picture';
import { usePainter, type Showing } from './use-painter';

/** Where the picture lies on the stage, in CSS pixels. */
export type Frame = { left: number; top: number; width: number; height: number };

/** The largest picture of a shape that fits a space with some air around it. */
export function placeFrame(
  space: { width: number; height: number },
  shape: { width: number; height: number },
  air = 14,
): Frame {
  const factor = Math.max(
    0,
    Math.min((space.width - 2 * air) / shape.width, (space.height - 2 * air) / shape.height),
  );
  const [width, height] = [shape.width * factor, shape.height * factor];
  return { left: (space.width - width) / 2, top: (space.height - height) / 2, width, height };
}

/** The picture on neutral grey, with whatever is drawn over it. */
export function Stage({
  frame,
  showing,
  second = null,
  label,
  children,
}: {
  frame: Frame;
  showing: Showing;
  second?: Second | null;
  label: string;
  children?: ReactNode;
}) {
  const { store } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { shown, problem } = usePainter(canvas, store, snapshot.project, showing);
  return (
    <>
      <StageCanvas value={canvas}>
        <Closer held={held}>
          <canvas
            ref={canvas}
            role="img"
            aria-label={label}
            data-frame={shown?.frame ?? ''}
            data-drawn={shown?.count ?? 0}
            className={`absolute ${shown ? 'bg-black' : 'border border-line'}`}
            style={{ left: frame.left, top: frame.top, width: frame.width, height: frame.height }}
          />
          {second && <SecondPicture frame={frame} second={second} />}
          {children}
        </Closer>
      </StageCanvas>
      {problem && (
        <p role="alert" className="absolute inset-x-4 top-4 border-l-4 border-madder bg-raised px-3 py-2">
          {problem.message}
        </p>
      )}
    </>
  );
}
