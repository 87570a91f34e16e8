/** Items of which the least can be taken out at any time. @see Williams 1964 (binary heap) */
export class Heap<Item> {
  private readonly items: Item[] = [];

  /** @param compare negative where the first comes out before the second */
  constructor(private readonly compare: (a: Item, b: Item) => number) {}

  private swap(a: number, b: number): void {
    [this.items[a], this.items[b]] = [this.items[b], this.items[a]];
  }

  push(item: Item): void {
    const { items } = this;
    for (let at = items.push(item) - 1; at > 0;) {
      const parent = (at - 1) >> 1;
      if (this.compare(items[at], items[parent]) >= 0) break;
      this.swap(at, parent);
      at = parent;
    }
  }

  /** The least item, taken out; undefined where there is none. */
  pop(): Item | undefined {
    const { items } = this;
    const [top] = items;
    const last = items.pop();
    if (items.length === 0 || last === undefined) return top;
    items[0] = last;
    for (let at = 0; ;) {
      let least = at;
      for (const child of [2 * at + 1, 2 * at + 2])
        if (child < items.length && this.compare(items[child], items[least]) < 0) least = child;
      if (least === at) return top;
      this.swap(at, least);
      at = least;
    }
  }
}
