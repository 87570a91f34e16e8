/**
 * Minimum cut of a directed graph by Boykov and Kolmogorov's growing trees, made for pictures:
 * many nodes, few arcs a node.
 * @see Boykov & Kolmogorov 2004, "An experimental comparison of min-cut/max-flow algorithms"
 */
export class MinimumCut {
  private readonly first: Int32Array;
  private readonly next: Int32Array;
  private readonly head: Int32Array;
  private readonly room: Float64Array;
  private readonly terminal: Float64Array;
  private arcs = 0;

  constructor(
    private readonly nodes: number,
    edges: number,
  ) {
    this.first = new Int32Array(nodes).fill(-1);
    this.next = new Int32Array(edges * 2);
    this.head = new Int32Array(edges * 2);
    this.room = new Float64Array(edges * 2);
    this.terminal = new Float64Array(nodes);
  }

  /** Adds what it costs to put `node` on the sink's side (`source`) or on the source's side (`sink`). */
  addTerminal(node: number, source: number, sink: number): void {
    this.terminal[node] += source - sink;
  }

  /** Adds an arc with its capacity there and back. */
  addEdge(from: number, to: number, there: number, back: number): void {
    const arc = this.arcs;
    this.arcs += 2;
    this.head[arc] = to;
    this.room[arc] = there;
    this.next[arc] = this.first[from];
    this.first[from] = arc;
    this.head[arc + 1] = from;
    this.room[arc + 1] = back;
    this.next[arc + 1] = this.first[to];
    this.first[to] = arc + 1;
  }

  /** Runs the flow. The result is 1 for each node on the sink's side. */
  solve(): Uint8Array {
    const { nodes, first, next, head, room, terminal } = this;
    const [free, fromSource, fromSink] = [0, 1, 2];
    const none = -1;
    const root = -2;
    const tree = new Uint8Array(nodes);
    const parent = new Int32Array(nodes).fill(none);
    const distance = new Int32Array(nodes);
    const stamp = new Int32Array(nodes);
    const queue = new Int32Array(nodes + 1);
    const queued = new Uint8Array(nodes);
    let [start, end, clock] = [0, 0, 0];
    const activate = (node: number) => {
      if (queued[node]) return;
      queued[node] = 1;
      queue[end] = node;
      end = end === nodes ? 0 : end + 1;
    };
    for (let node = 0; node < nodes; node++) {
      if (terminal[node] === 0) continue;
      tree[node] = terminal[node] > 0 ? fromSource : fromSink;
      parent[node] = root;
      distance[node] = 1;
      activate(node);
    }
    const orphans: number[] = [];
    const orphan = (node: number) => {
      parent[node] = none;
      orphans.push(node);
    };

    /** The distance to the tree's root, or 0 where the way is broken. */
    const wayToRoot = (node: number): number => {
      let steps = 0;
      let at = node;
      for (;;) {
        if (stamp[at] === clock) {
          steps += distance[at];
          break;
        }
        steps++;
        if (parent[at] === root) {
          stamp[at] = clock;
          distance[at] = 1;
          break;
        }
        if (parent[at] === none) return 0;
        at = head[parent[at]];
      }
      const found = steps;
      at = node;
      while (stamp[at] !== clock) {
        stamp[at] = clock;
        distance[at] = steps--;
        at = head[parent[at]];
      }
      return found;
    };

    const adopt = (node: number) => {
      const mine = tree[node];
      let best = none;
      let nearest = Infinity;
      for (let arc = first[node]; arc !== -1; arc = next[arc]) {
        const other = head[arc];
        const capacity = mine === fromSource ? room[arc ^ 1] : room[arc];
        if (capacity <= 0 || tree[other] !== mine || parent[other] === none) continue;
        const steps = wayToRoot(other);
        if (steps > 0 && steps < nearest) [best, nearest] = [arc, steps];
      }
      parent[node] = best;
      if (best !== none) {
        stamp[node] = clock;
        distance[node] = nearest + 1;
        return;
      }
      for (let arc = first[node]; arc !== -1; arc = next[arc]) {
        const other = head[arc];
        if (tree[other] !== mine) continue;
        if ((mine === fromSource ? room[arc ^ 1] : room[arc]) > 0) activate(other);
        if (parent[other] >= 0 && head[parent[other]] === node) orphan(other);
      }
      tree[node] = free;
    };

    /** Pushes flow along the path that `bridge` closes, from the source's tree to the sink's. */
    const augment = (bridge: number) => {
      let least = room[bridge];
      let node = head[bridge ^ 1];
      for (; parent[node] !== root; node = head[parent[node]])
        least = Math.min(least, room[parent[node] ^ 1]);
      least = Math.min(least, terminal[node]);
      node = head[bridge];
      for (; parent[node] !== root; node = head[parent[node]]) least = Math.min(least, room[parent[node]]);
      least = Math.min(least, -terminal[node]);
      room[bridge] -= least;
      room[bridge ^ 1] += least;
      node = head[bridge ^ 1];
      while (parent[node] !== root) {
        const arc = parent[node];
        room[arc] += least;
        room[arc ^ 1] -= least;
        const up = head[arc];
        if (room[arc ^ 1] <= 0) orphan(node);
        node = up;
      }
      terminal[node] -= least;
      if (terminal[node] <= 0) orphan(node);
      node = head[bridge];
      while (parent[node] !== root) {
        const arc = parent[node];
        room[arc ^ 1] += least;
        room[arc] -= least;
        const up = head[arc];
        if (room[arc] <= 0) orphan(node);
        node = up;
      }
      terminal[node] += least;
      if (terminal[node] >= 0) orphan(node);
    };

    while (start !== end) {
      const node = queue[start];
      if (tree[node] === free) {
        start = start === nodes ? 0 : start + 1;
        queued[node] = 0;
        continue;
      }
      let bridge = none;
      for (let arc = first[node]; arc !== -1; arc = next[arc]) {
        const growing = tree[node] === fromSource;
        if ((growing ? room[arc] : room[arc ^ 1]) <= 0) continue;
        const other = head[arc];
        if (tree[other] === free) {
          tree[other] = tree[node];
          parent[other] = arc ^ 1;
          stamp[other] = stamp[node];
          distance[other] = distance[node] + 1;
          activate(other);
        } else if (tree[other] !== tree[node]) {
          bridge = growing ? arc : arc ^ 1;
          break;
        } else if (stamp[other] <= stamp[node] && distance[other] > distance[node]) {
          // A shorter way to the root.
          parent[other] = arc ^ 1;
          stamp[other] = stamp[node];
          distance[other] = distance[node] + 1;
        }
      }
      clock++;
      if (bridge === none) {
        start = start === nodes ? 0 : start + 1;
        queued[node] = 0;
        continue;
      }
      augment(bridge);
      while (orphans.length > 0) adopt(orphans.pop() as number);
    }
    return tree.map((side) => (side === fromSource ? 0 : 1));
  }
}
