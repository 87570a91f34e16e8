import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkEntries, readBundle } from '@/core/formats/bundle';
import { modelVersion } from '@/core/model/lift';
import { films } from '@/core/recipes/films';
import { packBundle, unpackBundle } from '@/media/bundle-zip';
import { change, undo } from '../change';
import { HybridClock } from '../clock';
import { createProject, newRecord, setProject } from '../commands/projects';
import { Store, type Command, type StoredRecord } from '../db';
import { gatherBundle, takeInBundle } from './carry';
import { mergeHistory, chooseSide } from './merge';

let number = 0;
/** A device of its own, whose clock may be wrong. */
const device = (node: string, ahead = 0): Store =>
  new Store(`merge-${number++}`, new HybridClock(node, () => 1_800_000_000_000 + ahead + number++));

const history = (store: Store): Promise<Command[]> => store.commands.orderBy('id').toArray();
/** All that counts of the records: not which device's history they came by. */
const state = async (store: Store): Promise<StoredRecord[]> => store.records.orderBy('id').toArray();

const mark = (project: string, id: string, x: number) => ({
  ...newRecord(project, id),
  kind: 'mark' as const,
  setup: 's',
  name: id,
  x,
  y: 2,
  stature: 1.7,
});
const logOf = (project: string, id: string) => ({
  ...newRecord(project, id),
  kind: 'log' as const,
  setup: 's',
  shot: 'm/left',
  number: 1,
  started: 1000,
  length: 4,
  rating: null,
  tags: {},
  variation: '',
  notes: '',
  take: null,
  seen: [],
});

/** Two devices with one project and two records, and nothing else in common. */
async function twoDevices(ahead = 0): Promise<{ one: Store; two: Store; project: string }> {
  const [one, two] = [device('one000'), device('two000', ahead)];
  const project = await createProject(one, 'Film', 'p');
  await change(one, project, 'Mark', [{ create: mark(project, 'a', 0) }, { create: logOf(project, 'log') }]);
  await mergeHistory(two, project, await history(one));
  return { one, two, project };
}

/** One thing that somebody does to the project. */
type Step =
  | { do: 'set'; x: number }
  | { do: 'tag'; on: boolean }
  | { do: 'note'; text: string }
  | { do: 'remove'; which: number }
  | { do: 'add' | 'undo' };
const step: fc.Arbitrary<Step> = fc.oneof(
  fc.record({ do: fc.constant('set' as const), x: fc.integer({ min: -9, max: 9 }) }),
  fc.record({ do: fc.constant('tag' as const), on: fc.boolean() }),
  fc.record({ do: fc.constant('note' as const), text: fc.string({ maxLength: 5 }) }),
  fc.record({ do: fc.constant('add' as const) }),
  fc.record({ do: fc.constant('remove' as const), which: fc.nat(3) }),
  fc.record({ do: fc.constant('undo' as const) }),
);

async function perform(
  store: Store,
  project: string,
  steps: readonly Step[],
  who: string,
): Promise<Set<string>> {
  const removed = new Set<string>();
  for (const [index, one] of steps.entries()) {
    if (one.do === 'set') await change(store, project, 'Move', [{ record: 'a', set: { x: one.x } }]);
    if (one.do === 'tag')
      await change(store, project, 'Tag', [{ record: 'log', set: { 'tags.crossed the seam': one.on } }]);
    if (one.do === 'note')
      await change(store, project, 'Note', [{ record: 'log', set: { notes: one.text } }]);
    if (one.do === 'add')
      await change(store, project, 'Add', [{ create: mark(project, `${who}-${index}`, index) }]);
    if (one.do === 'undo') await undo(store, project);
    if (one.do === 'remove') {
      const marks = (await state(store)).filter(({ kind, alive }) => kind === 'mark' && alive);
      const target = marks[one.which % Math.max(1, marks.length)];
      if (target) await change(store, project, 'Remove', [{ remove: target.id }]);
    }
    for (const record of await state(store)) if (!record.alive) removed.add(record.id);
  }
  return removed;
}

