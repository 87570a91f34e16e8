'use client';
import { useEffect, useState } from 'react';
import { secondsThatFit } from '@/core/camera/storage';
import { roomLeft } from '@/media/room';
import type { Store } from '@/store/db';
import { heldBack, tryRoom } from '@/workers/recordings';

/** Bytes that are tried at the most: more would cost the device more than it tells. */
const mostTried = 32e6;

/** Milliseconds between two looks at what the browser tells. */
const apart = 3000;

/**
 * Seconds of recording that still fit on this device; null where the browser does not say. What it tells is looked at
 * again and again; whether the next take fits is tried.
 * @param needed seconds of the next take; 0 where none is about to begin
 */
export function useRoom(store: Store, on: boolean, bitsPerSecond: number, needed: number): number | null {
  const [told, setTold] = useState<number | null>(null);
  const [tried, setTried] = useState<{ needed: number; fits: number } | null>(null);
  useEffect(() => {
    if (!on) return;
    let here = true;
    const look = () => void roomLeft().then((left) => here && setTold(left));
    look();
    const timer = setInterval(look, apart);
    return () => {
      here = false;
      clearInterval(timer);
    };
  }, [on]);
  useEffect(() => {
    if (!on || needed === 0) return;
    let here = true;
    const wanted = Math.min(mostTried, (needed * bitsPerSecond) / 8 + heldBack);
    void tryRoom(store, wanted)
      .then((bytes) => here && setTried({ needed, fits: bytes < wanted ? bytes : Infinity }))
      .catch(() => undefined);
    return () => {
      here = false;
    };
  }, [store, on, needed, bitsPerSecond]);
  const free = [
    ...(told === null ? [] : [secondsThatFit(Math.max(0, told - heldBack), bitsPerSecond)]),
    ...(tried?.needed === needed && tried.fits < Infinity
      ? [(Math.max(0, tried.fits - heldBack) * 8) / bitsPerSecond]
      : []),
  ];
  return free.length > 0 ? Math.min(...free) : null;
}
