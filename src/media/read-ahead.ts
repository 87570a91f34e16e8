/** A source that is read on while something else is under way. */
export type ReadAhead<T> = {
  /** what the source gives, one after the other */
  read: () => AsyncGenerator<T, void>;
  /** waits for some work, and reads on meanwhile */
  during: <Answer>(work: Promise<Answer>) => Promise<Answer>;
};

/** @param most of what was read and not yet given out */
export function readAhead<T>(source: AsyncGenerator<T, void>, most: number): ReadAhead<T> {
  const ahead: T[] = [];
  let isOver = false;
  const readOne = async () => {
    const next = await source.next();
    if (next.done) isOver = true;
    else ahead.push(next.value);
  };
  return {
    async *read() {
      while (ahead.length > 0 || !isOver) {
        if (ahead.length === 0) await readOne();
        yield* ahead.splice(0, 1);
      }
    },
    async during(work) {
      let isBusy = true;
      const reading = async () => {
        while (isBusy && !isOver && ahead.length < most) await readOne();
      };
      const [answer] = await Promise.all([work.finally(() => (isBusy = false)), reading()]);
      return answer;
    },
  };
}
