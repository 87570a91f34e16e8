'use client';
import { useEffect, useState } from 'react';

/** What fills the screen, over everything else of the page; dialogs still open above it. */
export const filling = 'fixed inset-0 z-30';

/**
 * Whether a picture fills the screen. The whole page goes to full screen with it, where the browser can: what opens
 * above the picture stays in sight.
 * @param usual whether it does as long as nobody says otherwise
 */
export function useFill(usual: boolean): { filled: boolean; fill: (on: boolean) => void } {
  const [wish, setWish] = useState<boolean | null>(null);
  const filled = wish ?? usual;
  useEffect(() => {
    const left = () => document.fullscreenElement || setWish(false);
    const escape = (event: KeyboardEvent) => {
      if (event.key === 'Escape' && !event.defaultPrevented) setWish(false);
    };
    if (!filled) return;
    document.addEventListener('fullscreenchange', left);
    window.addEventListener('keydown', escape);
    return () => {
      document.removeEventListener('fullscreenchange', left);
      window.removeEventListener('keydown', escape);
      if (document.fullscreenElement) void document.exitFullscreen().catch(() => undefined);
    };
  }, [filled]);
  const fill = (on: boolean) => {
    setWish(on);
    // A browser that refuses, or knows no full screen, still gives the picture the whole page.
    if (on) void document.documentElement.requestFullscreen?.().catch(() => undefined);
  };
  return { filled, fill };
}
