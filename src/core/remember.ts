/**
 * A pure function of an object that never changes, worked out once for each object: the same object gives the same
 * answer, and both go together.
 */
export function remembered<Key extends object, Value>(make: (key: Key) => Value): (key: Key) => Value {
  const known = new WeakMap<Key, { value: Value }>();
  return (key) => {
    const there = known.get(key);
    if (there) return there.value;
    const value = make(key);
    known.set(key, { value });
    return value;
  };
}

/**
 * The same for an object and further parts: worked out again for an object once one of its parts is another one than
 * the last time.
 */
export function rememberedWith<Key extends object, Value>(): (
  key: Key,
  parts: readonly unknown[],
  make: () => Value,
) => Value {
  const known = new WeakMap<Key, { parts: readonly unknown[]; value: Value }>();
  return (key, parts, make) => {
    const there = known.get(key);
    if (there && there.parts.length === parts.length && there.parts.every((part, at) => part === parts[at]))
      return there.value;
    const value = make();
    known.set(key, { parts, value });
    return value;
  };
}

/** A list that is the one before where every entry is the same as before, so that what follows from it stays too. */
export const sharedList = <Entry>(before: Entry[] | undefined, now: Entry[]): Entry[] =>
  before && before.length === now.length && now.every((entry, at) => entry === before[at]) ? before : now;
