'use client';
import { useSyncExternalStore } from 'react';
import { canInstall, install, onInstallOffer } from '@/ui/install';
import { useShell } from '@/ui/shell';

/** Whether this device keeps the bench for use without a network, and how to install it. */
export function PhonePart() {
  const offered = useSyncExternalStore(onInstallOffer, canInstall, () => false);
  const { keeping } = useShell();
  const installed = window.matchMedia('(display-mode: standalone)').matches;
  return (
    <section className="flex flex-col gap-2.5" aria-label="On this device">
      <h2 className="text-[18px] font-[560]">On this device</h2>
      {keeping === 'asking' && <p>The bench is being kept on this device …</p>}
      {keeping === 'kept' && (
        <p data-offline="ready">
          The bench is kept on this device: it opens and works where there is no network.
          {installed && ' It is installed.'}
        </p>
      )}
      {keeping === 'refused' && (
        <p data-offline="refused">
          The camera works here, but this device cannot keep the bench for use without a network, nor install
          it: it does not trust the computer that serves it.{' '}
          <a
            className="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
            href="/trust"
          >
            How to trust it
          </a>
        </p>
      )}
      {offered && (
        <button type="button" className="knob self-start" onClick={() => void install()}>
          Install on this device
        </button>
      )}
      {keeping === 'kept' && !offered && !installed && (
        <p className="text-ink2">
          To have it among your applications, choose “Add to home screen” in the browser’s menu.
        </p>
      )}
    </section>
  );
}
