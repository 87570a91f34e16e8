/** What is used of a drag, as the gesture library tells it. */
export type DragState<Memo = unknown> = {
  args?: unknown[];
  /** client pixels where it began, where it is, and how far that is */
  initial: [number, number];
  xy: [number, number];
  movement: [number, number];
  tap: boolean;
  last: boolean;
  event: Event;
  altKey: boolean;
  memo?: Memo;
};

/** Still held, let go, or taken back because the system ended it, to scroll or for a call. */
export type Grip = 'held' | 'done' | 'off';

export const gripOf = ({ last, event }: Pick<DragState, 'last' | 'event'>): Grip =>
  event.type === 'pointercancel' ? 'off' : last ? 'done' : 'held';

/** True for what a finger does on glass, which hides what lies under it. */
export const isFinger = (event: Event): boolean => 'pointerType' in event && event.pointerType === 'touch';
