'use client';
import { fileName } from '@/core/formats/file-name';
import { useCallback, useRef, useState } from 'react';
import { say } from '@/ui/say';
import type { Merged } from '@/store/merge/merge';
import { gatherBundle, takeInBundle } from '@/store/merge/carry';
import type { Store } from '@/store/db';
import { callback, openMedia } from '@/workers/clients';
import { saveFile } from '../../save';

export type Busy = { text: string; share: number } | null;

/** Brings a carried file in. @returns a sentence about what came of it, and the project it belongs to; null where it was ended before it was read */
export async function bringBundle(
  store: Store,
  file: Blob,
  onProgress: (share: number) => void,
  onBegun: (end: () => void) => void = () => undefined,
): Promise<{ text: string; project: string; merged: Merged } | null> {
  const worker = openMedia();
  onBegun(worker.end);
  try {
    const unpacked = await worker.orEnded(worker.api.unpackBundle(file, callback(onProgress)));
    if (!unpacked) return null;
    const { bundle, blobs, lost } = unpacked;
    const merged = await takeInBundle(store, bundle, blobs);
    const what = bundle.setup ? `${bundle.setup.name} of ${bundle.project.name}` : bundle.project.name;
    const parts = [
      merged.steps === 0
        ? merged.refused > 0
          ? `${what}: nothing in it fits this project, and nothing was changed`
          : `${what}: everything in it was here already`
        : `${what} is merged: ${merged.steps} steps from the other device`,
      ...(merged.media > 0 ? [`${merged.media} ${merged.media === 1 ? 'file' : 'files'} came along`] : []),
      ...(merged.conflicts.length > 0 ? [`${merged.conflicts.length} to choose between`] : []),
      ...(lost.length > 0
        ? [
            `${lost.length} ${lost.length === 1 ? 'clip is' : 'clips are'} damaged in the file: carry it over again for ${lost.length === 1 ? 'it' : 'them'}`,
          ]
        : []),
    ];
    return { text: `${parts.join('; ')}.`, project: bundle.project.id, merged };
  } finally {
    worker.end();
  }
}

/** Saving and bringing in, with how far it is and a way to end it. */
export function useCarry(store: Store, project: { id: string; name: string }) {
  const [busy, setBusy] = useState<Busy>(null);
  const end = useRef<() => void>(() => undefined);
  const cancel = useCallback(() => {
    end.current();
    setBusy(null);
  }, []);
  const save = useCallback(
    async (setup: { id: string; name: string } | null) => {
      const worker = openMedia();
      // A worker may tell of progress after its answer: nothing is shown of work that is over.
      let over = false;
      end.current = () => {
        over = true;
        worker.end();
      };
      const tell = (share: number) => over || setBusy({ text: 'Packing', share });
      tell(0);
      try {
        const { bundle, blobs } = await gatherBundle(store, project.id, setup?.id ?? null);
        const packing = worker.api.packBundle(
          bundle,
          blobs,
          callback((share: number) => void tell(share)),
        );
        const zip = await worker.orEnded(packing);
        if (zip)
          saveFile(`${fileName(setup ? `${project.name} ${setup.name}` : project.name)}.ribbon.zip`, zip);
      } finally {
        over = true;
        worker.end();
        setBusy(null);
      }
    },
    [store, project.id, project.name],
  );
  const bring = useCallback(
    async (file: File) => {
      let over = false;
      const tell = (share: number) => over || setBusy({ text: `Reading ${file.name}`, share });
      tell(0);
      try {
        const told = await bringBundle(
          store,
          file,
          (share) => void tell(share),
          (stop) => {
            end.current = () => {
              over = true;
              stop();
            };
          },
        );
        if (told) say('done', told.text);
        return told?.project ?? null;
      } finally {
        over = true;
        setBusy(null);
      }
    },
    [store],
  );
  return { busy, cancel, save, bring };
}
