/**
 * How long the order of filming takes to answer after an edit, against one drawn frame: `npm run bench:order`.
 * 60 shots in 8 setups, 3 sets of clothes, 40 rules; 200 random plans of each kind.
 */
import { orderJobs } from '../src/core/plan/order/order';
import type { Job, Rule } from '../src/core/plan/order/rule';
import { seeded } from '../src/core/random';

const frame = 1000 / 60;
const random = seeded(5);
const pick = (count: number) => Math.floor(random() * count);

/** A plan that has an order, since every rule leads from an earlier to a later shot. */
function somePlan(within: boolean): { jobs: Job[]; rules: Rule[] } {
  const jobs = Array.from({ length: 60 }, (_, index): Job => ({
    id: `shot ${index}`,
    setup: `setup ${within ? Math.floor(index / 7.5) : pick(8)}`,
    clothes: ['', 'first', 'second', 'third'][pick(4)],
    minutes: 5 + pick(20),
    rank: index,
  }));
  const taken = new Set<number>();
  const rules = Array.from({ length: 40 }, (_, index): Rule => {
    const first = pick(59);
    const tight = index < 6 && !taken.has(first);
    if (tight) taken.add(first);
    const reach = within ? Math.min(60 - first, 5) : 60 - first;
    const then = tight ? first + 1 : first + 1 + pick(reach - 1);
    return { first: `shot ${first}`, then: `shot ${then}`, tight, why: 'needs' };
  });
  return { jobs, rules };
}

function measure(name: string, within: boolean): void {
  const times: number[] = [];
  let [proved, answered, spared] = [0, 0, 0];
  for (let index = 0; index < 220; index++) {
    const { jobs, rules } = somePlan(within);
    const start = performance.now();
    const found = orderJobs(jobs, rules);
    const took = performance.now() - start;
    // The first plans only warm the engine up.
    if (index < 20 || 'conflict' in found) continue;
    times.push(took);
    answered++;
    if (found.order.proved) proved++;
    const longer = index % 10 === 0 ? orderJobs(jobs, rules, undefined, 2000) : found;
    if ('order' in longer) spared += found.order.setups - longer.order.setups;
  }
  times.sort((a, b) => a - b);
  const at = (share: number) =>
    (times[Math.min(times.length - 1, Math.floor(share * times.length))] / frame).toFixed(2);
  console.log(`${name}: ${answered} plans answered, ${proved} proved best at once`);
  console.log(`  frames until the answer: median ${at(0.5)}, 95 % ${at(0.95)}, worst ${at(1)} (allowed 1)`);
  console.log(
    `  the worker's further search saves ${((spared * 10) / answered).toFixed(1)} changes of setup a plan`,
  );
}

measure('rules within a setup and to the next', true);
measure('rules between any shots', false);
