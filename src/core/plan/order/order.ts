import { conflictOf } from './conflict';
import type { Job, Rule } from './rule';
import { search, type Block } from './search';

/** What changes cost, in minutes: they only matter for windows; fewest setups, then fewest clothes, always win. */
export type Changes = { setUp: number; changing: number };

export type Order = {
  ids: string[];
  setups: number;
  clothes: number;
  /** how many jobs cannot be done within their window */
  late: number;
  /** true where it was shown that no order needs fewer changes */
  proved: boolean;
};

/** Rows of jobs that follow one another with nothing between. */
function blocksOf(jobs: readonly Job[], rules: readonly Rule[]): Block[] {
  const next = new Map<string, string>();
  const held = new Set<string>();
  for (const rule of rules) {
    if (!rule.tight) continue;
    next.set(rule.first, rule.then);
    held.add(rule.then);
  }
  const byId = new Map(jobs.map((job) => [job.id, job]));
  const blocks: Block[] = [];
  const blockOf = new Map<string, number>();
  for (const head of jobs) {
    if (held.has(head.id)) continue;
    const row: Job[] = [];
    for (let at: string | undefined = head.id; at !== undefined; at = next.get(at)) {
      const job = byId.get(at);
      if (job) row.push(job);
      blockOf.set(at, blocks.length);
    }
    blocks.push({ jobs: row, rank: Math.min(...row.map((job) => job.rank)), before: [], waits: 0 });
  }
  const linked = new Set<number>();
  for (const rule of rules) {
    const [from, to] = [blockOf.get(rule.first), blockOf.get(rule.then)];
    if (from === undefined || to === undefined || from === to || linked.has(from * blocks.length + to))
      continue;
    linked.add(from * blocks.length + to);
    blocks[from].before.push(to);
    blocks[to].waits++;
  }
  return blocks;
}

/**
 * Puts jobs in an order that obeys every rule with the fewest changes of setup, and of those the fewest changes
 * of clothes; where nothing else decides, by rank.
 * @param effort how many states may be looked at before the best answer so far is given
 * @returns the order, or the smallest set of rules that contradict each other
 * @see Hart, Nilsson & Raphael 1968 (best-first search with an admissible bound)
 */
export function orderJobs(
  jobs: readonly Job[],
  rules: readonly Rule[],
  changes: Changes = { setUp: 30, changing: 10 },
  effort = 40,
): { order: Order } | { conflict: Rule[] } {
  const known = new Set(jobs.map((job) => job.id));
  const valid = rules.filter(({ first, then }) => known.has(first) && known.has(then));
  const conflict = conflictOf(valid);
  if (conflict) return { conflict };
  return { order: search(blocksOf(jobs, valid), changes, effort) };
}
