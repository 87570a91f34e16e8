'use client';
import { useEffect, useState, useSyncExternalStore } from 'react';
import type { OrderTask } from '@/core/plan/order/schedule';
import { learnOrder, onLearned, orderKey, ordersLearned, planOf, type Plan } from '@/store/plan';
import type { Snapshot } from '@/store/snapshot';
import { openPlan } from '@/workers/clients';

/** States that the worker looks at: about half a second. */
const effort = 2000;
const asked = new Set<string>();

/**
 * The plan of a snapshot. Where its order is not proved to be the best, a worker goes on looking.
 * @returns `searching` while it does
 */
export function usePlan(snapshot: Snapshot): { plan: Plan; searching: boolean } {
  useSyncExternalStore(onLearned, ordersLearned, ordersLearned);
  const plan = planOf(snapshot);
  const { task, order } = plan.schedule;
  const key = order && !order.proved ? orderKey(task) : null;
  const [answered, setAnswered] = useState<string | null>(null);
  useEffect(() => {
    if (!key || asked.has(key)) return;
    const worker = openPlan();
    const look = async () => {
      const { jobs, rules, changes } = JSON.parse(key) as OrderTask;
      const found = await worker.api.orderJobs(jobs, rules, changes, effort);
      if ('order' in found) learnOrder(key, found.order);
    };
    // A later edit asks anew; the first answer stands until then.
    void look()
      .catch(() => undefined)
      .finally(() => {
        asked.add(key);
        setAnswered(key);
        worker.end();
      });
    return () => worker.end();
  }, [key]);
  return { plan, searching: key !== null && key !== answered && !asked.has(key) };
}
