'use client';
import { createContext, useContext, useEffect, useRef, type RefObject } from 'react';
import type { Point } from '@/core/geometry/size';
import type { Frame } from './stage';

/** The canvas on which the stage shows its picture. */
export const StageCanvas = createContext<RefObject<HTMLCanvasElement | null> | null>(null);

const across = 120;
/** how much larger than on the stage */
const closer = 2.5;

/** What lies under a finger, enlarged in the corner that is furthest from it. @param at in shares of the picture */
export function Loupe({ frame, at: [x, y] }: { frame: Frame; at: Point }) {
  const source = useContext(StageCanvas);
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const [from, to] = [source?.current, canvas.current?.getContext('2d')];
    if (!from || !to) return;
    const [wide, tall] = [
      ((across / closer) * from.width) / frame.width,
      ((across / closer) * from.height) / frame.height,
    ];
    to.fillStyle = '#6b6b6b';
    to.fillRect(0, 0, across, across);
    to.drawImage(
      from,
      x * from.width - wide / 2,
      y * from.height - tall / 2,
      wide,
      tall,
      0,
      0,
      across,
      across,
    );
  }, [source, frame, x, y]);
  return (
    <div
      aria-hidden
      data-loupe=""
      className="pointer-events-none absolute overflow-hidden rounded-full border-2 border-[#f2b252]"
      style={{
        width: across,
        height: across,
        left: frame.left + (x > 0.5 ? 0 : frame.width - across),
        top: frame.top + (y > 0.5 ? 0 : frame.height - across),
      }}
    >
      <canvas ref={canvas} width={across} height={across} />
      <span className="absolute inset-x-0 top-1/2 h-px bg-[#f2b252]" />
      <span className="absolute inset-y-0 left-1/2 w-px bg-[#f2b252]" />
    </div>
  );
}
