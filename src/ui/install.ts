type InstallPrompt = Event & { prompt: () => Promise<unknown> };

let kept: InstallPrompt | null = null;
const listeners = new Set<() => void>();
const tell = () => listeners.forEach((listener) => listener());

/** Listens from the first moment on: browsers offer installing once, early. */
export function listenForInstall(): () => void {
  const offer = (event: Event) => {
    event.preventDefault();
    kept = event as InstallPrompt;
    tell();
  };
  const done = () => {
    kept = null;
    tell();
  };
  window.addEventListener('beforeinstallprompt', offer);
  window.addEventListener('appinstalled', done);
  return () => {
    window.removeEventListener('beforeinstallprompt', offer);
    window.removeEventListener('appinstalled', done);
  };
}

export const canInstall = (): boolean => kept !== null;
export const onInstallOffer = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
/** Shows the browser's own question; it may be asked only once. */
export async function install(): Promise<void> {
  const asked = kept;
  kept = null;
  tell();
  await asked?.prompt();
}
