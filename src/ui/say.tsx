'use client';
import { lazy, useEffect } from 'react';

/** How a sentence is meant: something was done, something to know, something could not be done. */
export type Tone = 'done' | 'known' | 'refused';
const tones = { done: 'success', known: 'info', refused: 'error' } as const;

let tellShown: () => void = () => undefined;
const shown = new Promise<void>((resolve) => (tellShown = resolve));

/** Tells the person something in a sentence that goes by itself; what is said early waits until it can be seen. */
export function say(tone: Tone, sentence: string): void {
  const tell = async () => {
    const [{ toast }] = await Promise.all([import('sonner'), shown]);
    toast[tones[tone]](sentence);
  };
  // What cannot even be fetched cannot be said this way; the station's error boundary is what is left.
  void tell().catch(() => undefined);
}

/**
 * Where sentences appear: above the stations on a desk, over the thumb on a phone, and on the set in the middle, where
 * neither an alarm nor the way to stop a take is.
 */
export const Sentences = lazy(async () => {
  const { Toaster } = await import('sonner');
  return {
    default: function Shown({ place }: { place: 'top' | 'middle' | 'low' }) {
      useEffect(tellShown, []);
      return (
        <Toaster
          position={place === 'low' ? 'bottom-center' : 'top-center'}
          {...(place === 'middle' ? { offset: { top: '38vh' } } : {})}
          mobileOffset={place === 'middle' ? { top: '38vh', right: 140 } : { bottom: 84 }}
          duration={12_000}
          toastOptions={{ className: 'font-sans' }}
        />
      );
    },
  };
});
