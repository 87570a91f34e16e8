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

/** Jobs glued together, each with its place in the row; a ring of tight rules has no first. */
function rows(rules: readonly Rule[]): { row: Map<string, number>; place: Map<string, number> } {
  const next = new Map(rules.filter((rule) => rule.tight).map((rule) => [rule.first, rule.then]));
  const followers = new Set(next.values());
  const row = new Map<string, number>();
  const place = new Map<string, number>();
  let count = 0;
  for (const head of next.keys()) {
    if (followers.has(head)) continue;
    let at: string | undefined = head;
    for (let index = 0; at !== undefined && !row.has(at); index++) {
      row.set(at, count);
      place.set(at, index);
      at = next.get(at);
    }
    count++;
  }
  return { row, place };
}

/**
 * The smallest set of rules that no order can obey together; null where some order obeys all.
 * A rule contradicts others where they lead from its second job back to its first.
 */
export function conflictOf(rules: readonly Rule[]): Rule[] | null {
  const twice = doubled(rules);
  if (twice) return twice;
  const graph = graphOf(rules);
  const { row, place } = rows(rules);
  const together = (a: string, b: string) => row.has(a) && row.get(a) === row.get(b);
  let smallest: Rule[] | null = null;
  const consider = (found: Rule[]) => {
    const set = [...new Set(found)];
    if (!smallest || set.length < smallest.length) smallest = set;
  };
  for (const rule of cyclic(rules)) {
    const forward = (edge: Edge, at: string) => edge.rule.first === at && edge.rule !== rule;
    if (rule.tight || together(rule.first, rule.then)) {
      const ring = rule.tight && !row.has(rule.first);
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

/** Only rules inside a ring can conflict: those whose jobs stay when everything with a free end is taken away. */
function cyclic(rules: readonly Rule[]): Rule[] {
  let left = [...rules];
  for (;;) {
    const glued = new Set(left.flatMap((rule) => (rule.tight ? [rule.first, rule.then] : [])));
    const firsts = new Set(left.map((rule) => rule.first));
    const thens = new Set(left.map((rule) => rule.then));
    const stays = (id: string) => glued.has(id) || (firsts.has(id) && thens.has(id));
    const kept = left.filter((rule) => stays(rule.first) && stays(rule.then));
    if (kept.length === left.length) return kept;
    left = kept;
  }
}
