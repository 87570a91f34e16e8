import { chosenPainters, trialSchema, type Painters, type PainterTrial } from '@/core/picture/painters';
import { openPainter } from './clients';

/** where this browser keeps what its painters were found to take */
const place = 'fickle-ribbon-painters';
const listeners = new Set<() => void>();
let running: Promise<void> | null = null;
let read: { text: string | null; trial: PainterTrial | null } = { text: null, trial: null };

/** How fast this device's painters are; null until they were tried. The same object until they are tried again. */
export function painterTrial(): PainterTrial | null {
  const text = globalThis.localStorage?.getItem(place) ?? null;
  if (text === read.text) return read.trial;
  let told: unknown = null;
  try {
    told = JSON.parse(text ?? 'null');
  } catch {
    // What cannot be read is tried again.
  }
  const parsed = trialSchema.safeParse(told);
  read = { text, trial: parsed.success ? parsed.data : null };
  return read.trial;
}

/** Who paints on this device. */
export const paintersFor = (use: 'stage' | 'whole'): Painters => chosenPainters(painterTrial(), use);

/** Hears when the painters were tried. */
export function watchPainters(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Lets all painters paint the same pictures, in a worker of their own. Asked again meanwhile, it waits for that one. */
export function tryPaintersHere(): Promise<void> {
  running ??= (async () => {
    const worker = openPainter();
    try {
      localStorage.setItem(place, JSON.stringify(await worker.api.tryPainters()));
      for (const listener of listeners) listener();
    } finally {
      worker.end();
      running = null;
    }
  })();
  return running;
}
