import { Heap } from './heap';
import type { Changes, Order } from './order';
import { seeded } from '../../random';
import type { Job } from './rule';

/** Jobs that are done in one go. `before` are the blocks that wait for this one, `waits` how many it waits for. */
export type Block = { jobs: Job[]; rank: number; before: number[]; waits: number };

/** Setups and clothes count by number; clothes in sets as bits, 0 for none. */
type Entry = { setup: number; clothes: number; plain: boolean };

type State = {
  /** for each block how many it still waits for, −1 once done; then jobs still to do, by setup and clothes */
  open: Int16Array;
  /** names the set of blocks done */
  mark: number;
  left: number;
  setup: number;
  clothes: number;
  minutes: number;
  setups: number;
  clothesChanges: number;
  late: number;
  /** blocks done since the state before */
  taken: number[];
  from: State | null;
  bound: number;
};

// One late job outweighs every change, one change of setup outweighs all changes of clothes.
const lateWeight = 1e9;
const setupWeight = 1e4;
const costOf = ({ late, setups, clothesChanges }: Pick<State, 'late' | 'setups' | 'clothesChanges'>) =>
  late * lateWeight + setups * setupWeight + clothesChanges;

const bitsIn = (set: number): number => {
  let count = 0;
  for (let left = set; left !== 0; left &= left - 1) count++;
  return count;
};

type Prepared = {
  blocks: readonly Block[];
  /** setup of each job of each block, and its clothes as one bit */
  jobs: { setup: number; clothes: number; job: Job }[][];
  entry: Entry[];
  byRank: number[];
  /** blocks with a window, and those that they wait for */
  urgent: boolean[];
  windows: boolean;
  setups: number;
  /** sets of clothes, and one for none */
  kinds: number;
  /** a random number for each block: the sum of those done names the set (Zobrist 1970) */
  marks: number[];
  /** blocks that lie in one setup alone, by setup and rank */
  inSetup: number[][];
};

/** Everything about the blocks that stays the same during a search. Clothes beyond 30 share the last bit. */
function prepare(blocks: readonly Block[]): Prepared {
  const numbered = (of: (job: Job) => string) => [...new Set(blocks.flatMap(({ jobs }) => jobs.map(of)))];
  const setups = numbered((job) => job.setup);
  const clothes = numbered((job) => job.clothes).filter(Boolean);
  const bit = (name: string) => (name ? 1 << Math.min(29, clothes.indexOf(name)) : 0);
  const jobs = blocks.map((block) =>
    block.jobs.map((job) => ({ setup: setups.indexOf(job.setup), clothes: bit(job.clothes), job })),
  );
  const entry = jobs.map((row): Entry => {
    const worn = row.reduce((set, one) => set | one.clothes, 0);
    const plain = bitsIn(worn) <= 1 && row.every((one) => one.setup === row[0].setup);
    return { setup: row[0].setup, clothes: worn, plain };
  });
  const byRank = blocks.map((_, index) => index).sort((a, b) => blocks[a].rank - blocks[b].rank);
  const urgent = blocks.map((block) => block.jobs.some((job) => job.window));
  const windows = urgent.some(Boolean);
  for (let changed = windows; changed;) {
    changed = false;
    blocks.forEach((block, index) => {
      if (urgent[index] || !block.before.some((next) => urgent[next])) return;
      urgent[index] = true;
      changed = true;
    });
  }
  const random = seeded(1);
  const inSetup = setups.map((_, setup) =>
    byRank.filter((index) => entry[index].plain && entry[index].setup === setup),
  );
  return {
    blocks,
    jobs,
    entry,
    byRank,
    urgent,
    windows,
    setups: setups.length,
    kinds: Math.min(30, clothes.length) + 1,
    inSetup,
    marks: blocks.map(() => Math.floor(random() * 2 ** 50)),
  };
}

/** Where jobs of a setup in some clothes are counted. */
const slotOf = (setup: number, clothes: number, kinds: number) =>
  setup * kinds + (clothes === 0 ? 0 : 32 - Math.clz32(clothes));

/** Does one block: time, changes, who may follow. */
function take({ blocks, jobs, kinds, marks }: Prepared, state: State, index: number, changes: Changes): void {
  for (const { setup, clothes, job } of jobs[index]) {
    if (setup !== state.setup) {
      if (state.setup >= 0) state.setups++;
      state.minutes += changes.setUp;
      state.setup = setup;
    }
    if (clothes !== 0 && clothes !== state.clothes) {
      if (state.clothes !== 0) {
        state.clothesChanges++;
        state.minutes += changes.changing;
      }
      state.clothes = clothes;
    }
    if (job.window) state.minutes = Math.max(state.minutes, job.window.from);
    state.minutes += job.minutes;
    state.open[blocks.length + slotOf(setup, clothes, kinds)]--;
    if (job.window && state.minutes > job.window.until + 1e-9) state.late++;
  }
  state.open[index] = -1;
  state.mark = (state.mark + marks[index]) % 2 ** 50;
  state.left--;
  state.taken.push(index);
  for (const next of blocks[index].before) state.open[next]--;
}

const free = (state: State, index: number) => state.open[index] === 0;

/** Does everything that costs no change: without windows that never makes an order worse. */
function absorb(prepared: Prepared, state: State, changes: Changes, urgentOnly: boolean): void {
  const { entry, inSetup, urgent } = prepared;
  for (let again = true; again;) {
    again = false;
    for (const index of inSetup[state.setup]) {
      if (!free(state, index) || (urgentOnly && !urgent[index])) continue;
      const { clothes } = entry[index];
      if (clothes !== 0 && clothes !== state.clothes) continue;
      take(prepared, state, index, changes);
      again = true;
    }
  }
}

