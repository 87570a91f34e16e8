import type { Locks } from '../arrivals';

type Held = (lock: { name: string } | null) => unknown;

/** Locks as browsers have them, of one profile of its own: exclusive, and free once what was run under them is over. */
export function ownLocks(): Locks {
  const turns = new Map<string, Promise<unknown>>();
  const request = async (name: string, ...more: [Held] | [{ ifAvailable?: boolean }, Held]) => {
    const [options, held] = more.length === 2 ? more : [{}, more[0]];
    const before = turns.get(name);
    if (before && options.ifAvailable) return held(null);
    const turn = (async () => {
      await before;
      return held({ name });
    })();
    const ended = turn.then(
      () => undefined,
      () => undefined,
    );
    turns.set(name, ended);
    void ended.then(() => turns.get(name) === ended && turns.delete(name));
    return turn;
  };
  return { request } as unknown as Locks;
}
