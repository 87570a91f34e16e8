'use client';
import { useDrag } from '@use-gesture/react';
import { useRef, useState, type KeyboardEvent } from 'react';
import { stepOfKey } from '../arrow-keys';
import { useData, useServices } from '../bench-context';
import { gripOf, type DragState } from '../drag-state';
import { held } from './seam-line';
import type { Frame } from './stage';
import { usePainter, type Showing } from './use-painter';

/** A picture to look at beside the one on the stage: to the right of a line that is dragged, or faintly over it. */
export type Second = { showing: Showing; how: 'wiped' | 'faint'; title: string };

/** The second picture, in the place of the first. */
export function SecondPicture({ frame, second: { showing, how, title } }: { frame: Frame; second: Second }) {
  const { store } = useServices();
  const project = useData((data) => data.snapshot.project);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { shown } = usePainter(canvas, store, project, showing);
  const [share, setShare] = useState(0.5);
  const wiped = how === 'wiped';
  return (
    <>
      <canvas
        ref={canvas}
        role="img"
        aria-label={`${title}, ${wiped ? 'to the right of the line' : 'faintly over the picture'}`}
        data-second={shown?.count ?? 0}
        className="pointer-events-none absolute"
        style={{ ...frame, ...(wiped ? { clipPath: `inset(0 0 0 ${share * 100}%)` } : { opacity: 0.5 }) }}
      />
      {wiped && (
        <WipeLine
          frame={frame}
          share={share}
          wide={() => canvas.current?.getBoundingClientRect().width ?? frame.width}
          onMove={setShare}
        />
      )}
    </>
  );
}

/** Where one picture ends and the other begins: dragged, or moved by arrow keys. */
function WipeLine({
  frame,
  share,
  wide,
  onMove,
}: {
  frame: Frame;
  share: number;
  /** how wide the picture is on the screen, however closely it is looked at */
  wide: () => number;
  onMove: (share: number) => void;
}) {
  const within = (value: number) => Math.min(1, Math.max(0, value));
  const drag = useDrag(
    ({ initial, xy, last, event, memo }: DragState<number>) => {
      const from = memo ?? share;
      if (gripOf({ last, event }) === 'off') onMove(from);
      else onMove(within(from + (xy[0] - initial[0]) / wide()));
      return from;
    },
    { threshold: 2, pointer: { keys: false } },
  );
  const key = (event: KeyboardEvent) => {
    const by = stepOfKey(event.key);
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onMove(within(share + by * (event.shiftKey ? 0.1 : 0.01)));
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Where the second picture begins; arrow keys move the line"
      aria-valuenow={Math.round(share * 100)}
      aria-valuetext={`${Math.round(share * 100)} % across`}
      data-wipe=""
      className={`${held} absolute w-11 -translate-x-1/2 cursor-ew-resize touch-none`}
      style={{ left: frame.left + share * frame.width, top: frame.top, height: frame.height }}
      {...drag()}
      onKeyDown={key}
    >
      <span className="absolute inset-y-0 left-1/2 w-0.5 -translate-x-1/2 bg-[#f2b252]" />
      <span className="absolute top-1/2 left-1/2 size-4 -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-[#f2b252] bg-[#15182b]" />
    </div>
  );
}
