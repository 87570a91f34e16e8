import { partKey } from '@/core/footage/analysers';
import type { Source } from '@/media/footage';
import type { Store } from '@/store/db';

/** What is large of a measure; nothing where it was not found yet. */
export const curveOf = async (store: Store, key: string): Promise<Float32Array | Float64Array | undefined> =>
  (await store.curves.get(key))?.values;

/** Seconds at which each picture of a take begins to show; nothing where it was not decoded yet. */
export async function startsOf(store: Store, media: string): Promise<Float64Array | undefined> {
  const starts = await curveOf(store, partKey('pictures', media));
  return starts && Float64Array.from(starts);
}

/** Files for some media with the real times of their pictures; those that are not measured or not here are left out. */
export async function sourcesOf(
  store: Store,
  media: readonly string[],
  table: 'proxies' | 'originals',
): Promise<Source[]> {
  const out: Source[] = [];
  for (const id of new Set(media)) {
    const [row, times] = await Promise.all([store[table].get(id), startsOf(store, id)]);
    if (row && times) out.push({ media: id, blob: row.blob, times });
  }
  return out;
}
