'use client';
import { useDrag } from '@use-gesture/react';
import { useRef, useState, type KeyboardEvent } from 'react';
import type { Point } from '@/core/geometry/size';
import { wayOfKey } from '@/ui/arrow-keys';
import { gripOf, isFinger, type DragState } from '@/ui/drag-state';
import { Loupe } from '@/ui/stage/loupe';
import { held } from '@/ui/stage/seam-line';
import type { Frame } from '@/ui/stage/stage';

const clamp = (value: number) => Math.min(1, Math.max(0, value));

/**
 * Takes a line that is drawn on the picture by pointer or finger, or a dot that is tapped. By keys: arrows move a mark, Enter sets a point
 * there, Backspace takes the last one back; a brush paints at once, a line is closed by a second Enter on one spot.
 * @param brush its width in shares of the frame; null draws round something
 */
export function DrawPad({
  frame,
  label,
  brush,
  onDraw,
}: {
  frame: Frame;
  label: string;
  brush: number | null;
  onDraw: (path: Point[]) => void;
}) {
  const [path, setPath] = useState<Point[]>([]);
  const [mark, setMark] = useState<Point | null>(null);
  const [finger, setFinger] = useState(false);
  const pad = useRef<HTMLButtonElement>(null);
  const share = ([x, y]: readonly [number, number]): Point => {
    const box = pad.current?.getBoundingClientRect();
    return box ? [clamp((x - box.left) / box.width), clamp((y - box.top) / box.height)] : [0, 0];
  };
  const drag = useDrag(
    ({ initial, xy, first, last, tap, event, memo }: DragState<Point[]> & { first: boolean }) => {
      const drawn = tap ? [share(xy)] : [...(first || !memo ? [share(initial)] : memo), share(xy)];
      const grip = tap ? 'done' : gripOf({ last, event });
      setFinger(grip === 'held' && isFinger(event));
      setMark(null);
      setPath(grip === 'held' ? drawn : []);
      if (grip === 'done') onDraw(drawn);
      return drawn;
    },
    { threshold: 2, filterTaps: true, pointer: { keys: false } },
  );
  const enter = (at: Point) => {
    if (brush !== null) return onDraw([at]);
    const closes = path.length > 2 && path.at(-1)?.every((value, axis) => value === at[axis]);
    if (closes) {
      setPath([]);
      onDraw(path);
    } else setPath([...path, at]);
  };
  const key = (event: KeyboardEvent) => {
    const way = wayOfKey(event.key);
    const sets = event.key === 'Enter' || event.key === ' ';
    const back = event.key === 'Backspace';
    if (!mark || (!way && !sets && !back)) return;
    event.preventDefault();
    event.stopPropagation();
    const by = event.shiftKey ? 0.05 : 0.01;
    if (way) setMark([clamp(mark[0] + way[0] * by), clamp(mark[1] + way[1] * by)]);
    else if (sets) enter(mark);
    else setPath(path.slice(0, -1));
  };
  const drawn = path.map(([x, y]) => `${(x * frame.width).toFixed(1)} ${(y * frame.height).toFixed(1)}`);
  const at = path.at(-1);
  return (
    <>
      <button
        ref={pad}
        type="button"
        aria-label={`${label}. Arrow keys move a mark, Enter sets a point there${brush === null ? ', a second Enter closes the line' : ''}`}
        data-draw=""
        className={`${held} absolute cursor-crosshair touch-none`}
        style={frame}
        {...drag()}
        onKeyDown={key}
        onFocus={(event) => setMark(event.currentTarget.matches(':focus-visible') ? [0.5, 0.5] : null)}
        onBlur={() => setMark(null)}
      >
        <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
          {drawn.length > 0 && (
            <path
              d={`M${drawn.join('L')}`}
              fill="none"
              stroke="#f2b252"
              strokeOpacity={brush === null ? 1 : 0.6}
              strokeWidth={brush === null ? 2.5 : brush * frame.width}
              strokeLinecap="round"
              strokeLinejoin="round"
            />
          )}
          {mark && (
            <circle
              cx={mark[0] * frame.width}
              cy={mark[1] * frame.height}
              r={brush === null ? 7 : (brush * frame.width) / 2}
              fill="none"
              stroke="#f2b252"
              strokeWidth="2.5"
            />
          )}
        </svg>
      </button>
      {finger && at && <Loupe frame={frame} at={at} />}
    </>
  );
}
