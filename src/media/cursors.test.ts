import { describe, expect, it } from 'vitest';
import { Cursors, type Placed } from './cursors';

/** A file of numbered pictures that counts how often it is looked into, and how many pictures were read. */
function file(length: number) {
  const seen = { opened: [] as number[], read: 0, closed: 0 };
  async function* open(from: number): AsyncGenerator<Placed<string>> {
    seen.opened.push(from);
    try {
      for (let index = from; index < length; index++) {
        seen.read++;
        yield { index, picture: `picture ${index}` };
      }
    } finally {
      seen.closed++;
    }
  }
  return { seen, open };
}

describe('reading pictures by their place', () => {
  it('goes on from where it was', async () => {
    const { seen, open } = file(100);
    const cursors = new Cursors(open, 4);
    for (let index = 0; index < 50; index += 2) expect(await cursors.at(index)).toBe(`picture ${index}`);
    expect(seen).toMatchObject({ opened: [0], read: 49 });
  });

  it('reads two layers of one file at two times without going to and fro', async () => {
    const { seen, open } = file(1000);
    const cursors = new Cursors(open, 4);
    for (let step = 0; step < 100; step++) {
      expect(await cursors.at(step)).toBe(`picture ${step}`);
      expect(await cursors.at(700 + step)).toBe(`picture ${700 + step}`);
    }
    expect(seen).toMatchObject({ opened: [0, 700], read: 200 });
  });

  it('keeps some pictures for stepping back, and no more places than it may', async () => {
    const { seen, open } = file(1000);
    const cursors = new Cursors(open, 4, 2);
    await cursors.at(10);
    await cursors.at(12);
    await cursors.at(11);
    expect(seen.opened).toEqual([10]);
    for (const place of [200, 400, 600]) await cursors.at(place);
    expect(seen).toMatchObject({ opened: [10, 200, 400, 600], closed: 2 });
    await cursors.close();
    expect(seen.closed).toBe(4);
  });

  it('hands over what it no longer keeps, each once, and nothing that it still gives out', async () => {
    const cursors = new Cursors(file(1000).open, 3);
    for (const place of [0, 1, 2]) await cursors.at(place);
    expect(cursors.takeDropped()).toEqual([]);
    await cursors.at(4);
    await cursors.at(900);
    expect(cursors.takeDropped()).toEqual(['picture 0', 'picture 1', 'picture 2']);
    expect(cursors.takeDropped()).toEqual([]);
    expect(await cursors.at(3)).toBe('picture 3');
    await cursors.at(2);
    expect(cursors.takeDropped()).toEqual(['picture 3']);
  });

  it('says where the file ends before a place, and reads on after that', async () => {
    const cursors = new Cursors(file(20).open, 4);
    expect(await cursors.at(25)).toBeNull();
    expect(await cursors.at(5)).toBe('picture 5');
  });
});
