'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import { refuse } from '@/core/error';
import type { JoinsWanted } from '@/core/footage/found-joins';
import type { Take } from '@/core/model/records';
import type { Source } from '@/media/footage';
import type { FoundJoins } from '@/media/find-joins';
import type { Store } from '@/store/db';
import { joinsKey, lastJoins } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { callback, openMedia } from '@/workers/clients';
import { sourcesOf } from '@/workers/sources';

/** Two takes, which may be one, and how the first is to go over into the second. */
export type Asked = JoinsWanted & { first: Take; second: Take };

/** Joins that were found, of what was asked. */
export type Joins = FoundJoins & { asked: Asked };

/** The files of two takes. @throws CoreError `not-measured` where one is not here, or not measured */
export async function filesOf(store: Store, first: Take, second: Take): Promise<readonly [Source, Source]> {
  const found = await sourcesOf(store, [first.media, second.media], 'proxies');
  const [one, other] = [first, second].map(({ media }) => found.find((source) => source.media === media));
  if (one && other) return [one, other];
  return refuse(
    'not-measured',
    'One of these takes is still being measured, or its file is not here. Wait until it is measured, or bring it in again.',
  );
}

/** The joins that were found last, as long as both takes are there; they outlive a reload. */
function useLastJoins(): Joins | null {
  const snapshot = useData((data) => data.snapshot);
  const last = lastJoins(snapshot);
  const byId = (id: string | undefined) => snapshot.takes.find((take) => take.id === id);
  const [first, second] = [byId(last?.asked.first), byId(last?.asked.second)];
  return useMemo(() => {
    if (!last || !first || !second) return null;
    const { asked, found, sheet, pictures } = last;
    return { ...found, sheet, pictures, asked: { ...asked, first, second } };
  }, [last, first, second]);
}

/** Finds the joins of two takes when asked to. */
export function useJoins() {
  const { store } = useServices();
  const project = useData((data) => data.snapshot.project.id);
  const [share, setShare] = useState<number | null>(null);
  const joins = useLastJoins();
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);
  return {
    /** how far looking is; null while nothing is looked for */
    share,
    joins,
    cancel: () => stop.current(),
    find: async (asked: Asked): Promise<void> => {
      const { first, second, ...wanted } = asked;
      const sources = await filesOf(store, first, second);
      const media = openMedia();
      let isOver = false;
      stop.current = media.end;
      setShare(0);
      try {
        const tell = callback((part: number) => isOver || setShare(part));
        const answer = await media.orEnded(media.api.findJoins(sources, wanted, tell));
        if (!answer) return;
        const { sheet, pictures, ...found } = answer;
        const kept = { ...wanted, first: first.id, second: second.id };
        await store.writeRows('measures', [
          {
            key: joinsKey(project),
            project,
            subject: project,
            value: { method: 'joins', asked: kept, found, sheet, pictures },
          },
        ]);
      } finally {
        isOver = true;
        stop.current();
        setShare(null);
      }
    },
  };
}
