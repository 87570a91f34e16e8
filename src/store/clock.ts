/** the highest count that four digits hold */
const mostCount = 36 ** 4 - 1;

/**
 * Stamps that order changes of several devices: hybrid logical clock as text that sorts.
 * @see Kulkarni et al. 2014, "Logical Physical Clocks"
 */
export class HybridClock {
  private last = 0;
  private count = 0;

  constructor(
    private readonly node: string,
    private readonly now: () => number = Date.now,
  ) {}

  /** The next stamp, later than every stamp that was made or seen. */
  next(): string {
    const time = this.now();
    if (time > this.last) [this.last, this.count] = [time, 0];
    else if (this.count < mostCount) this.count++;
    else [this.last, this.count] = [this.last + 1, 0];
    return `${this.last.toString(36).padStart(9, '0')}:${this.count.toString(36).padStart(4, '0')}:${this.node}`;
  }

  /** Takes note of a stamp from elsewhere. */
  saw(stamp: string): void {
    const [time, count] = stamp.split(':').map((part) => parseInt(part, 36));
    if (time > this.last) [this.last, this.count] = [time, count];
    else if (time === this.last) this.count = Math.max(this.count, count);
  }
}
