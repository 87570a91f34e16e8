'use client';
import { useEffect, useSyncExternalStore } from 'react';
import type { OrderTask } from '@/core/plan/order/schedule';
import { learnOrder, onLearned, orderKey, ordersLearned, planOf, type Plan } from '@/store/plan';
import type { Snapshot } from '@/store/snapshot';
import { openPlan } from '@/workers/clients';

/** States that the worker looks at: about half a second. */
const effort = 2000;
const asked = new Set<string>();

/** The plan of a snapshot. Where its order is not proved to be the best, a worker goes on looking. */
export function usePlan(snapshot: Snapshot): Plan {
  useSyncExternalStore(onLearned, ordersLearned, ordersLearned);
  const plan = planOf(snapshot);
  const { task, order } = plan.schedule;
  const key = order && !order.proved ? orderKey(task) : null;
  useEffect(() => {
    if (!key || asked.has(key)) return;
    const worker = openPlan();
    const look = async () => {
      const { jobs, rules, changes } = JSON.parse(key) as OrderTask;
      const found = await worker.api.orderJobs(jobs, rules, changes, effort);
      asked.add(key);
      if ('order' in found) learnOrder(key, found.order);
      worker.end();
    };
    // A later edit asks anew; the first answer stands until then.
    void look().catch(() => worker.end());
    return () => worker.end();
  }, [key]);
  return plan;
}
