import { say } from '@/ui/say';
import type { Store } from '@/store/db';
import { readSnapshot } from '@/store/snapshot';
import { lostArrivals, tellLost } from '@/workers/arrivals';
import { importFiles } from '@/workers/import-files';
import { recoverRecordings } from '@/workers/recordings';
import { bringBundle } from './shoot/carry/use-carry';
import { bringSongFile, isSongFile } from './song/song-files';

const isBundle = (name: string): boolean => /\.zip$/i.test(name);

/** What bringing in is told and asks while it goes on. */
type Watch = {
  attempt: (work: () => unknown) => Promise<void>;
  onProgress: (done: number, name: string) => void;
  stopped: () => boolean;
  mayReplace: (name: string, song: string) => Promise<boolean>;
};

/** Brings files where they belong: takes and songs, beats and words, carried projects. Says what became of them. */
export async function bringFiles(
  store: Store,
  projectId: string,
  files: File[],
  { attempt, ...watch }: Watch,
): Promise<void> {
  for (const file of files.filter(({ name }) => isSongFile(name))) {
    void attempt(async () => {
      const now = await readSnapshot(store, projectId);
      if (now) say('done', await bringSongFile(store, now, file));
    });
  }
  for (const file of files.filter(({ name }) => isBundle(name)))
    void attempt(async () => {
      const told = await bringBundle(store, file, () => undefined);
      if (told) say('done', told.text);
    });
  const results = await importFiles(
    store,
    projectId,
    files.filter(({ name }) => !isSongFile(name) && !isBundle(name)),
    watch,
  );
  for (const result of results) {
    if (result.outcome === 'problem') say('refused', result.message);
    else if (result.outcome === 'known' || result.outcome === 'kept') say('known', result.message);
  }
  const fine = results.filter(({ outcome }) => outcome === 'take' || outcome === 'song').length;
  if (fine > 0) say('done', fine === 1 ? 'One file is in the project.' : `${fine} files are in the project.`);
}

/** Keeps what a lost page had recorded, and names what it had not brought in. */
export async function keepWhatWasLost(store: Store, projectId: string): Promise<void> {
  const lost = await lostArrivals(store, projectId, navigator.locks);
  if (lost.length > 0) say('refused', tellLost(lost));
  const { kept, problems } = await recoverRecordings(store, projectId);
  for (const problem of problems) say('refused', problem);
  if (kept > 0)
    say(
      'known',
      kept === 1
        ? 'A recording was broken off; what was recorded is kept as a take.'
        : `${kept} recordings were broken off; what was recorded is kept as takes.`,
    );
}
