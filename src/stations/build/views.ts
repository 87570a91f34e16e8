import type { Layer } from '@/core/picture/layers';
import { still } from '@/core/motion/keyframes';

export const views = [
  { id: 'joined', text: 'Joined', keys: 'Q' },
  { id: 'left', text: 'Left', keys: 'W' },
  { id: 'right', text: 'Right', keys: 'E' },
  { id: 'plate', text: 'Plate', keys: 'R' },
  { id: 'difference', text: 'Difference', keys: 'T' },
  { id: 'join', text: 'Join', keys: 'Y' },
] as const;
export type View = (typeof views)[number]['id'];

/** A layer by itself, over the whole frame. */
const alone = (layers: readonly Layer[], id: string): Layer[] =>
  layers.filter((layer) => layer.id === id).map((layer) => ({ ...layer, mask: null, opacity: still(1) }));

/** What each view paints. Single takes and the difference exist from the copy's first frame on. */
export function showingOf(
  view: View,
  layers: Layer[],
  frame: number,
  lands: number,
): { layers: Layer[]; against: Layer[] | null; frame: number } {
  const [left, right] = [alone(layers, 'left'), alone(layers, 'right')];
  const from = (chosen: Layer[]) => Math.max(frame, chosen[0]?.from ?? frame);
  switch (view) {
    case 'left':
      return { layers: left, against: null, frame: from(left) };
    case 'right':
      return { layers: right, against: null, frame: from(right) };
    case 'plate':
      return { layers: alone(layers, 'plate'), against: null, frame };
    case 'difference':
      return { layers: left, against: right, frame: Math.max(frame, lands) };
    default:
      return { layers, against: null, frame };
  }
}
