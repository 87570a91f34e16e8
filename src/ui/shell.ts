'use client';
import { useSyncExternalStore } from 'react';
import { Workbox } from 'workbox-window';

/** Whether this device keeps the bench for use without a network. */
type Keeping = 'asking' | 'kept' | 'refused';
/** What this page knows of the shell that it came from. */
type Shell = {
  keeping: Keeping;
  /** `ready`: a newer one waits. `elsewhere`: it is in use already, because another tab asked for it */
  newer: 'none' | 'ready' | 'elsewhere';
};

let shell: Shell = { keeping: 'asking', newer: 'none' };
let workbox: Workbox | null = null;
let changing = false;
const listeners = new Set<() => void>();
const tell = (more: Partial<Shell>) => {
  shell = { ...shell, ...more };
  listeners.forEach((listener) => listener());
};

/** Has the bench kept on this device. Its files are kept once the worker that keeps them is at work, not before. */
export function keepShell(): void {
  if (workbox) return;
  if (!('serviceWorker' in navigator)) return tell({ keeping: 'refused' });
  workbox = new Workbox('/sw.js');
  workbox.addEventListener('waiting', () => tell({ newer: 'ready' }));
  workbox.addEventListener('redundant', ({ isUpdate }) => isUpdate || tell({ keeping: 'refused' }));
  workbox.addEventListener('controlling', ({ isUpdate, isExternal }) => {
    if (changing) location.reload();
    else if (isUpdate || isExternal) tell({ newer: 'elsewhere' });
  });
  workbox.register().catch(() => tell({ keeping: 'refused' }));
  void navigator.serviceWorker.ready.then(() => tell({ keeping: 'kept' }));
}

/** Loads the page again with the newer version; what is being done is in the store already. */
export function changeOver(): void {
  if (shell.newer === 'elsewhere') return location.reload();
  changing = true;
  workbox?.messageSkipWaiting();
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
const now = () => shell;

export const useShell = (): Shell => useSyncExternalStore(subscribe, now, now);
