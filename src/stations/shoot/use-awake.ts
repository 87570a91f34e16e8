'use client';
import { useEffect } from 'react';

/** Keeps the screen on while this is shown; asked again whenever the page comes back, since a hidden page loses it. */
export function useAwake(wanted = true): void {
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let here = true;
    const ask = async () => {
      if (document.visibilityState !== 'visible') return;
      lock = await navigator.wakeLock.request('screen').catch(() => null);
      if (!here) void lock?.release();
    };
    void ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      here = false;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, [wanted]);
}
