import { refuse } from '@/core/error';
import type { FoundValue } from '@/core/footage/analysers';
import { partKey, type AnalyserName } from '@/core/footage/take-parts';
import type { Motion } from '@/core/footage/analysers/motion';
import type { MeasuredTake } from '@/core/model/measures';
import type { Take } from '@/core/model/records';
import { suggestSlot } from '@/core/recipes/built';
import { change } from '@/store/change';
import type { Store } from '@/store/db';
import { keep, original, type Doing, type Job, type Result } from './job';
import { asCoreError } from './plain-errors';
import { curveOf, startsOf } from './sources';

/** A take of no known slot gets the one that its movement suggests; what a person chose meanwhile stays. */
const giveSlot = (store: Store, project: string, media: string, motion: Motion) =>
  change(
    store,
    project,
    'Sort the take',
    ({ takes }) =>
      takes
        .filter((take) => take.media === media && take.slot === null)
        .map(({ id }) => ({ record: id, set: { slot: suggestSlot(motion) } })),
    true,
  );

/** Decodes a take for whatever is missing of it, and keeps each part under its own key. */
export const measureTake: Doing<'take'> = async (job, api) => {
  const { store, snapshot, need, progress } = job;
  const { take, parts } = need;
  const { media } = take;
  const file = await original(store, media);
  const duration = snapshot.media.get(media)?.probe?.duration ?? 0;
  const { pictures, found } = await api.measureTake(file, duration, parts, take.matrix, progress);
  const results: Result[] = Object.entries(found).map(([method, { small, curve }]) => ({
    key: partKey(method as AnalyserName, take),
    value: { method, small } as FoundValue,
    curve,
  }));
  if (pictures) {
    const { size, analysis, times, colours, starts, stills, poster, proxy, complete } = pictures;
    await store.stills.put({ id: media, stills });
    await store.proxies.put({ id: media, blob: proxy });
    results.push({
      key: partKey('pictures', take),
      value: { method: 'pictures', pictures: { size, analysis, times, colours }, poster, complete },
      curve: starts,
    });
  }
  const methods = new Set(results.map(({ value }) => value.method));
  await keep(job, media, results, (_, method) => methods.has(method));
  if (found.motion) await giveSlot(store, snapshot.project.id, media, found.motion.small);
};

/** @throws CoreError `absent` where something of it is no longer there */
async function measured({ store, snapshot }: Job, take: Take): Promise<MeasuredTake> {
  const value = snapshot.measures.get(partKey('pictures', take))?.value;
  const [kept, times, track] = await Promise.all([
    store.stills.get(take.media),
    startsOf(store, take),
    curveOf(store, partKey('camera', take)),
  ]);
  if (value?.method !== 'pictures' || !kept || !times || !track)
    return refuse('absent', 'This take has to be measured again. Bring it in again.');
  const { size, analysis } = value.pictures;
  return { size, analysis, times, track: Float32Array.from(track), stills: kept.stills };
}

export const compareTakes: Doing<'compare'> = async (job, api) => {
  const { need } = job;
  const [take, plate] = await Promise.all([measured(job, need.take), measured(job, need.plate)]);
  const comparison = await api.compareTake(take, plate).catch((error: unknown) => {
    // Sizes that differ are a finding of their own, from the measures themselves: nothing more is to be said.
    if (asCoreError(error).code !== 'take.size') throw error;
    return refuse('take.size', '');
  });
  await keep(job, need.take.id, [{ key: need.key, value: { method: 'comparison', comparison } }]);
};
