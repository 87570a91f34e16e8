'use client';
import { useEffect, useState } from 'react';
import type { Region } from '@/core/geometry/region';
import type { Take } from '@/core/model/records';
import type { PartMotion } from '@/media/region-motion';
import { useServices } from '@/ui/bench-context';
import { callback, openMedia } from '@/workers/clients';
import { sourcesOf } from '@/workers/sources';

/** What moves in a part of some takes, of each in their order; `share` tells how far looking is, and is null once that is over. */
export type LookedAt = { found: readonly (PartMotion | null)[]; share: number | null };

const nothing: LookedAt = { found: [], share: null };

/** Looks at a part of two takes' pictures. @param region null for all of them, which is known */
export function usePartMotion(first: Take, second: Take, region: Region | null): LookedAt {
  const { store, attempt } = useServices();
  const key = region && JSON.stringify([first.media, second.media, region]);
  const [known, setKnown] = useState<{ key: string | null } & LookedAt>({ key: null, ...nothing });
  useEffect(() => {
    if (!key) return;
    const [one, other, part] = JSON.parse(key) as [string, string, Region];
    const media = openMedia();
    let here = true;
    void attempt(async () => {
      const found: (PartMotion | null)[] = [];
      try {
        const sources = await sourcesOf(store, [one, other], 'proxies');
        for (const id of [one, other]) {
          const source = sources.find((each) => each.media === id);
          const tell = callback(
            (share: number) => here && setKnown({ key, found: [], share: (found.length + share) / 2 }),
          );
          found.push(source ? await media.orEnded(media.api.motionIn(source, part, tell)) : null);
        }
      } finally {
        if (here) setKnown({ key, found, share: null });
        here = false;
        media.end();
      }
    });
    return () => {
      here = false;
      media.end();
    };
  }, [store, attempt, key]);
  if (!key) return nothing;
  return known.key === key ? known : { found: [], share: 0 };
}
