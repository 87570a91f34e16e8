import type { Source } from '@/media/footage';
import type { Store } from '@/store/db';
import { takeKey, type Snapshot } from '@/store/snapshot';

/** Files for some media with the real times of their pictures; those that are not measured or not here are left out. */
export async function sourcesOf(
  store: Store,
  snapshot: Snapshot,
  media: readonly string[],
  table: 'proxies' | 'originals',
): Promise<Source[]> {
  const out: Source[] = [];
  for (const id of new Set(media)) {
    const row = await store[table].get(id);
    const value = snapshot.measures.get(takeKey(id))?.value;
    if (row && value?.method === 'take-2') out.push({ media: id, blob: row.blob, times: value.take.times });
  }
  return out;
}
