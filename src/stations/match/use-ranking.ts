'use client';
import { useEffect, useMemo, useState } from 'react';
import type { PairWeights, RankedPair, TakeMeasures } from '@/core/footage/pairs';
import { sharedList } from '@/core/remember';
import { useServices } from '@/ui/bench-context';
import { openPairs } from '@/workers/clients';

/** Pairs by the ids of their takes, the best first. */
type Ranked = ReadonlyMap<string, RankedPair>;

const none: Ranked = new Map();

/** A list that stays the same one for as long as its entries do. */
function useShared<Entry>(now: Entry[]): Entry[] {
  const [kept, keep] = useState(now);
  const shared = sharedList(kept, now);
  if (shared !== kept) keep(shared);
  return shared;
}

/**
 * The pairs of takes for two slots, ranked beside the page: many of them take seconds.
 * @returns `ranking` while what is asked for is being ranked; what was ranked before stands until then
 */
export function useRanking(
  ones: TakeMeasures[],
  others: TakeMeasures[],
  weights: PairWeights,
  by: readonly (keyof PairWeights)[],
): { ranked: Ranked; ranking: boolean } {
  const { attempt } = useServices();
  const [firsts, seconds] = [useShared(ones), useShared(others)];
  const task = useMemo(
    () => (firsts.length > 0 && seconds.length > 0 ? { firsts, seconds, weights, by } : null),
    [firsts, seconds, weights, by],
  );
  const [known, setKnown] = useState<{ task: unknown; ranked: Ranked }>({ task: null, ranked: none });
  useEffect(() => {
    if (!task) return;
    const worker = openPairs();
    void attempt(async () => {
      try {
        const asked = worker.api.rankPairs(task.firsts, task.seconds, task.weights, task.by);
        const pairs = await worker.orEnded(asked);
        if (pairs)
          setKnown({ task, ranked: new Map(pairs.map((pair) => [`${pair.a} ${pair.b}`, pair] as const)) });
      } catch (error) {
        setKnown({ task, ranked: none });
        throw error;
      } finally {
        worker.end();
      }
    });
    return () => worker.end();
  }, [attempt, task]);
  return task ? { ranked: known.ranked, ranking: known.task !== task } : { ranked: none, ranking: false };
}
