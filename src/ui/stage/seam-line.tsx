'use client';
import { useDrag } from '@use-gesture/react';
import { useRef, useState, type KeyboardEvent } from 'react';
import type { Point } from '@/core/geometry/size';
import { useAhead } from '../ahead';
import { gripOf, isFinger } from '../drag-state';
import { useGesture } from '../gesture';
import { Loupe } from './loupe';
import type { Frame } from './stage';
import { wayOfKey } from '@/ui/arrow-keys';

const onEdge = ([x, y]: Point) => x <= 0.001 || y <= 0.001 || x >= 0.999 || y >= 0.999;

/** The part of an outline that lies inside the frame, as pieces of line. Points in shares of the frame. */
function innerPieces(outline: readonly Point[]): Point[][] {
  const pieces: Point[][] = [];
  outline.forEach((point, index) => {
    const next = outline[(index + 1) % outline.length];
    const along =
      onEdge(point) &&
      onEdge(next) &&
      (Math.abs(point[0] - next[0]) < 0.001 || Math.abs(point[1] - next[1]) < 0.001);
    const sameEdge = along && (onEdge([(point[0] + next[0]) / 2, (point[1] + next[1]) / 2]) as boolean);
    if (sameEdge) return;
    const last = pieces.at(-1);
    if (last && last[last.length - 1] === point) last.push(next);
    else pieces.push([point, next]);
  });
  return pieces;
}

/** The class of points: a drag on one moves it and not the picture. */
export const held = 'held-point';

/**
 * An outline, drawn as basting thread: its largest piece, then islands and holes. With `onChange` the points of the
 * first can be dragged or moved with the arrow keys, added and removed; ends slide along the frame's edge.
 */
export function SeamLine({
  frame,
  rings,
  title = 'the join',
  onChange,
}: {
  frame: Frame;
  rings: Point[][];
  /** what it is the outline of */
  title?: string;
  onChange?: (outline: Point[]) => void | Promise<void>;
}) {
  const [outline, ...others] = rings;
  const ahead = useAhead<Point[]>();
  const asOne = useGesture();
  const change = (next: Point[]) => ahead.send('outline', next, onChange?.(next));
  const [dragged, setDragged] = useState<Point[] | null>(null);
  const [under, setUnder] = useState<Point | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const now = dragged ?? outline;
  const at = ([x, y]: Point): string => `${(x * frame.width).toFixed(1)} ${(y * frame.height).toFixed(1)}`;
  const path = [now, ...others]
    .flatMap(innerPieces)
    .map((piece) => `M${piece.map(at).join('L')}`)
    .join('');

  /** A point moved to somewhere; what lay on an edge of the frame stays on it. */
  const moved = (outline: Point[], index: number, x: number, y: number): Point[] => {
    const clamp = (value: number) => Math.min(1, Math.max(0, value));
    const [ox, oy] = outline[index];
    const keepX = ox <= 0.001 || ox >= 0.999;
    const keepY = oy <= 0.001 || oy >= 0.999;
    return outline.map((point, other): Point =>
      other === index ? [keepX ? ox : clamp(x), keepY ? oy : clamp(y)] : point,
    );
  };
  const corner = ([x, y]: Point) => (x <= 0.001 || x >= 0.999) && (y <= 0.001 || y >= 0.999);
  const share = ([clientX, clientY]: readonly [number, number]): Point => {
    const box = svg.current?.getBoundingClientRect();
    return box ? [(clientX - box.left) / box.width, (clientY - box.top) / box.height] : [0, 0];
  };
  /** A new point half-way from one to the next. */
  const addAfter = (index: number) => {
    const newest = ahead.newest('outline', outline);
    const [one, next] = [newest[index], newest[(index + 1) % newest.length]];
    change(newest.toSpliced(index + 1, 0, [(one[0] + next[0]) / 2, (one[1] + next[1]) / 2]));
  };
  /** An outline keeps three points at least. */
  const remove = (index: number) => {
    const newest = ahead.newest('outline', outline);
    if (newest.length > 3 && index < newest.length) change(newest.toSpliced(index, 1));
  };
  const tapped = useRef({ index: -1, at: -Infinity });
  const drag = useDrag(
    ({ args: [index], initial, xy, tap, last, event }) => {
      if (tap) {
        const twice = tapped.current.index === index && event.timeStamp - tapped.current.at < 400;
        // A third press is no second one.
        tapped.current = { index: twice ? -1 : index, at: event.timeStamp };
        return void (twice && remove(index));
      }
      const [pressed, now] = [share(initial), share(xy)];
      const [x, y] = outline[index];
      const next = moved(outline, index, x + now[0] - pressed[0], y + now[1] - pressed[1]);
      const grip = gripOf({ last, event });
      setDragged(grip === 'held' ? next : null);
      setUnder(grip === 'held' && isFinger(event) ? next[index] : null);
      if (grip === 'done') change(next);
    },
    { filterTaps: true, threshold: 3, pointer: { keys: false } },
  );
  const key = (index: number) => (event: KeyboardEvent) => {
    const edit = { '+': addAfter, Insert: addAfter, Delete: remove, Backspace: remove }[event.key];
    if (edit) {
      event.preventDefault();
      event.stopPropagation();
      edit(index);
      return;
    }
    const [dx, dy] = wayOfKey(event.key) ?? [0, 0];
    if (!dx && !dy) return;
    event.preventDefault();
    event.stopPropagation();
    const far = event.shiftKey ? 0.02 : 0.004;
    const newest = ahead.newest('outline', outline);
    asOne(event.nativeEvent, () =>
      change(moved(newest, index, newest[index][0] + dx * far, newest[index][1] + dy * far)),
    );
  };
  return (
    <>
      <svg
        ref={svg}
        // Parts of a drawing cannot say so themselves; the drawing is only met where a point is.
        className="absolute touch-none overflow-visible"
        style={{
          left: frame.left,
          top: frame.top,
          width: frame.width,
          height: frame.height,
          pointerEvents: 'none',
        }}
        data-seam=""
      >
        <path d={path} stroke="#f2b252" strokeWidth="2.5" fill="none" />
        <path d={path} stroke="#15182b" strokeWidth="2.5" strokeDasharray="4 6" fill="none" />
        {onChange &&
          now.map((point, index) =>
            corner(point) ? null : (
              <g
                key={index}
                tabIndex={0}
                role="slider"
                aria-label={`Point ${index + 1} of ${title}; arrow keys move it, + adds one behind it, Delete removes it`}
                aria-valuenow={Math.round(point[0] * 100)}
                aria-valuetext={`${Math.round(point[0] * 100)} % across, ${Math.round(point[1] * 100)} % down`}
                className={`${held} cursor-move`}
                style={{ pointerEvents: 'auto' }}
                data-seam-point={index}
                {...drag(index)}
                onKeyDown={key(index)}
              >
                {/* As large as a finger, so that what just misses the point does not fall through to the picture. */}
                <circle cx={point[0] * frame.width} cy={point[1] * frame.height} r="22" fill="transparent" />
                <circle
                  cx={point[0] * frame.width}
                  cy={point[1] * frame.height}
                  r="6"
                  fill="#15182b"
                  stroke="#f2b252"
                  strokeWidth="2.2"
                />
              </g>
            ),
          )}
      </svg>
      {under && <Loupe frame={frame} at={under} />}
    </>
  );
}
