/** A picture with its place in its file. */
export type Placed<Picture> = { index: number; picture: Picture };

type Cursor<Picture> = {
  going: AsyncGenerator<Placed<Picture>>;
  /** the place that is read next */
  next: number;
  used: number;
};

/** Going on from a place costs less than looking for it anew as long as it is no further away than this. */
const near = 60;

/**
 * Reads pictures by their place in a file, from several places at once: each goes on where it was, so that two layers
 * of one file at two times do not send one reader to and fro.
 */
export class Cursors<Picture> {
  private readonly cursors: Cursor<Picture>[] = [];
  private readonly kept = new Map<number, Picture>();
  private dropped: Picture[] = [];
  private count = 0;

  /**
   * @param open reads on from a place
   * @param keep pictures that stay at hand for stepping back
   * @param most places at once
   */
  constructor(
    private readonly open: (index: number) => AsyncGenerator<Placed<Picture>>,
    private readonly keep: number,
    private readonly most = 3,
  ) {}

  /** The picture at a place; null where the file ends before it. */
  async at(wanted: number): Promise<Picture | null> {
    const kept = this.kept.get(wanted);
    if (kept !== undefined) return kept;
    const cursor = await this.cursorFor(wanted);
    cursor.used = ++this.count;
    for (;;) {
      const { value, done } = await cursor.going.next();
      if (done) {
        this.cursors.splice(this.cursors.indexOf(cursor), 1);
        return null;
      }
      cursor.next = value.index + 1;
      this.keepAlso(value);
      if (value.index >= wanted) return value.picture;
    }
  }

  private keepAlso({ index, picture }: Placed<Picture>): void {
    const full = this.kept.size >= this.keep;
    const goes = this.kept.has(index) ? index : full ? this.kept.keys().next().value : undefined;
    const old = goes === undefined ? undefined : this.kept.get(goes);
    if (goes !== undefined) this.kept.delete(goes);
    if (old !== undefined) this.dropped.push(old);
    this.kept.set(index, picture);
  }

  /** The pictures that are no longer kept since this was asked last. */
  takeDropped(): Picture[] {
    const { dropped } = this;
    this.dropped = [];
    return dropped;
  }

  /** The nearest place before the wanted one; else a new one, for which the one that was used longest ago may have to go. */
  private async cursorFor(wanted: number): Promise<Cursor<Picture>> {
    const [nearest] = this.cursors
      .filter(({ next }) => wanted >= next && wanted <= next + near)
      .sort((a, b) => b.next - a.next);
    if (nearest) return nearest;
    if (this.cursors.length >= this.most) {
      const [oldest] = this.cursors.sort((a, b) => a.used - b.used).splice(0, 1);
      await oldest.going.return(undefined);
    }
    const made = { going: this.open(wanted), next: wanted, used: 0 };
    this.cursors.push(made);
    return made;
  }

  async close(): Promise<void> {
    await Promise.all(this.cursors.map(({ going }) => going.return(undefined)));
  }
}
