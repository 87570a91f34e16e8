import { useDrag } from '@use-gesture/react';
import type { Point } from '@/core/geometry/size';

/** A thing that is dragged over a drawing; places in shares of the drawing. */
export type BoxDrag<Thing> = {
  thing: Thing;
  /** where it was pressed, and where the pointer is */
  from: Point;
  to: Point;
  /** still held, let go, or taken back because the system ended it */
  state: 'held' | 'done' | 'off';
};

type DragState = {
  args?: unknown[];
  initial: [number, number];
  xy: [number, number];
  tap: boolean;
  last: boolean;
  event: Event;
  memo?: DOMRect;
};

/**
 * Drags of things that lie on a drawing. A finger that moves up or down scrolls; across, or held for a moment, it
 * takes hold.
 * @param onTap what a press does that moves nothing
 * @returns what a thing listens with
 */
export function useBoxDrag<Thing>(
  on: (drag: BoxDrag<Thing>) => void,
  onTap: (thing: Thing) => void = () => undefined,
) {
  const bind = useDrag(
    ({ args = [], initial, xy, tap, last, event, memo }: DragState) => {
      const thing = args[0] as Thing;
      if (tap) return void onTap(thing);
      const drawing = event.target instanceof Element ? event.target.closest('svg') : null;
      const box = memo ?? drawing?.getBoundingClientRect();
      if (!box) return undefined;
      const share = ([x, y]: [number, number]): Point => [
        (x - box.left) / box.width,
        (y - box.top) / box.height,
      ];
      const off = event.type === 'pointercancel';
      on({ thing, from: share(initial), to: share(xy), state: off ? 'off' : last ? 'done' : 'held' });
      return box;
    },
    { filterTaps: true, threshold: 4, preventScroll: 250, preventScrollAxis: 'y', pointer: { keys: false } },
  );
  return (thing: Thing) => bind(thing);
}