/**
 * Changes that must still come, at least: every other setup once; within each setup one change for every
 * further set of clothes; and one for each group of setups that shares no clothes with the others.
 */
function boundOf({ blocks, setups, kinds }: Prepared, state: State): number {
  const worn = new Int32Array(setups);
  let others = 0;
  for (let setup = 0; setup < setups; setup++) {
    let wanted = false;
    for (let kind = 0; kind < kinds; kind++) {
      if (state.open[blocks.length + setup * kinds + kind] === 0) continue;
      wanted = true;
      if (kind > 0) worn[setup] |= 1 << (kind - 1);
    }
    if (wanted && setup !== state.setup) others++;
  }
  if (state.setup < 0) others = Math.max(0, others - 1);
  else worn[state.setup] |= state.clothes;
  let within = 0;
  const groups: number[] = [];
  for (const set of worn) {
    if (set === 0) continue;
    within += bitsIn(set) - 1;
    let joined = set;
    for (let at = groups.length - 1; at >= 0; at--) {
      if ((groups[at] & joined) === 0) continue;
      joined |= groups[at];
      groups.splice(at, 1);
    }
    groups.push(joined);
  }
  return others * setupWeight + within + Math.max(0, groups.length - 1);
}

/** One state for every group of blocks that could be turned to; within a group the order changes nothing. */
function successors(prepared: Prepared, state: State, changes: Changes): State[] {
  const { entry, byRank, urgent, windows } = prepared;
  const seen = new Set<number>();
  const found: State[] = [];
  const follow = (index: number, urgentOnly: boolean) => {
    const next: State = {
      open: state.open.slice(),
      mark: state.mark,
      left: state.left,
      setup: state.setup,
      clothes: state.clothes,
      minutes: state.minutes,
      setups: state.setups,
      clothesChanges: state.clothesChanges,
      late: state.late,
      taken: [],
      from: state,
      bound: 0,
    };
    take(prepared, next, index, changes);
    absorb(prepared, next, changes, urgentOnly);
    next.bound = costOf(next) + boundOf(prepared, next);
    found.push(next);
  };
  for (const index of byRank) {
    if (!free(state, index)) continue;
    const { plain, setup, clothes } = entry[index];
    const group = plain ? setup * 2 ** 31 + clothes : -1 - index;
    if (!seen.has(group)) follow(index, false);
    seen.add(group);
    if (!windows || !urgent[index] || seen.has(group + 0.5)) continue;
    seen.add(group + 0.5);
    follow(index, true);
  }
  return found;
}

const better = (a: State, b: State) => a.bound - b.bound || a.left - b.left;

/**
 * Finds the order of blocks with the fewest changes. Rules must not contradict each other.
 * First a few promising ways are followed to their ends, then the best bound is looked at until nothing better
 * can be left or `effort` states have been looked at.
 */
export function search(blocks: readonly Block[], changes: Changes, effort: number): Order {
  const prepared = prepare(blocks);
  const start: State = {
    open: new Int16Array(blocks.length + prepared.setups * prepared.kinds),
    mark: 0,
    left: blocks.length,
    setup: -1,
    clothes: 0,
    minutes: 0,
    setups: 0,
    clothesChanges: 0,
    late: 0,
    taken: [],
    from: null,
    bound: 0,
  };
  blocks.forEach((block, index) => (start.open[index] = block.waits));
  for (const row of prepared.jobs)
    for (const { setup, clothes } of row)
      start.open[blocks.length + slotOf(setup, clothes, prepared.kinds)]++;
  start.bound = boundOf(prepared, start);
  const keyOf = ({ setup, clothes, minutes, mark }: State) =>
    `${mark} ${setup} ${clothes} ${prepared.windows ? minutes : ''}`;

  /** Down to an end, with the `width` most promising states at each step. */
  const beam = (width: number): State => {
    let row = [start];
    let best: State | null = start.left === 0 ? start : null;
    while (row.length > 0) {
      const next = new Map<string, State>();
      for (const state of row.flatMap((one) => successors(prepared, one, changes))) {
        if (state.left === 0) {
          if (!best || costOf(state) < costOf(best)) best = state;
          continue;
        }
        const key = keyOf(state);
        const known = next.get(key);
        if (!known || better(state, known) < 0) next.set(key, state);
      }
      const limit = best ? costOf(best) : Infinity;
      row = [...next.values()]
        .filter((state) => state.bound < limit)
        .sort(better)
        .slice(0, width);
    }
    return best ?? start;
  };

  let best = beam(1);
  const isBest = () => costOf(best) <= start.bound;
  if (!isBest()) {
    const wider = beam(Math.max(2, Math.round(effort / 30)));
    if (costOf(wider) < costOf(best)) best = wider;
  }
  let proved = isBest();
  const open = new Heap(better);
  open.push(start);
  const cheapest = new Map<string, number>();
  for (let looked = 0; !proved && looked < effort; looked++) {
    const state = open.pop();
    if (!state || state.bound >= costOf(best)) {
      proved = true;
      break;
    }
    for (const next of successors(prepared, state, changes)) {
      if (next.bound >= costOf(best)) continue;
      if (next.left === 0) {
        best = next;
        continue;
      }
      const key = keyOf(next);
      if ((cheapest.get(key) ?? Infinity) <= costOf(next)) continue;
      cheapest.set(key, costOf(next));
      open.push(next);
    }
  }
  // With windows not every order is tried: only the bound itself is a proof then.
  const taken: number[] = [];
  for (let state: State | null = best; state; state = state.from) taken.unshift(...state.taken);
  return {
    ids: taken.flatMap((index) => blocks[index].jobs.map((job) => job.id)),
    setups: best.setups,
    clothes: best.clothesChanges,
    late: best.late,
    proved: prepared.windows ? isBest() : proved,
  };
}
