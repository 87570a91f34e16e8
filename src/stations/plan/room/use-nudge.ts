'use client';
import type { KeyboardEvent } from 'react';
import { useAhead } from '@/ui/ahead';
import { useGesture } from '@/ui/gesture';
import { wayOfKey } from '@/ui/arrow-keys';

type Placed = { id: string; x: number; y: number };

/** Arrow keys move a thing on the floor by 5 cm, with Shift by 25 cm. Metres; y leads away from the camera. */
export function useNudge<Thing extends Placed>(
  save: (thing: Thing, x: number, y: number) => Promise<void>,
): (thing: Thing) => (event: KeyboardEvent) => void {
  const ahead = useAhead<{ x: number; y: number }>();
  const asOne = useGesture();
  return (thing) => (event) => {
    const step = event.shiftKey ? 0.25 : 0.05;
    const by = wayOfKey(event.key);
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    const newest = ahead.newest(thing.id, thing);
    const next = { x: newest.x + by[0] * step, y: newest.y - by[1] * step };
    asOne(event.nativeEvent, () => ahead.send(thing.id, next, save(thing, next.x, next.y)));
  };
}