describe('two histories', () => {
  it('merge to the same state in either order, and nothing is gone that neither side removed', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(step, { maxLength: 7 }),
        fc.array(step, { maxLength: 7 }),
        fc.constantFrom(-86_400_000, 0, 500, 3_600_000),
        async (mine, theirs, ahead) => {
          const { one, two, project } = await twoDevices(ahead);
          const gone = await perform(one, project, mine, 'one');
          for (const id of await perform(two, project, theirs, 'two')) gone.add(id);
          const before = [...(await state(one)), ...(await state(two))];
          const [a, b] = [await history(one), await history(two)];
          await mergeHistory(one, project, b);
          await mergeHistory(two, project, a);
          const merged = await state(one);
          expect(await state(two)).toEqual(merged);
          const alive = new Set(merged.filter((record) => record.alive).map(({ id }) => id));
          for (const { id } of before) expect(alive.has(id) || gone.has(id)).toBe(true);
          // Once more changes nothing: what was merged is known.
          expect(await mergeHistory(one, project, await history(two))).toMatchObject({
            steps: 0,
            records: 0,
          });
          await Promise.all([one.delete(), two.delete()]);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('keeps both sides’ edits of one record, and lists what both changed to choose', async () => {
    const { one, two, project } = await twoDevices();
    await change(one, project, 'Tag', [{ record: 'log', set: { 'tags.light': true, notes: 'here' } }]);
    await change(two, project, 'Rate', [{ record: 'log', set: { rating: 'good', notes: 'there' } }]);
    const { conflicts } = await mergeHistory(one, project, await history(two));
    expect(await one.records.get('log')).toMatchObject({
      rating: 'good',
      tags: { light: true },
      notes: 'there',
    });
    expect(conflicts).toMatchObject([
      { record: 'log', field: 'notes', here: 'here', there: 'there', holds: 'there' },
    ]);
    await chooseSide(one, conflicts[0], 'here');
    expect(await one.records.get('log')).toMatchObject({ notes: 'here' });
    expect(await one.conflicts.count()).toBe(0);
    await mergeHistory(two, project, await history(one));
    expect(await two.records.get('log')).toMatchObject({ notes: 'here' });
  });

  it('settles on both devices what was chosen on one, also where that was in force already', async () => {
    for (const side of ['here', 'there'] as const) {
      const { one, two, project } = await twoDevices();
      await change(one, project, 'Note', [{ record: 'log', set: { notes: 'here' } }]);
      await change(two, project, 'Note', [{ record: 'log', set: { notes: 'there' } }]);
      const [a, b] = [await history(one), await history(two)];
      const { conflicts } = await mergeHistory(one, project, b);
      await mergeHistory(two, project, a);
      expect(await two.conflicts.count()).toBe(1);
      await chooseSide(one, conflicts[0], side);
      await mergeHistory(two, project, await history(one));
      expect(await two.conflicts.count()).toBe(0);
      expect(await two.records.get('log')).toMatchObject({ notes: side });
      expect(await state(two)).toEqual(await state(one));
    }
  });

  it('does not let an old list undo what was decided since', async () => {
    const { one, two, project } = await twoDevices();
    await change(one, project, 'Remove', [{ remove: 'a' }]);
    await change(two, project, 'Move', [{ record: 'a', set: { x: 5 } }]);
    const { conflicts } = await mergeHistory(one, project, await history(two));
    // Brought back by hand; the list still offers to keep it removed.
    await change(one, project, 'Bring back', [{ record: 'a', set: { alive: true } }]);
    await expect(chooseSide(one, conflicts[0], 'here')).rejects.toMatchObject({ code: 'conflict.settled' });
    expect(await one.records.get('a')).toMatchObject({ alive: true, x: 5 });
    expect(await one.conflicts.count()).toBe(0);
  });

  it('takes a genuine file in after one that brought nothing under the same stamps', async () => {
    const { one, two, project } = await twoDevices();
    await change(one, project, 'Move', [{ record: 'a', set: { x: 7 } }]);
    const genuine = await history(one);
    const made = genuine.map((command): Command => ({
      ...command,
      ops: command.ops.map((op) => ({ ...op, after: op.field === 'x' ? 'nowhere' : op.after })),
    }));
    const empty = genuine.map((command): Command => ({ ...command, ops: [] }));
    for (const odd of [empty, made.slice(-1)]) await mergeHistory(two, project, odd);
    expect(await mergeHistory(two, project, genuine)).toMatchObject({ steps: 1 });
    expect(await two.records.get('a')).toMatchObject({ x: 7 });
  });

  it('lists a record that one side removed and the other went on with', async () => {
    const { one, two, project } = await twoDevices();
    await change(one, project, 'Remove', [{ remove: 'a' }]);
    await change(two, project, 'Move', [{ record: 'a', set: { x: 5 } }]);
    const { conflicts } = await mergeHistory(one, project, await history(two));
    expect(conflicts).toMatchObject([
      { record: 'a', field: 'alive', here: false, there: true, holds: 'here' },
    ]);
    await chooseSide(one, conflicts[0], 'there');
    expect(await one.records.get('a')).toMatchObject({ alive: true, x: 5 });
  });

  it('orders a device whose clock is years ahead, and one whose clock jumps back', async () => {
    const { one, two, project } = await twoDevices(5 * 365 * 86_400_000);
    await setProject(two, project, { name: 'From the future' });
    await mergeHistory(one, project, await history(two));
    await setProject(one, project, { name: 'Afterwards' });
    await mergeHistory(two, project, await history(one));
    expect((await state(two)).find(({ kind }) => kind === 'project')).toMatchObject({ name: 'Afterwards' });
    expect(await state(two)).toEqual(await state(one));
  });

  it('does not undo here what was done there', async () => {
    const { one, two, project } = await twoDevices();
    await setProject(one, project, { name: 'Here' });
    await change(two, project, 'Move', [{ record: 'a', set: { x: 5 } }]);
    await mergeHistory(one, project, await history(two));
    await undo(one, project);
    expect(await one.records.get('a')).toMatchObject({ x: 5 });
    expect((await state(one)).find(({ kind }) => kind === 'project')).toMatchObject({ name: 'Film' });
  });

  it('passes over a moment without end, at which nothing could be built', async () => {
    const { one, project } = await twoDevices();
    const from = (id: string, start: number, end: number): Command => {
      const moment = { ...newRecord(project, id), kind: 'moment', recipe: 'clone', name: id, lands: 4 };
      const fields = { ...moment, start, end, settings: films.clone.start };
      return {
        id: `0zzzzzzzz:000${start === 0 ? 0 : 1}:odd`,
        project,
        label: 'Odd',
        ops: Object.entries(fields).map(([field, after]) => ({
          record: id,
          kind: 'moment' as const,
          field,
          after,
        })),
      };
    };
    await mergeHistory(one, project, [from('short', 0, 8), from('endless', -1e300, 1e300)]);
    expect(await one.records.get('short')).toMatchObject({ end: 8 });
    expect(await one.records.get('endless')).toBeUndefined();
  });

  it('passes over a change that no longer fits, the same on both sides', async () => {
    const { one, two, project } = await twoDevices();
    const bad = (await history(two)).slice(-1)[0];
    const odd: Command = {
      ...bad,
      id: '1zzzzzzzz:0000:odd',
      ops: [{ record: 'a', kind: 'mark', field: 'x', after: 'left' }],
    };
    for (const store of [one, two]) await mergeHistory(store, project, [odd]);
    expect(await one.records.get('a')).toMatchObject({ x: 0 });
    expect(await state(two)).toEqual(await state(one));
  });

  it('refuses a history that reaches into another project', async () => {
    const { one, project } = await twoDevices();
    await createProject(one, 'Other', 'q');
    const odd: Command = {
      id: '0zzzzzzzz:0000:odd',
      project,
      label: 'Odd',
      ops: [{ record: 'q', kind: 'project', field: 'name', after: 'Mine' }],
    };
    await expect(mergeHistory(one, project, [odd])).rejects.toMatchObject({ code: 'merge.other' });
    expect(await one.records.get('q')).toMatchObject({ name: 'Other' });
  });
});

describe('a project as one file', () => {
  const media = (store: Store, project: string) =>
    store.transaction('rw', store.media, store.writes, store.originals, async () => {
      await store.originals.add({ id: 'clip', blob: new Blob(['pictures']) });
      await store.writeRows('media', [
        {
          id: 'clip',
          project,
          name: '../../left take.mp4',
          type: 'video/mp4',
          size: 8,
          fingerprint: '8:x',
          place: 'blob',
          probe: null,
          problem: null,
          created: 1,
        },
      ]);
    });
  const take = (project: string) => ({
    ...newRecord(project, 'take'),
    kind: 'take' as const,
    media: 'clip',
    name: 'Left',
    slot: 'left',
    order: 1,
    steady: false,
    match: false,
  });
  async function filled() {
    const one = device('one000');
    const project = await createProject(one, 'Film', 'p');
    await media(one, project);
    await change(one, project, 'Take', [
      { create: mark(project, 'a', 0) },
      { create: take(project) },
      { create: { ...logOf(project, 'log'), take: 'take' } },
    ]);
    return { one, project };
  }
  const pack = async (store: Store, project: string, setup: string | null) => {
    const { bundle, blobs } = await gatherBundle(store, project, setup);
    return packBundle(bundle, blobs, () => undefined);
  };
  const takeIn = async (store: Store, file: Blob) => {
    const { bundle, blobs, lost } = await unpackBundle(file, () => undefined);
    return { ...(await takeInBundle(store, bundle, blobs)), lost };
  };

  it('is whole on another device, media and all, under no name that leads anywhere', async () => {
    const { one, project } = await filled();
    const two = device('two000');
    const file = await pack(one, project, null);
    expect(await takeIn(two, file)).toMatchObject({ media: 1, lost: [], conflicts: [] });
    expect(await state(two)).toEqual(await state(one));
    expect(await (await two.originals.get('clip'))?.blob.text()).toBe('pictures');
    expect(await takeIn(two, file)).toMatchObject({ steps: 0, media: 0 });
  });

  it('carries one setup’s log and takes alone, once the project is there', async () => {
    const { one, project } = await filled();
    const file = await pack(one, project, 's');
    const stranger = device('two000');
    await expect(takeIn(stranger, file)).rejects.toMatchObject({ code: 'bundle.no-project' });
    expect(await stranger.media.count()).toBe(0);
    const { bundle } = await unpackBundle(file, () => undefined);
    expect(new Set(bundle.commands.flatMap(({ ops }) => ops.map(({ record }) => record)))).toEqual(
      new Set(['log', 'take']),
    );
    // Its project first, then the log: the same as the whole.
    const both = device('tre000');
    const early = (await history(one)).slice(0, 1);
    await mergeHistory(both, project, early);
    await takeIn(both, file);
    await takeIn(both, await pack(one, project, null));
    expect(await state(both)).toEqual(await state(one));
  });

  it('refuses what breaks off, is newer, is damaged or is no project, each with what to do', async () => {
    const { one, project } = await filled();
    const file = await pack(one, project, null);
    const open = (blob: Blob) => unpackBundle(blob, () => undefined);
    await expect(open(file.slice(0, file.size - 40))).rejects.toMatchObject({ code: 'bundle.truncated' });
    await expect(open(new Blob(['no zip at all']))).rejects.toMatchObject({ code: 'bundle.truncated' });
    await expect(open(new Blob([]))).rejects.toMatchObject({ code: 'bundle.truncated' });
    const { bundle, blobs } = await gatherBundle(one, project, null);
    const newer = await packBundle({ ...bundle, version: modelVersion + 1 }, blobs, () => undefined);
    await expect(open(newer)).rejects.toMatchObject({ code: 'bundle.newer' });
    expect(() => readBundle('{')).toThrow(expect.objectContaining({ code: 'bundle.broken' }));
    const odd = JSON.stringify(bundle).replace('"field":"x"', '"field":"__proto__.x"');
    expect(() => readBundle(odd)).toThrow(expect.objectContaining({ code: 'bundle.broken' }));
    // A stamp after which this device could make no more.
    const [{ id }] = bundle.commands;
    const late = JSON.stringify(bundle).replace(id, `zzzzzzzzz${id.slice(9)}`);
    expect(() => readBundle(late)).toThrow(expect.objectContaining({ code: 'bundle.broken' }));
    // A byte of the clip turned over: the rest is taken in, and the clip is named as lost.
    const bytes = new Uint8Array(await file.arrayBuffer());
    const at = bytes.findIndex(
      (_, index) => String.fromCharCode(...bytes.subarray(index, index + 8)) === 'pictures',
    );
    bytes[at] ^= 255;
    expect(await takeIn(device('two000'), new Blob([bytes]))).toMatchObject({
      lost: ['media/0000'],
      media: 0,
    });
  });

  it('reads no zip whose list is a trap', () => {
    const index = { name: 'bundle.json', size: 100, packed: 50, folder: false };
    const clip = { name: 'media/0000', size: 40, packed: 40, folder: false };
    expect(() => checkEntries([index, clip], 200)).not.toThrow();
    for (const odd of [
      { ...clip, name: '../../etc/passwd' },
      { ...clip, name: '/media/0000' },
      { ...clip, name: 'media\\0000' },
      { ...clip, size: 4e9 },
      { ...clip, size: 400, packed: 400 },
      { ...index, size: 1e9 },
    ])
      expect(() => checkEntries([index, odd], 200)).toThrow(
        expect.objectContaining({ code: 'bundle.hostile' }),
      );
    expect(() => checkEntries([index, clip, clip], 200)).toThrow(
      expect.objectContaining({ code: 'bundle.hostile' }),
    );
    expect(() =>
      checkEntries(
        Array.from({ length: 9000 }, () => clip),
        200,
      ),
    ).toThrow(expect.objectContaining({ code: 'bundle.hostile' }));
    expect(() => checkEntries([clip], 200)).toThrow(expect.objectContaining({ code: 'bundle.foreign' }));
    expect(() => checkEntries([index, { ...clip, name: 'holiday.jpg' }], 200)).toThrow(
      expect.objectContaining({ code: 'bundle.foreign' }),
    );
  });
});
