/**
 * How long the order of filming takes to answer after an edit, against one drawn frame: `npm run bench:order`.
 * 60 shots in 8 setups, 3 sets of clothes, 40 rules, over 200 random plans that have an order.
 */
import { orderJobs } from '../src/core/plan/order';
import type { Job, Rule } from '../src/core/plan/rule';
import { seeded } from '../src/core/random';

const frame = 1000 / 60;
const random = seeded(5);
const pick = (count: number) => Math.floor(random() * count);

function somePlan(): { jobs: Job[]; rules: Rule[] } {
  const jobs = Array.from({ length: 60 }, (_, index): Job => ({
    id: `shot ${index}`,
    setup: `setup ${pick(8)}`,
    clothes: ['', 'first', 'second', 'third'][pick(4)],
    minutes: 5 + pick(20),
    rank: index,
  }));
  const taken = new Set<number>();
  const rules = Array.from({ length: 40 }, (_, index): Rule => {
    const first = pick(59);
    const tight = index < 6 && !taken.has(first);
    if (tight) taken.add(first);
    const then = tight ? first + 1 : first + 1 + pick(59 - first);
    return { first: `shot ${first}`, then: `shot ${then}`, tight, why: 'needs' };
  });
  return { jobs, rules };
}

const plans = Array.from({ length: 220 }, somePlan);
const times: number[] = [];
let [proved, answered, spared] = [0, 0, 0];
for (const [index, { jobs, rules }] of plans.entries()) {
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
const at = (share: number) => times[Math.min(times.length - 1, Math.floor(share * times.length))];
console.log(
  `${answered} plans answered, ${proved} proved best; ${spared} changes of setup fewer in ${answered / 10} of them with fifty times the effort`,
);
console.log(
  `frames until the answer: median ${(at(0.5) / frame).toFixed(2)}, 95 % ${(at(0.95) / frame).toFixed(2)}, worst ${(at(1) / frame).toFixed(2)} (allowed 1)`,
);
