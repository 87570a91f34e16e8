import { useRef, useState, type KeyboardEvent, type MouseEvent } from 'react';
import type { Point } from '@/core/geometry/size';
import type { Frame } from '@/ui/stage/stage';
import { wayOfKey } from '@/ui/arrow-keys';

/** How far one press of an arrow key moves the mark, and with Shift, in shares of the picture. */
const [near, far] = [0.01, 0.06];

/** What was tapped: where, and whether that is where it is on the picture shown. */
export type TapMark = { at: Point; here: boolean };

/** The picture as something to tap people or points on: by pointer, or by a mark that arrow keys move and Enter sets. */
export function TapPad({
  frame,
  label,
  marks,
  onTap,
}: {
  frame: Frame;
  label: string;
  marks: readonly TapMark[];
  onTap: (at: Point) => void;
}) {
  const [mark, setMark] = useState<Point | null>(null);
  const key = (event: KeyboardEvent) => {
    const [dx, dy] = wayOfKey(event.key) ?? [0, 0];
    const sets = event.key === 'Enter' || event.key === ' ';
    if (!mark || (!dx && !dy && !sets)) return;
    event.preventDefault();
    event.stopPropagation();
    const by = event.shiftKey ? far : near;
    const within = (value: number) => Math.min(1, Math.max(0, value));
    if (sets) onTap(mark);
    else setMark([within(mark[0] + dx * by), within(mark[1] + dy * by)]);
  };
  const pressed = useRef<Point>([0, 0]);
  const tap = (event: MouseEvent) => {
    // A drag that moved a picture looked at closely is no tap.
    const moved = Math.hypot(event.clientX - pressed.current[0], event.clientY - pressed.current[1]);
    if (event.detail > 0 && moved > 5) return;
    const box = event.currentTarget.getBoundingClientRect();
    onTap([(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height]);
  };
  return (
    <button
      type="button"
      aria-label={`${label}. Arrow keys move a mark, Enter taps there${mark ? `: ${Math.round(mark[0] * 100)} % across, ${Math.round(mark[1] * 100)} % down` : ''}`}
      data-testid="tap"
      className="absolute cursor-crosshair"
      style={frame}
      onPointerDown={(event) => (pressed.current = [event.clientX, event.clientY])}
      onClick={tap}
      onKeyDown={key}
      onFocus={(event) => setMark(event.currentTarget.matches(':focus-visible') ? [0.5, 0.5] : null)}
      onBlur={() => setMark(null)}
    >
      {marks.map(({ at: [x, y], here }, index) => (
        <span
          key={index}
          aria-hidden
          data-testid={here ? 'tapped here' : 'tapped'}
          className={`pointer-events-none absolute -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-[#15182b] outline-2 outline-raised ${here ? 'size-5' : 'size-2.5 bg-raised'}`}
          style={{ left: `${x * 100}%`, top: `${y * 100}%` }}
        />
      ))}
      {mark && (
        <span
          aria-hidden
          className="pointer-events-none absolute size-9 -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-raised outline-2 outline-[#15182b] outline-dashed"
          style={{ left: `${mark[0] * 100}%`, top: `${mark[1] * 100}%` }}
        />
      )}
    </button>
  );
}
