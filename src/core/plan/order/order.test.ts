import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { conflictOf } from './conflict';
import { orderJobs } from './order';
import type { Job, Rule } from './rule';

const changes = { setUp: 30, changing: 10 };
const job = (id: string, setup: string, clothes = '', more: Partial<Job> = {}): Job => ({
  id,
  setup,
  clothes,
  minutes: 5,
  rank: 0,
  ...more,
});
const rule = (first: string, then: string, tight = false): Rule => ({ first, then, tight, why: 'needs' });

const orderOf = (jobs: readonly Job[], rules: readonly Rule[]) => {
  const found = orderJobs(jobs, rules, changes);
  if ('conflict' in found) throw new Error('conflict');
  return found.order;
};
const obeys = (ids: readonly string[], rules: readonly Rule[]) =>
  rules.every(({ first, then, tight }) => {
    const [a, b] = [ids.indexOf(first), ids.indexOf(then)];
    return tight ? b === a + 1 : a < b;
  });
function countChanges(ids: readonly string[], jobs: readonly Job[]) {
  let [setup, clothes, setups, changed] = ['', '', 0, 0];
  for (const id of ids) {
    const one = jobs.find((other) => other.id === id) as Job;
    if (setup && one.setup !== setup) setups++;
    setup = one.setup;
    if (one.clothes && clothes && one.clothes !== clothes) changed++;
    clothes = one.clothes || clothes;
  }
  return { setups, clothes: changed };
}
function* permutations<T>(items: readonly T[]): Generator<T[]> {
  if (items.length === 0) yield [];
  for (let index = 0; index < items.length; index++) {
    const rest = items.filter((_, other) => other !== index);
    for (const tail of permutations(rest)) yield [items[index], ...tail];
  }
}

/** Plans with rules that some order obeys: they are read off a random order. */
const possiblePlan = (most: number) =>
  fc.integer({ min: 1, max: most }).chain((count) =>
    fc
      .tuple(
        fc.array(fc.tuple(fc.constantFrom('a', 'b', 'c'), fc.constantFrom('', 'red', 'blue')), {
          minLength: count,
          maxLength: count,
        }),
        fc.array(fc.tuple(fc.nat(count - 1), fc.nat(count - 1), fc.boolean()), { maxLength: count }),
      )
      .map(([kinds, pairs]) => {
        const jobs = kinds.map(([setup, clothes], index) => job(`j${index}`, setup, clothes));
        const rules = pairs
          .filter(([a, b]) => a !== b)
          .map(([a, b, tight]) => {
            const [first, then] = a < b ? [a, b] : [b, a];
            return rule(`j${first}`, `j${then}`, tight && then === first + 1);
          });
        return { jobs, rules };
      }),
  );

describe('the order of filming', () => {
  it('obeys every rule of random plans and films everything once', () => {
    fc.assert(
      fc.property(possiblePlan(24), ({ jobs, rules }) => {
        const { ids } = orderOf(jobs, rules);
        expect([...ids].sort()).toEqual(jobs.map((one) => one.id).sort());
        expect(obeys(ids, rules)).toBe(true);
      }),
      { numRuns: 300 },
    );
  });

  it('needs no more changes than the best of all orders, by trying all of them', () => {
    fc.assert(
      fc.property(possiblePlan(6), ({ jobs, rules }) => {
        const found = orderOf(jobs, rules);
        let best = Infinity;
        for (const ids of permutations(jobs.map((one) => one.id))) {
          if (!obeys(ids, rules)) continue;
          const count = countChanges(ids, jobs);
          best = Math.min(best, count.setups * 100 + count.clothes);
        }
        expect(found.setups * 100 + found.clothes).toBe(best);
        expect(countChanges(found.ids, jobs)).toEqual({ setups: found.setups, clothes: found.clothes });
        expect(found.proved).toBe(true);
      }),
      { numRuns: 120 },
    );
  });

  it('goes by rank where nothing else decides', () => {
    const jobs = [
      job('c', 'a', '', { rank: 3 }),
      job('a', 'a', '', { rank: 1 }),
      job('b', 'a', '', { rank: 2 }),
    ];
    expect(orderOf(jobs, []).ids).toEqual(['a', 'b', 'c']);
  });

  it('films what has a window within it, even for another change', () => {
    const jobs = [
      job('bench', 'inside', '', { minutes: 100 }),
      job('bench again', 'inside', '', { minutes: 100, rank: 1 }),
      job('yard', 'outside', '', { minutes: 20, rank: 2, window: { from: 0, until: 60 } }),
    ];
    const found = orderOf(jobs, []);
    expect(found.ids[0]).toBe('yard');
    expect(found.late).toBe(0);
    const never = orderOf([{ ...jobs[2], window: { from: 0, until: 10 } }], []);
    expect(never.late).toBe(1);
  });

  it('goes without complaint through nothing, and through 500 shots', () => {
    expect(orderOf([], []).ids).toEqual([]);
    const jobs = Array.from({ length: 500 }, (_, index) =>
      job(`j${index}`, `s${index % 12}`, ['', 'red', 'blue'][index % 3], { rank: index }),
    );
    const rules = jobs.slice(1).map((one, index) => rule(`j${Math.floor(index / 2)}`, one.id));
    const { ids } = orderOf(jobs, rules);
    expect(ids).toHaveLength(500);
    expect(obeys(ids, rules)).toBe(true);
  });
});

describe('rules that contradict each other', () => {
  it('names the smallest set', () => {
    const long = [rule('a', 'b'), rule('b', 'c'), rule('c', 'd'), rule('d', 'a')];
    const short = [rule('x', 'y'), rule('y', 'x')];
    expect(conflictOf([...long, ...short])).toHaveLength(2);
    expect(conflictOf(long)).toHaveLength(4);
    expect(conflictOf([rule('a', 'b', true), rule('a', 'x'), rule('x', 'b')])).toHaveLength(3);
    expect(conflictOf([rule('a', 'b', true), rule('c', 'b', true)])).toHaveLength(2);
    expect(conflictOf([rule('a', 'b', true), rule('b', 'a', true)])).toHaveLength(2);
    expect(conflictOf([rule('a', 'b', true), rule('b', 'c', true), rule('c', 'a')])).toHaveLength(3);
    expect(conflictOf([rule('a', 'b', true), rule('a', 'b')])).toBeNull();
  });

  it('finds a conflict exactly where no order obeys, and a set from which none can be spared', () => {
    const plan = fc.array(fc.tuple(fc.nat(4), fc.nat(4), fc.boolean()), { minLength: 1, maxLength: 7 });
    const ids = ['j0', 'j1', 'j2', 'j3', 'j4'];
    const possible = (rules: readonly Rule[]) => {
      for (const order of permutations(ids)) if (obeys(order, rules)) return true;
      return false;
    };
    fc.assert(
      fc.property(plan, (pairs) => {
        const rules = pairs.filter(([a, b]) => a !== b).map(([a, b, tight]) => rule(`j${a}`, `j${b}`, tight));
        const conflict = conflictOf(rules);
        expect(conflict === null).toBe(possible(rules));
        if (!conflict) return;
        expect(possible(conflict)).toBe(false);
        for (const spared of conflict) expect(possible(conflict.filter((one) => one !== spared))).toBe(true);
      }),
      { numRuns: 400 },
    );
  });
});
