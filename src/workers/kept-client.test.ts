import { expect, test, vi } from 'vitest';
import { KeptClient } from './kept-client';

/** Workers that are numbered in the order in which they are opened. */
function numbered() {
  const ended: number[] = [];
  let opened = 0;
  const kept = new KeptClient<{ number: number }>(() => {
    const number = ++opened;
    return { api: { number } as never, end: () => ended.push(number) };
  });
  /** @param seconds that the piece of work takes, by a clock that is turned by hand */
  const used = async (seconds = 0): Promise<number> => {
    let number = 0;
    await kept.use(
      () => undefined,
      async (api) => {
        number = (api as unknown as { number: number }).number;
        if (seconds > 0) vi.advanceTimersByTime(1000 * seconds);
      },
    );
    return number;
  };
  return { kept, ended, used };
}

test('a worker goes from piece to piece, ends when told to or once it has waited for long, and is opened again', async () => {
  vi.useFakeTimers();
  try {
    const { kept, ended, used } = numbered();
    expect([await used(), await used()]).toEqual([1, 1]);
    vi.advanceTimersByTime(19_000);
    expect([await used(), ended]).toEqual([1, []]);
    vi.advanceTimersByTime(19_000);
    expect(ended).toEqual([]);
    vi.advanceTimersByTime(2_000);
    expect([ended, await used()]).toEqual([[1], 2]);
    kept.end();
    kept.end();
    expect([ended, await used()]).toEqual([[1, 2], 3]);
  } finally {
    vi.useRealTimers();
  }
});

test('a worker that has worked for long ends with its piece, since its memory holds what that left behind', async () => {
  vi.useFakeTimers();
  try {
    const { ended, used } = numbered();
    expect([await used(20), ended]).toEqual([1, []]);
    expect([await used(15), ended]).toEqual([1, [1]]);
    expect([await used(15), await used(), ended]).toEqual([2, 2, [1]]);
    expect([await used(600), await used(), ended]).toEqual([2, 3, [1, 2]]);
  } finally {
    vi.useRealTimers();
  }
});

test('a piece that was stopped and fails only later leaves the next one its worker', async () => {
  const { kept, ended, used } = numbered();
  let stop: () => void = () => undefined;
  let fail: (error: Error) => void = () => undefined;
  const stopped = kept.use(
    (end) => (stop = end),
    () => new Promise((_, reject) => (fail = reject)),
  );
  stop();
  expect([ended, await used()]).toEqual([[1], 2]);
  fail(new Error('late'));
  await expect(stopped).rejects.toThrow('late');
  expect(await used()).toBe(2);
});
