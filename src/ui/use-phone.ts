'use client';
import { useSyncExternalStore } from 'react';

/** Phones are told by their smaller side, however they are held. */
const queries = {
  phone: '(max-width: 639px), (max-height: 499px)',
  low: '(min-width: 640px) and (max-height: 499px)',
  wide: '(orientation: landscape)',
};

const useMedia = (query: string): boolean =>
  useSyncExternalStore(
    (listener) => {
      const media = window.matchMedia(query);
      media.addEventListener('change', listener);
      return () => media.removeEventListener('change', listener);
    },
    () => window.matchMedia(query).matches,
    () => false,
  );

/** True on a phone, upright or sideways. */
export const usePhone = (): boolean => useMedia(queries.phone);
/** True on a phone that is held sideways. */
export const useLow = (): boolean => useMedia(queries.low);
/** True where the screen is wider than high. */
export const useWide = (): boolean => useMedia(queries.wide);
