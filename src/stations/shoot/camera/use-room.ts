'use client';
import { useEffect, useState } from 'react';
import { secondsThatFit } from '@/core/camera/storage';
import { roomLeft } from '@/media/room';
import { heldBack } from '@/workers/recordings';

/** Milliseconds between two looks at the room. */
const apart = 3000;

/** Seconds of recording that still fit on this device, looked at again and again; null where the browser does not say. */
export function useRoom(on: boolean, bitsPerSecond: number): number | null {
  const [bytes, setBytes] = useState<number | null>(null);
  useEffect(() => {
    if (!on) return;
    let here = true;
    const look = () => void roomLeft().then((left) => here && setBytes(left));
    look();
    const timer = setInterval(look, apart);
    return () => {
      here = false;
      clearInterval(timer);
    };
  }, [on]);
  return bytes === null ? null : secondsThatFit(Math.max(0, bytes - heldBack), bitsPerSecond);
}
