import { refuse } from '@/core/error';
import { partKey, type TakeSource } from '@/core/footage/take-parts';
import type { Take } from '@/core/model/records';
import type { Source } from '@/media/footage';
import type { Store } from '@/store/db';

/** What is large of a measure; nothing where it was not found yet. */
export const curveOf = async (store: Store, key: string): Promise<Float32Array | Float64Array | undefined> =>
  (await store.curves.get(key))?.values;

/** Seconds at which each picture of a take begins to show; nothing where it was not decoded yet. */
export async function startsOf(store: Store, take: TakeSource): Promise<Float64Array | undefined> {
  const starts = await curveOf(store, partKey('pictures', take));
  return starts && Float64Array.from(starts);
}

/** A take's pictures at hand, and the seconds at which each begins. @throws CoreError `absent` where they are not here */
export async function proxyOf(store: Store, take: Take): Promise<{ film: Blob; times: Float64Array }> {
  const [proxy, times] = await Promise.all([store.proxies.get(take.media), startsOf(store, take)]);
  if (!proxy || !times) return refuse('absent', `${take.name} has to be measured again. Bring it in again.`);
  return { film: proxy.blob, times };
}

/** How each of some files is read: as its take says. */
async function takesOf(store: Store, media: readonly string[]): Promise<TakeSource[]> {
  const takes = await store.records
    .where({ kind: 'take' })
    .filter((one) => one.kind === 'take' && one.alive && media.includes(one.media))
    .toArray();
  return [...new Set(media)].map(
    (id) =>
      takes.find((one): one is Take & typeof one => one.kind === 'take' && one.media === id) ?? { media: id },
  );
}

/** Files for some media with the real times of their pictures; those that are not measured or not here are left out. */
export async function sourcesOf(
  store: Store,
  media: readonly string[],
  table: 'proxies' | 'originals',
): Promise<Source[]> {
  const out: Source[] = [];
  for (const take of await takesOf(store, media)) {
    const { media: id, matrix } = take;
    const [row, times] = await Promise.all([store[table].get(id), startsOf(store, take)]);
    if (row && times) out.push({ media: id, blob: row.blob, times, matrix });
  }
  return out;
}
