import { describe, expect, it } from 'vitest';
import { readAhead } from './read-ahead';

async function* counted(until: number, onRead: (one: number) => void = () => undefined) {
  for (let one = 0; one < until; one++) {
    onRead(one);
    yield one;
  }
}

describe('reading ahead', () => {
  it('goes on while work is under way, as far as it may, and gives everything out in its order', async () => {
    let last = -1;
    const source = readAhead(
      counted(8, (one) => (last = one)),
      3,
    );
    const given: number[] = [];
    const readBefore: number[] = [];
    for await (const one of source.read()) {
      given.push(one);
      readBefore.push(last);
      let end: (answer: string) => void = () => undefined;
      const work = new Promise<string>((resolve) => (end = resolve));
      const waiting = source.during(work);
      for (let turn = 0; turn < 20; turn++) await Promise.resolve();
      expect(last).toBe(Math.min(7, one + 3));
      end(`${one}`);
      expect(await waiting).toBe(`${one}`);
    }
    expect(given).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
    expect(readBefore).toEqual([0, 3, 4, 5, 6, 7, 7, 7]);
  });

  it('gives out nothing of a source with nothing in it', async () => {
    const source = readAhead(counted(0), 3);
    for await (const one of source.read()) expect(one).toBeUndefined();
    expect(await source.during(Promise.resolve(1))).toBe(1);
  });

  it('fails where the work fails, and where the source does', async () => {
    const source = readAhead(
      counted(4, (one) => {
        if (one === 2) throw new Error('gone');
      }),
      9,
    );
    await expect(source.during(Promise.reject(new Error('absent')))).rejects.toThrow('absent');
    await expect(source.during(new Promise(() => undefined))).rejects.toThrow('gone');
  });
});
