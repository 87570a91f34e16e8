import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { remembered, rememberedWith, sharedList } from './remember';

describe('remembering', () => {
  it('works a thing out once for each object', () => {
    let count = 0;
    const length = remembered((list: number[]) => [list.length, count++]);
    const [one, two] = [[1], [1]];
    expect(length(one)).toBe(length(one));
    expect(length(two)).not.toBe(length(one));
    expect(count).toBe(2);
  });

  it('gives what the function gives for the last parts, whatever was asked in between', () => {
    const objects = [{}, {}];
    const parts = [fc.constantFrom(0, 1), fc.constantFrom('a', 'b')] as const;
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom(0, 1), ...parts), { maxLength: 30 }), (asked) => {
        const known = rememberedWith<object, string>();
        for (const [object, first, second] of asked)
          expect(known(objects[object], [first, second], () => `${object}${first}${second}`)).toBe(
            `${object}${first}${second}`,
          );
      }),
    );
    let count = 0;
    const known = rememberedWith<object, number>();
    for (const part of [1, 1, 2, 2, 1]) known(objects[0], [part], () => count++);
    expect(count).toBe(3);
  });

  it('keeps a list whose entries are the same', () => {
    const [a, b] = [{}, {}];
    const before = [a, b];
    expect(sharedList(before, [a, b])).toBe(before);
    for (const now of [[b, a], [a], [a, b, a], [a, {}]]) expect(sharedList(before, now)).toBe(now);
    expect(sharedList(undefined, before)).toBe(before);
  });
});
