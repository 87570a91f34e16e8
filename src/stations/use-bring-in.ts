import { useCallback, useEffect, useRef, useState } from 'react';
import type { Store } from '@/store/db';
import type { Replacing } from './replace-song';

/** Brings files into a project, also dropped ones, and what a lost page left behind; tells how far it is. */
export function useBringIn(store: Store, projectId: string, attempt: (work: () => unknown) => Promise<void>) {
  const [replacing, setReplacing] = useState<Replacing | null>(null);
  const [importing, setImporting] = useState<{ done: number; of: number; name: string } | null>(null);
  const stop = useRef(false);
  const cancel = useCallback(() => {
    stop.current = true;
  }, []);
  const bringAll = useCallback(
    async (files: File[]) => {
      stop.current = false;
      setImporting({ done: 0, of: files.length, name: files[0].name });
      try {
        const { bringFiles } = await import('./bring-in');
        await bringFiles(store, projectId, files, {
          attempt,
          onProgress: (done, name) => setImporting({ done, of: files.length, name }),
          stopped: () => stop.current,
          mayReplace: (name, song) =>
            new Promise((answer) =>
              setReplacing({
                name,
                song,
                answer: (yes) => {
                  setReplacing(null);
                  answer(yes);
                },
              }),
            ),
        });
      } finally {
        setImporting(null);
      }
    },
    [store, projectId, attempt],
  );
  const bringIn = useCallback(
    (files: File[]) => {
      if (files.length > 0) void attempt(() => bringAll(files));
    },
    [attempt, bringAll],
  );

  useEffect(
    () =>
      void attempt(async () => {
        await (await import('./bring-in')).keepWhatWasLost(store, projectId);
      }),
    [attempt, store, projectId],
  );

  useEffect(() => {
    const over = (event: DragEvent) => event.preventDefault();
    const drop = (event: DragEvent) => {
      event.preventDefault();
      bringIn([...(event.dataTransfer?.files ?? [])]);
    };
    window.addEventListener('dragover', over);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('drop', drop);
    };
  }, [bringIn]);
  return { bringIn, importing, cancel, replacing };
}
