import { useDrag } from '@use-gesture/react';
import type { Point } from '@/core/geometry/size';
import { gripOf, type DragState, type Grip } from './drag-state';

/** A thing that is dragged over a drawing; places in shares of the drawing. */
export type BoxDrag<Thing> = {
  thing: Thing;
  /** where it was pressed, and where the pointer is */
  from: Point;
  to: Point;
  state: Grip;
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
    ({ args = [], initial, xy, tap, last, event, memo }: DragState<DOMRect>) => {
      const thing = args[0] as Thing;
      if (tap) return void onTap(thing);
      const drawing = event.target instanceof Element ? event.target.closest('svg') : null;
      const box = memo ?? drawing?.getBoundingClientRect();
      if (!box) return undefined;
      const share = ([x, y]: [number, number]): Point => [
        (x - box.left) / box.width,
        (y - box.top) / box.height,
      ];
      on({ thing, from: share(initial), to: share(xy), state: gripOf({ last, event }) });
      return box;
    },
    { filterTaps: true, threshold: 4, preventScroll: 250, preventScrollAxis: 'y', pointer: { keys: false } },
  );
  return (thing: Thing) => bind(thing);
}
