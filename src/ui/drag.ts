import type { PointerEvent } from 'react';

/**
 * Follows a pointer from a press until it is let go.
 * @param on receives the place as shares of the box, and whether it is the last one
 */
export function follow(
  event: PointerEvent<Element>,
  box: DOMRect,
  on: (x: number, y: number, last: boolean) => void,
): void {
  event.preventDefault();
  event.stopPropagation();
  const target = event.currentTarget;
  target.setPointerCapture(event.pointerId);
  const place = (now: globalThis.PointerEvent, last: boolean) =>
    on((now.clientX - box.left) / box.width, (now.clientY - box.top) / box.height, last);
  const move = (now: Event) => place(now as globalThis.PointerEvent, false);
  const end = (now: Event) => {
    target.removeEventListener('pointermove', move);
    target.removeEventListener('pointerup', end);
    target.removeEventListener('pointercancel', end);
    place(now as globalThis.PointerEvent, true);
  };
  target.addEventListener('pointermove', move);
  target.addEventListener('pointerup', end);
  target.addEventListener('pointercancel', end);
}
