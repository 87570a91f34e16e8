'use client';
import { useEffect, useState, useSyncExternalStore } from 'react';

type Theme = 'day' | 'night';
const place = 'fickle-ribbon-theme';

const watchTheme = (listener: () => void) => {
  const watch = new MutationObserver(listener);
  watch.observe(document.documentElement, { attributeFilter: ['data-theme'] });
  return () => watch.disconnect();
};

/** The theme that the page is in, whoever switched it. */
export const useThemeNow = (): string =>
  useSyncExternalStore(
    watchTheme,
    () => document.documentElement.dataset.theme ?? 'day',
    () => 'day',
  );

/** Follows the device until it is switched. */
export function useTheme(): [Theme, () => void] {
  const [theme, setTheme] = useState<Theme>('day');
  useEffect(() => {
    const dark = window.matchMedia('(prefers-color-scheme: dark)');
    const read = () =>
      setTheme((localStorage.getItem(place) as Theme | null) ?? (dark.matches ? 'night' : 'day'));
    read();
    dark.addEventListener('change', read);
    return () => dark.removeEventListener('change', read);
  }, []);
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
  }, [theme]);
  const switchTheme = () => {
    const next = theme === 'day' ? 'night' : 'day';
    localStorage.setItem(place, next);
    setTheme(next);
  };
  return [theme, switchTheme];
}
