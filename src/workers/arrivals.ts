import { newId, type Arrival, type Store } from '@/store/db';
import { isFull } from './plain-errors';

/** The browser's locks, as far as they are used here. */
export type Locks = Pick<LockManager, 'request'>;

/** The same bytes have the same fingerprint; of large files both ends and the size are looked at. */
export async function fingerprintOf(file: Blob): Promise<string> {
  const ends = new Blob([file.slice(0, 65_536), file.slice(Math.max(0, file.size - 65_536))]);
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', await ends.arrayBuffer()));
  return `${file.size}:${[...digest.slice(0, 12)].map((byte) => byte.toString(16).padStart(2, '0')).join('')}`;
}

const lockOf = (batch: string) => `fickle-ribbon-arrivals-${batch}`;

/**
 * Runs the bringing in of some files, and remembers until its end which of them are still to come: a page that is lost
 * in the middle leaves those behind for {@link lostArrivals}.
 */
export async function expecting<Result>(
  store: Store,
  project: string,
  files: readonly File[],
  locks: Locks,
  bring: (expected: readonly Arrival[]) => Promise<Result>,
): Promise<Result> {
  const batch = newId();
  const expected = await Promise.all(
    files.map(async (file) => ({
      id: newId(),
      project,
      batch,
      name: file.name,
      type: file.type,
      size: file.size,
      fingerprint: await fingerprintOf(file),
    })),
  );
  return locks.request(lockOf(batch), async () => {
    // A full disk takes nothing in here either; each file then says by its own name that there is no room for it.
    await store.arrivals.bulkAdd(expected).catch((error: unknown) => {
      if (!isFull(error)) throw error;
    });
    try {
      return await bring(expected);
    } finally {
      await store.arrivals.where({ batch }).delete();
    }
  });
}

/** A file is in, or what is wrong with it is said. */
export const arrived = (store: Store, { id }: Arrival): Promise<void> => store.arrivals.delete(id);

/**
 * Files that a lost page had not brought in yet are listed among the project's files, each with what to do.
 * @returns their names
 */
export async function lostArrivals(store: Store, project: string, locks: Locks): Promise<string[]> {
  const names: string[] = [];
  const all = await store.arrivals.where({ project }).toArray();
  for (const batch of new Set(all.map((one) => one.batch)))
    await locks.request(lockOf(batch), { ifAvailable: true }, async (lock) => {
      if (!lock) return;
      await store.transaction('rw', store.arrivals, store.media, store.writes, store.records, async () => {
        const left = await store.arrivals.where({ batch }).toArray();
        const media = await store.media.where({ project }).toArray();
        const used = new Set(
          (await store.records.where({ project }).toArray()).map((one) => 'media' in one && one.media),
        );
        const lost = left.filter(
          ({ fingerprint }) => !media.some((one) => one.fingerprint === fingerprint && used.has(one.id)),
        );
        await store.writeRows(
          'media',
          lost.map(({ id, name, type, size, fingerprint }) => ({
            ...{ id, project, name, type, size, fingerprint, place: 'blob' as const, probe: null },
            problem: {
              code: 'media.lost',
              message: 'The page was closed before this file was in. Bring it in again.',
            },
            created: Date.now(),
          })),
        );
        await store.arrivals.where({ batch }).delete();
        names.push(...lost.map(({ name }) => name));
      });
    });
  return names;
}

/** What to say of them; the list of files names each. */
export function tellLost(names: readonly string[]): string {
  const more = names.length - 2;
  const some = more > 1 ? [...names.slice(0, 2), `${more} others`] : names;
  const all = new Intl.ListFormat('en').format(some);
  return names.length === 1
    ? `The page was closed before ${all} was in. Bring it in again.`
    : `The page was closed before ${all} were in. Bring them in again.`;
}
