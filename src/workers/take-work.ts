import { refuse } from '@/core/error';
import type { FoundValue } from '@/core/footage/analysers';
import { partKey, type AnalyserName } from '@/core/footage/take-parts';
import type { MeasuredTake } from '@/core/model/measures';
import type { Take } from '@/core/model/records';
import { sortTake } from '@/core/recipes/sort-take';
import { mimeOf } from '@/media/writer';
import { change } from '@/store/change';
import type { Store } from '@/store/db';
import { plateFor } from '@/store/plates';
import { comparisonOf, readSnapshot, takeMeasure } from '@/store/snapshot';
import type { Client } from './clients';
import { keep, original, type Doing, type Job, type NeedOf, type Result } from './job';
import type { MediaApi } from './media.worker';
import { asCoreError } from './plain-errors';
import { curveOf, proxyOf, sourcesOf, startsOf } from './sources';

/** Each take of no known slot gets the one that what is in it tells; what a person chose meanwhile stays. */
async function sortTakes(store: Store, project: string): Promise<void> {
  const snapshot = await readSnapshot(store, project);
  const slots = new Map(
    (snapshot?.takes ?? []).flatMap((take): [string, string][] => {
      const measure = snapshot && takeMeasure(snapshot, take);
      if (!measure || take.slot !== null) return [];
      const plate = plateFor(snapshot, take);
      const against = takeMeasure(snapshot, plate);
      if (plate && !against) return [];
      const sorted = sortTake(measure, against, comparisonOf(snapshot, take, plate));
      return sorted && 'slot' in sorted ? [[take.id, sorted.slot]] : [];
    }),
  );
  if (slots.size === 0) return;
  await change(
    store,
    project,
    'Sort the take',
    ({ takes }) =>
      takes.flatMap(({ id, slot }) =>
        slot === null && slots.has(id) ? [{ record: id, set: { slot: slots.get(id) } }] : [],
      ),
    true,
  );
}

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
  await sortTakes(store, snapshot.project.id);
};

/** @throws CoreError `absent` where something of it is no longer there */
async function measured(
  { store, snapshot }: Pick<Job, 'store' | 'snapshot'>,
  take: Take,
): Promise<MeasuredTake> {
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

/** Holds a take against all of its plate, or picture by picture against one whose camera moves. */
async function compared(
  { store, snapshot, need, progress }: Job<NeedOf<'compare'>>,
  api: Client<MediaApi>['api'],
) {
  const takes = [need.take, need.plate];
  if (!need.plate.moves) {
    const [take, plate] = await Promise.all(takes.map((one) => measured({ store, snapshot }, one)));
    return api.compareTake(take, plate);
  }
  const sources = await sourcesOf(
    store,
    takes.map(({ media }) => media),
    'originals',
  );
  const [take, plate] = takes.map(({ media }) => sources.find((source) => source.media === media));
  if (!take || !plate) return refuse('absent', 'This take has to be measured again. Bring it in again.');
  return api.compareRepeat([take, plate], progress);
}

export const compareTakes: Doing<'compare'> = async (job, api) => {
  const { need } = job;
  const comparison = await compared(job, api).catch((error: unknown) => {
    // Sizes that differ are a finding of their own, from the measures themselves: nothing more is to be said.
    if (asCoreError(error).code !== 'take.size') throw error;
    return refuse('take.size', '');
  });
  await keep(job, need.take.id, [{ key: need.key, value: { method: 'comparison', comparison } }]);
  if (need.take.slot === null) await sortTakes(job.store, job.snapshot.project.id);
};

/** Puts a clean plate together and keeps it as a file like any other, with how far it can be trusted. */
export const makePlate: Doing<'plate'> = async (job, api) => {
  const { store, snapshot, need, progress } = job;
  const { take, from } = need;
  const project = snapshot.project.id;
  const all = await Promise.all(
    from.map(async (one) => ({
      blob: await original(store, one.media),
      take: await measured(job, one),
      matrix: one.matrix,
    })),
  );
  // Pictures of one size alone can be laid on one another: that of most takes, the first of them first.
  const sizeOf = ({ take: { size } }: (typeof all)[number]) => `${size.width} × ${size.height}`;
  const like = (one: (typeof all)[number]) => all.filter((other) => sizeOf(other) === sizeOf(one));
  const sources = all.map(like).reduce((most, some) => (some.length > most.length ? some : most), []);
  const { film, doubt, takes } = await api.buildPlate(sources, snapshot.project.rate, progress);
  const probe = await api.probeFile(film);
  await store.transaction('rw', store.media, store.writes, store.originals, async () => {
    await store.originals.put({ id: take.media, blob: film });
    await store.writeRows('media', [
      {
        id: take.media,
        project,
        name: `${take.name}.${film.type === mimeOf.webm ? 'webm' : 'mp4'}`,
        type: film.type,
        size: film.size,
        fingerprint: take.media,
        place: 'blob',
        probe,
        problem: null,
        created: Date.now(),
      },
    ]);
  });
  await change(
    store,
    project,
    'Put the plate together',
    [{ record: take.id, set: { 'made.doubt': doubt, 'made.takes': takes } }],
    true,
  );
};

export const takeFilmApart: Doing<'apart'> = async (job, api) => {
  const { store, need, progress } = job;
  const { film, times } = await proxyOf(store, need.take);
  const found = await api.takeApart(film, times, progress);
  await keep(job, need.take.media, [{ key: need.key, value: { method: 'apart', ...found } }]);
};

/** Looks for who stands in a take. */
export const findWho: Doing<'bodies'> = async (job, api) => {
  const { store, need, progress } = job;
  const { film, times } = await proxyOf(store, need.take);
  const bodies = await api.findBodies(film, times, progress);
  await keep(job, need.take.media, [{ key: need.key, value: { method: 'bodies', bodies } }]);
};
