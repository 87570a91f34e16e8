'use client';
import { useSyncExternalStore } from 'react';

const query = '(max-width: 639px)';

function listen(listener: () => void): () => void {
  const media = window.matchMedia(query);
  media.addEventListener('change', listener);
  return () => media.removeEventListener('change', listener);
}

/** True on a phone, where the stations lie along the bottom. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    listen,
    () => window.matchMedia(query).matches,
    () => false,
  );
