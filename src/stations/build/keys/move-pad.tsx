'use client';
import { useDrag } from '@use-gesture/react';
import { useState, type KeyboardEvent } from 'react';
import { wayOfKey } from '@/ui/arrow-keys';
import { gripOf, type DragState } from '@/ui/drag-state';
import { useGesture } from '@/ui/gesture';
import { held } from '@/ui/stage/seam-line';
import type { Frame } from '@/ui/stage/stage';

/** Takes hold of the picture itself: what is moved by hand follows the pointer, and a key is set where it is let go. */
export function MovePad({
  frame,
  title,
  onMove,
}: {
  frame: Frame;
  title: string;
  /** by shares of the frame */
  onMove: (across: number, down: number) => void;
}) {
  const [by, setBy] = useState<[number, number] | null>(null);
  const asOne = useGesture();
  const drag = useDrag(
    ({ movement, last, event }: DragState) => {
      const box = (event.target as Element).getBoundingClientRect();
      const grip = gripOf({ last, event });
      setBy(grip === 'held' ? movement : null);
      if (grip === 'done') onMove(movement[0] / box.width, movement[1] / box.height);
    },
    { threshold: 4, pointer: { keys: false } },
  );
  const key = (event: KeyboardEvent) => {
    const way = wayOfKey(event.key);
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    const far = event.shiftKey ? 0.05 : 0.005;
    asOne(event.nativeEvent, () => onMove(way[0] * far, way[1] * far));
  };
  return (
    <button
      type="button"
      aria-label={`Move ${title} by hand: drag it, or use the arrow keys`}
      data-move=""
      className={`${held} absolute cursor-move touch-none`}
      style={frame}
      {...drag()}
      onKeyDown={key}
    >
      {by && (
        <span
          aria-hidden
          className="pointer-events-none absolute inset-0 border-2 border-dashed border-[#f2b252]"
          style={{ transform: `translate(${by[0]}px, ${by[1]}px)` }}
        />
      )}
    </button>
  );
}
