import { useCallback, useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { Store } from '@/store/db';
import { readSnapshot } from '@/store/snapshot';
import { lostArrivals, tellLost } from '@/workers/arrivals';
import { importFiles } from '@/workers/import-files';
import { recoverRecordings } from '@/workers/recordings';
import type { Replacing } from './replace-song';
import { bringBundle } from './shoot/carry/use-carry';
import { bringSongFile, isSongFile } from './song/song-files';

const isBundle = (name: string): boolean => /\.zip$/i.test(name);

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
      for (const file of files.filter(({ name }) => isSongFile(name))) {
        void attempt(async () => {
          const now = await readSnapshot(store, projectId);
          if (now) toast.success(await bringSongFile(store, now, file));
        });
      }
      for (const file of files.filter(({ name }) => isBundle(name)))
        void attempt(async () => toast.success((await bringBundle(store, file, () => undefined)).text));
      const results = await importFiles(
        store,
        projectId,
        files.filter(({ name }) => !isSongFile(name) && !isBundle(name)),
        {
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
        },
      );
      setImporting(null);
      for (const result of results) {
        if (result.outcome === 'problem') toast.error(result.message);
        else if (result.outcome === 'known' || result.outcome === 'kept') toast.info(result.message);
      }
      const fine = results.filter((result) => result.outcome === 'take' || result.outcome === 'song').length;
      if (fine > 0)
        toast.success(fine === 1 ? 'One file is in the project.' : `${fine} files are in the project.`);
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
        const lost = await lostArrivals(store, projectId, navigator.locks);
        if (lost.length > 0) toast.error(tellLost(lost));
        const { kept, problems } = await recoverRecordings(store, projectId);
        for (const problem of problems) toast.error(problem);
        if (kept > 0)
          toast.info(
            kept === 1
              ? 'A recording was broken off; what was recorded is kept as a take.'
              : `${kept} recordings were broken off; what was recorded is kept as takes.`,
          );
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
