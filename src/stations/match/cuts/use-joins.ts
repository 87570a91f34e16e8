'use client';
import { useEffect, useRef, useState } from 'react';
import { refuse } from '@/core/error';
import type { JoinsWanted } from '@/core/footage/found-joins';
import type { Take } from '@/core/model/records';
import type { Source } from '@/media/footage';
import type { FoundJoins } from '@/media/find-joins';
import { useServices } from '@/ui/bench-context';
import { callback, openMedia } from '@/workers/clients';
import { sourcesOf } from '@/workers/sources';

/** Two takes, which may be one, and how the first is to go over into the second. */
export type Asked = JoinsWanted & { first: Take; second: Take };

/** Joins that were found, of what was asked. */
export type Joins = FoundJoins & { asked: Asked; sources: readonly [Source, Source] };

/** Finds the joins of two takes when asked to. */
export function useJoins() {
  const { store } = useServices();
  const [share, setShare] = useState<number | null>(null);
  const [joins, setJoins] = useState<Joins | null>(null);
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);
  return {
    /** how far looking is; null while nothing is looked for */
    share,
    joins,
    cancel: () => stop.current(),
    find: async (asked: Asked): Promise<void> => {
      const { first, second, ...wanted } = asked;
      const found = await sourcesOf(store, [first.media, second.media], 'proxies');
      const [one, other] = [first, second].map(({ media }) => found.find((source) => source.media === media));
      if (!one || !other)
        return refuse(
          'not-measured',
          'One of these takes is still being measured, or its file is not here. Wait until it is measured, or bring it in again.',
        );
      const media = openMedia();
      let isOver = false;
      const ended = new Promise<null>((resolve) => {
        stop.current = () => {
          media.end();
          resolve(null);
        };
      });
      setShare(0);
      setJoins(null);
      try {
        const tell = callback((part: number) => isOver || setShare(part));
        const answer = await Promise.race([media.api.findJoins([one, other], wanted, tell), ended]);
        if (answer) setJoins({ ...answer, asked, sources: [one, other] });
      } finally {
        isOver = true;
        stop.current();
        setShare(null);
      }
    },
  };
}
