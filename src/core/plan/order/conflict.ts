import type { Rule } from './rule';

type Edge = { to: string; rule: Rule };

/** Who follows whom: loose rules one way; glued jobs count as one place, so tight rules lead both ways. */
function graphOf(rules: readonly Rule[]): Map<string, Edge[]> {
  const graph = new Map<string, Edge[]>();
  const add = (from: string, to: string, rule: Rule) => {
    const edges = graph.get(from);
    if (edges) edges.push({ to, rule });
    else graph.set(from, [{ to, rule }]);
  };
  for (const rule of rules) {
    add(rule.first, rule.then, rule);
    if (rule.tight) add(rule.then, rule.first, rule);
  }
  return graph;
}

/** The fewest rules that lead from one job to another; `forward` follows tight rules only as they stand. */
function fewest(
  graph: Map<string, Edge[]>,
  from: string,
  to: string,
  allow: (edge: Edge, at: string) => boolean,
) {
  const cameBy = new Map<string, { at: string; rule: Rule } | null>([[from, null]]);
  const queue = [from];
  for (let next = 0; next < queue.length; next++) {
    const at = queue[next];
    if (at === to) break;
    for (const edge of graph.get(at) ?? []) {
      if (cameBy.has(edge.to) || !allow(edge, at)) continue;
      cameBy.set(edge.to, { at, rule: edge.rule });
      queue.push(edge.to);
    }
  }
  if (!cameBy.has(to)) return null;
  const path: Rule[] = [];
  for (let step = cameBy.get(to); step; step = cameBy.get(step.at)) path.push(step.rule);
  return path;
}

/** Two jobs that want to follow the same one, or be followed by it. */
function doubled(rules: readonly Rule[]): Rule[] | null {
  const tight = rules.filter((rule) => rule.tight);
  for (const side of ['first', 'then'] as const) {
    const seen = new Map<string, Rule>();
    for (const rule of tight) {
      const other = seen.get(rule[side]);
      const apart = side === 'first' ? other?.then !== rule.then : other?.first !== rule.first;
      if (other && apart) return [other, rule];
      seen.set(rule[side], rule);
    }
  }
  return null;
}

type Rows = { row: Map<string, number>; place: Map<string, number>; rings: Set<number> };

/** Jobs glued together, each with its row and its place in it; a ring of tight rules has no first. */
function rowsOf(rules: readonly Rule[]): Rows {
  const next = new Map(rules.filter((rule) => rule.tight).map((rule) => [rule.first, rule.then]));
  const followers = new Set(next.values());
  const row = new Map<string, number>();
  const place = new Map<string, number>();
  const rings = new Set<number>();
  const walk = (head: string) => {
    const number = row.size;
    let at: string | undefined = head;
    for (let index = 0; at !== undefined && !row.has(at); index++) {
      row.set(at, number);
      place.set(at, index);
      at = next.get(at);
    }
    return number;
  };
  for (const head of next.keys()) if (!followers.has(head)) walk(head);
  for (const head of next.keys()) if (!row.has(head)) rings.add(walk(head));
  return { row, place, rings };
}

/**
 * The smallest set of rules that no order can obey together; null where some order obeys all.
 * A rule contradicts others where they lead from its second job back to its first.
 */
export function conflictOf(rules: readonly Rule[]): Rule[] | null {
  const twice = doubled(rules);
  if (twice) return twice;
  const rows = rowsOf(rules);
  const suspects = cyclic(rules, rows);
  if (suspects.length === 0) return null;
  const graph = graphOf(rules);
  const { row, place, rings } = rows;
  const together = (a: string, b: string) => row.has(a) && row.get(a) === row.get(b);
  let smallest: Rule[] | null = null;
  const consider = (found: Rule[]) => {
    const set = [...new Set(found)];
    if (!smallest || set.length < smallest.length) smallest = set;
  };
  for (const rule of suspects) {
    const forward = (edge: Edge, at: string) => edge.rule.first === at && edge.rule !== rule;
    if (rule.tight || together(rule.first, rule.then)) {
      const ring = rings.has(row.get(rule.first) ?? -1);
      const against = (place.get(rule.first) ?? 0) > (place.get(rule.then) ?? 0);
      const path = fewest(graph, rule.then, rule.first, forward);
      if (path && (ring || against || path.some((one) => !one.tight))) consider([rule, ...path]);
      continue;
    }
    const path = fewest(graph, rule.then, rule.first, (edge) => edge.rule !== rule);
    if (path) consider([rule, ...path]);
  }
  return smallest;
}

/**
 * Only rules inside a ring can conflict: those whose jobs stay when everything that waits for nothing, and
 * everything that nothing waits for, is taken away. Glued jobs count as one. @see Kahn 1962
 */
function cyclic(rules: readonly Rule[], { row }: Rows): Rule[] {
  const partOf = (id: string) => row.get(id) ?? id;
  const between = rules.filter((rule) => partOf(rule.first) !== partOf(rule.then));
  const peel = (edges: readonly Rule[], from: 'first' | 'then', to: 'first' | 'then'): Rule[] => {
    const waits = new Map<string | number, number>();
    const leads = new Map<string | number, (string | number)[]>();
    for (const edge of edges) {
      const [a, b] = [partOf(edge[from]), partOf(edge[to])];
      waits.set(b, (waits.get(b) ?? 0) + 1);
      waits.set(a, waits.get(a) ?? 0);
      const list = leads.get(a);
      if (list) list.push(b);
      else leads.set(a, [b]);
    }
    const free = [...waits].filter(([, count]) => count === 0).map(([id]) => id);
    for (let id = free.pop(); id !== undefined; id = free.pop())
      for (const next of leads.get(id) ?? []) {
        const left = (waits.get(next) ?? 0) - 1;
        waits.set(next, left);
        if (left === 0) free.push(next);
      }
    return edges.filter((edge) => (waits.get(partOf(edge[from])) ?? 0) > 0);
  };
  const within = rules.filter((rule) => partOf(rule.first) === partOf(rule.then));
  return [...within, ...peel(peel(between, 'first', 'then'), 'then', 'first')];
}
