import type { Changes, Order } from './order';
import type { Job } from './rule';

/** Jobs that are done in one go. `before` are the blocks that wait for this one, `waits` how many it waits for. */
export type Block = { jobs: Job[]; rank: number; before: number[]; waits: number };

type State = {
  done: Uint8Array;
  waits: Int16Array;
  left: number;
  setup: string;
  clothes: string;
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

const real = (block: Block) => block.jobs.filter((job) => !job.gate);
const clothesOf = (block: Block) => [...new Set(real(block).flatMap((job) => job.clothes || []))];

/** Everything about the blocks that stays the same during a search. */
function prepare(blocks: readonly Block[]) {
  const entry = blocks.map((block) => {
    const jobs = real(block);
    const setups = new Set(jobs.map((job) => job.setup));
    const clothes = clothesOf(block);
    const setup = jobs[0]?.setup ?? '';
    return {
      gate: jobs.length === 0,
      setup,
      setups,
      clothes,
      plain: setups.size <= 1 && clothes.length <= 1,
    };
  });
  const byRank = blocks.map((_, index) => index).sort((a, b) => blocks[a].rank - blocks[b].rank);
  // Blocks that something with a window waits for, and those themselves.
  const urgent = blocks.map((block) => block.jobs.some((job) => job.window));
  for (let changed = true; changed;) {
    changed = false;
    blocks.forEach((block, index) => {
      if (urgent[index] || !block.before.some((next) => urgent[next])) return;
      urgent[index] = true;
      changed = true;
    });
  }
  return { entry, byRank, urgent };
}

/** Finds the order of blocks with the fewest changes. Rules must not contradict each other. */
export function search(blocks: readonly Block[], changes: Changes, effort: number): Order {
  const { entry, byRank, urgent } = prepare(blocks);
  const windows = urgent.some(Boolean);

  /** Does one block: time, changes, who may follow. */
  const take = (state: State, index: number): void => {
    for (const job of blocks[index].jobs) {
      if (job.gate) continue;
      if (job.setup !== state.setup) {
        if (state.setup !== '') state.setups++;
        state.minutes += changes.setUp;
        state.setup = job.setup;
      }
      if (job.clothes && job.clothes !== state.clothes) {
        if (state.clothes !== '') {
          state.clothesChanges++;
          state.minutes += changes.changing;
        }
        state.clothes = job.clothes;
      }
      if (job.window) state.minutes = Math.max(state.minutes, job.window.from);
      state.minutes += job.minutes;
      if (job.window && state.minutes > job.window.until + 1e-9) state.late++;
    }
    state.done[index] = 1;
    state.left--;
    state.taken.push(index);
    for (const next of blocks[index].before) state.waits[next]--;
  };

  const free = (state: State, index: number) => state.done[index] === 0 && state.waits[index] === 0;
  const costsNothing = (state: State, index: number) => {
    const { gate, plain, setup, clothes } = entry[index];
    if (gate) return true;
    return plain && setup === state.setup && (clothes.length === 0 || clothes[0] === state.clothes);
  };

  /** Does everything that costs no change: without windows that never makes an order worse. */
  const absorb = (state: State, only?: readonly boolean[]): State => {
    for (let again = true; again;) {
      again = false;
      for (const index of byRank) {
        if (!free(state, index) || !costsNothing(state, index)) continue;
        if (only && !only[index] && !entry[index].gate) continue;
        take(state, index);
        again = true;
        break;
      }
    }
    return state;
  };

  /**
   * Changes that must still come, at least: every other setup once; within each setup one change for every
   * further set of clothes; and one for each group of setups that shares no clothes with the others.
   */
  const boundOf = (state: State): number => {
    const wanted = new Map<string, Set<string>>();
    for (let index = 0; index < blocks.length; index++) {
      if (state.done[index]) continue;
      for (const job of blocks[index].jobs) {
        if (job.gate) continue;
        const set = wanted.get(job.setup) ?? new Set<string>();
        if (job.clothes) set.add(job.clothes);
        wanted.set(job.setup, set);
      }
    }
    const others = wanted.size - (wanted.has(state.setup) || state.setup === '' ? 1 : 0);
    const here = wanted.get(state.setup) ?? new Set<string>();
    if (state.clothes) here.add(state.clothes);
    wanted.set(state.setup, here);
    const groups: Set<string>[] = [];
    let within = 0;
    for (const set of wanted.values()) {
      if (set.size === 0) continue;
      within += set.size - 1;
      const joined = new Set(set);
      for (let at = groups.length - 1; at >= 0; at--) {
        if (![...groups[at]].some((one) => joined.has(one))) continue;
        groups[at].forEach((one) => joined.add(one));
        groups.splice(at, 1);
      }
      groups.push(joined);
    }
    return Math.max(0, others) * setupWeight + within + Math.max(0, groups.length - 1);
  };

  const follow = (state: State, index: number, only?: readonly boolean[]): State => {
    const next: State = {
      ...state,
      done: state.done.slice(),
      waits: state.waits.slice(),
      taken: [],
      from: state,
    };
    take(next, index);
    absorb(next, only);
    next.bound = costOf(next) + boundOf(next);
    return next;
  };

  /** One state for every group of blocks that could be turned to; within a group the order changes nothing. */
  const successors = (state: State): State[] => {
    const found = new Map<string, State>();
    for (const index of byRank) {
      if (!free(state, index)) continue;
      const { plain, setup, clothes } = entry[index];
      const group = plain ? `${setup}\n${clothes[0] ?? ''}` : `${index}`;
      if (!found.has(group)) found.set(group, follow(state, index));
      if (windows && urgent[index] && !found.has(`${group}\nurgent`))
        found.set(`${group}\nurgent`, follow(state, index, urgent));
    }
    return [...found.values()];
  };

  const start: State = {
    done: new Uint8Array(blocks.length),
    waits: Int16Array.from(blocks, (block) => block.waits),
    left: blocks.length,
    setup: '',
    clothes: '',
    minutes: 0,
    setups: 0,
    clothesChanges: 0,
    late: 0,
    taken: [],
    from: null,
    bound: 0,
  };
  for (let index = 0; index < blocks.length; index++)
    if (entry[index].gate && free(start, index)) take(start, index);
  start.bound = boundOf(start);

  /** Down to an end, always by the most promising change. */
  const dive = (from: State): State => {
    let state = from;
    while (state.left > 0)
      state = successors(state).reduce((best, one) => (one.bound < best.bound ? one : best));
    return state;
  };

  const keyOf = (state: State) =>
    `${state.setup}\n${state.clothes}\n${windows ? state.minutes : ''}\n${String.fromCharCode(...state.done)}`;
  let best = dive(start);
  let proved = costOf(best) <= start.bound;
  const open = new Heap();
  open.push(start);
  const cheapest = new Map<string, number>();
  for (let looked = 0; !proved && looked < effort; looked++) {
    const state = open.pop();
    if (!state || state.bound >= costOf(best)) {
      proved = true;
      break;
    }
    for (const next of successors(state)) {
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
  return finish(blocks, best, proved && (!windows || best.late === 0), changes);
}

/** The best state as a list, with what does not fit its window. */
function finish(blocks: readonly Block[], best: State, proved: boolean, changes: Changes): Order {
  const taken: number[] = [];
  for (let state: State | null = best; state; state = state.from) taken.unshift(...state.taken);
  const jobs = taken.flatMap((index) => blocks[index].jobs.filter((job) => !job.gate));
  const late: string[] = [];
  let [minutes, setup, clothes] = [0, '', ''];
  for (const job of jobs) {
    if (job.setup !== setup) minutes += changes.setUp;
    if (job.clothes && clothes && job.clothes !== clothes) minutes += changes.changing;
    setup = job.setup;
    clothes = job.clothes || clothes;
    minutes = Math.max(minutes, job.window?.from ?? 0) + job.minutes;
    if (job.window && minutes > job.window.until + 1e-9) late.push(job.id);
  }
  return {
    ids: jobs.map((job) => job.id),
    setups: best.setups,
    clothes: best.clothesChanges,
    late,
    proved,
  };
}

/** States by their bound, the most promising first; of equals the one that has got further. */
class Heap {
  private readonly items: State[] = [];

  private before(a: State, b: State): boolean {
    return a.bound !== b.bound ? a.bound < b.bound : a.left < b.left;
  }

  push(state: State): void {
    const { items } = this;
    let at = items.push(state) - 1;
    while (at > 0) {
      const parent = (at - 1) >> 1;
      if (!this.before(items[at], items[parent])) break;
      [items[at], items[parent]] = [items[parent], items[at]];
      at = parent;
    }
  }

  pop(): State | undefined {
    const { items } = this;
    const top = items[0];
    const last = items.pop();
    if (items.length === 0 || !last) return top;
    items[0] = last;
    for (let at = 0; ;) {
      const [left, right] = [2 * at + 1, 2 * at + 2];
      let least = at;
      if (left < items.length && this.before(items[left], items[least])) least = left;
      if (right < items.length && this.before(items[right], items[least])) least = right;
      if (least === at) break;
      [items[at], items[least]] = [items[least], items[at]];
      at = least;
    }
    return top;
  }
}
