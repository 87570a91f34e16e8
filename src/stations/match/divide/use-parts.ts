'use client';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useMemo, useState } from 'react';
import type { ShotSheet } from '@/core/footage/cuts/shots';
import { partsIn, standsIn, type Divided, type PartsBy } from '@/core/footage/parts';
import { partKey } from '@/core/footage/take-parts';
import type { Take } from '@/core/model/records';
import { takeMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { callback, openMedia } from '@/workers/clients';

/** How loud a take is all along. `share` tells how far listening is, and is null once that is over. */
type Heard = { levels: Float32Array | null; share: number | null };

/** Listens to a take once. */
function useLevels(take: Take): Heard {
  const { store, attempt } = useServices();
  const silent = useData((data) => !data.snapshot.media.get(take.media)?.probe?.audio);
  const [heard, setHeard] = useState<Heard>({ levels: null, share: silent ? null : 0 });
  useEffect(() => {
    if (silent) return;
    const media = openMedia();
    let here = true;
    void attempt(async () => {
      let levels: Float32Array | null = null;
      try {
        const row = await store.originals.get(take.media);
        const tell = callback((share: number) => here && setHeard({ levels: null, share }));
        levels = row ? await media.orEnded(media.api.levelsOf(row.blob, tell)) : null;
      } finally {
        // A take that cannot be listened to is divided by what moves.
        if (here) setHeard({ levels, share: null });
        here = false;
        media.end();
      }
    });
    return () => {
      here = false;
      media.end();
    };
  }, [store, attempt, take.media, silent]);
  return heard;
}

/** What is known of a long take: how much moves in it, how loud it is, and its parts; null until that is there. */
export type Long = Divided & { times: Float64Array; moved: ArrayLike<number>; levels: Float32Array | null };

/** The parts of a long take. @param pause seconds from which on one has ended @param by what tells them, where music could */
export function useParts(
  take: Take,
  pause: number,
  by: PartsBy,
): { long: Long | null; share: number | null } {
  const { store } = useServices();
  const analysis = useData((data) => takeMeasure(data.snapshot, take)?.analysis ?? null);
  const { levels, share } = useLevels(take);
  const curves = useLiveQuery(
    () => store.curves.bulkGet([partKey('pictures', take), partKey('motion', take), partKey('camera', take)]),
    [store, take],
  );
  const long = useMemo((): Long | null => {
    const [pictures, motion, camera] = (curves ?? []).map((row) => row?.values);
    if (!pictures || !motion || !camera || !analysis || share !== null) return null;
    const times = Float64Array.from(pictures);
    const stands = standsIn(Float32Array.from(camera), analysis, times);
    return { ...partsIn({ times, moved: motion, stands, levels }, pause, by), times, moved: motion, levels };
  }, [curves, analysis, levels, share, pause, by]);
  return { long, share };
}

/** Small pictures of a take at some seconds; those of other seconds until they are there. */
export function usePicturesAt(take: Take, times: Float64Array | null, seconds: readonly number[]) {
  const { store, attempt } = useServices();
  const [found, setFound] = useState<{ sheet: ShotSheet; pictures: Blob } | null>(null);
  const key = JSON.stringify(seconds);
  useEffect(() => {
    const wanted = JSON.parse(key) as number[];
    if (!times || wanted.length === 0) return;
    const media = openMedia();
    void attempt(async () => {
      try {
        const row = await store.proxies.get(take.media);
        const sheet = row && (await media.orEnded(media.api.sheetAt(row.blob, times, wanted, 16)));
        if (sheet) setFound(sheet);
      } finally {
        media.end();
      }
    });
    return () => media.end();
  }, [store, attempt, take.media, times, key]);
  return found;
}
