import 'fake-indexeddb/auto';
import Dexie from 'dexie';
import * as fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { afterEach, describe, expect, it } from 'vitest';
import { readBundle } from '@/core/formats/bundle';
import { liftOps, modelVersion } from '@/core/model/lift';
import { recordSchema } from '@/core/model/records';
import { applyOps } from './apply';
import { readArranged } from './arrange';
import { redo, undo } from './change';
import { Store, type Command, type FieldOp, type StoredRecord } from './db';
import { takeInBundle } from './merge/carry';
import { unite } from './merge/replay';

/**
 * Projects that earlier versions wrote: `stored-1` and `carried-1` are one project by the last build of the first
 * model, with tools used by hand in it; `carried-first` is the demo as the first build that could carry files saved it.
 */
const older = (name: string) =>
  readFileSync(new URL(`__tests__/older/${name}.json`, import.meta.url), 'utf8');
/** The records of a project, its clones by themselves. */
async function read(store: Store, project: string) {
  const records = await readArranged(store, project);
  return { ...records, clones: records.moments.filter(({ recipe }) => recipe === 'clone') };
}
type Stored = { project: string; records: Plain[]; commands: Command[] };
type Plain = Record<string, unknown> & { id: string; kind: string };
const stored = JSON.parse(older('stored-1')) as Stored;

const opened: Store[] = [];
afterEach(async () => {
  for (const store of opened.splice(0)) await store.delete();
});
const open = (name: string) => {
  const store = new Store(name);
  opened.push(store);
  return store;
};

/** The store as the first model laid it out, filled and then opened by today's. */
async function openStored(): Promise<Store> {
  const first = new Dexie('older');
  first.version(2).stores({
    records: 'id, kind, project',
    commands: 'id, project',
    media: 'id, project, fingerprint',
    measures: 'key, project, subject',
    halted: 'key, project',
    renders: 'id, project, status',
    originals: 'id',
    proxies: 'id',
    stills: 'id',
    recordings: 'id, project',
    chunks: '[recording+index], recording',
    references: 'setup, project',
    conflicts: 'id, project',
  });
  await first.table('records').bulkAdd(stored.records);
  await first.table('commands').bulkAdd(stored.commands);
  const [take] = stored.records.filter(({ kind }) => kind === 'take');
  const sides = { project: stored.project, record: take.id, here: 'left', there: 'right', holds: 'here' };
  await first.table('conflicts').add({ ...sides, id: `${take.id}\nrole`, field: 'role', labels: {} });
  const seam = { project: stored.project, subject: 'm', value: { method: 'seam-1' } };
  await first.table('measures').add({ ...seam, key: 'seam-1:m:[]' });
  for (const method of ['take-2', 'compare-1', 'song-2']) {
    const value = { method };
    await first.table('measures').add({ project: stored.project, subject: 'm', key: `${method}:m`, value });
  }
  await first.table('stills').add({ id: 'm', stills: [] });
  first.close();
  return open('older');
}

/** A record without when it was changed. */
const unstamped = (record: Plain): Plain =>
  Object.fromEntries(
    Object.entries(record).filter(([name]) => name !== 'stamps' && name !== 'changed'),
  ) as Plain;

/** A record of the first model in the words of today's, said once more and otherwise than {@link liftOps} says it. */
function today(record: Plain): Plain {
  const rest = unstamped(record);
  if (rest.kind === 'take') {
    const { role, ...take } = rest;
    return { ...take, slot: role };
  }
  if (rest.kind !== 'moment') return rest;
  const settings = { ...(rest.settings as Record<string, unknown>) };
  const slots: Record<string, object> = {};
  if (rest.recipe === 'clone')
    for (const slot of ['plate', 'left', 'right']) {
      const tap = settings[`${slot}Tap`];
      slots[slot] = {
        take: settings[slot],
        at: settings[`${slot}In`],
        ...(tap === undefined ? {} : { taps: tap === null ? [] : [tap] }),
      };
      for (const end of ['', 'In', 'Tap']) delete settings[`${slot}${end}`];
    }
  return { ...rest, settings, slots };
}
const plain = (record: StoredRecord): Plain => unstamped(JSON.parse(JSON.stringify(record)) as Plain);
const byId = (records: Plain[]) => [...records].sort((a, b) => (a.id < b.id ? -1 : 1));
/** Kinds that were changed away from a clone keep what filled its slots; that says nothing yet. */
const withoutUnused = (record: Plain): Plain =>
  record.kind === 'moment' && record.recipe !== 'clone' ? { ...record, slots: {} } : record;
const told = (records: Plain[]) => byId(JSON.parse(JSON.stringify(records)) as Plain[]).map(withoutUnused);

describe('a project of an earlier version', () => {
  it('opens whole from the store, each record with all that it held', async () => {
    const store = await openStored();
    const records = await store.records.toArray();
    expect(records).toHaveLength(stored.records.length);
    for (const record of records) expect(recordSchema.safeParse(record).error).toBeUndefined();
    expect(told(records.map(plain))).toEqual(told(stored.records.map((record) => today(record))));
    const { clones, takes } = await read(store, stored.project);
    const name = (id: string | null | undefined) => takes.find((take) => take.id === id)?.name;
    expect(clones[0].slots).toMatchObject({ left: { at: 0, taps: [{ time: 1.5 }] }, right: { at: 1.25 } });
    expect(name(clones[0].slots?.plate.take)).toBe('Bench plate end');
    expect(clones[1].slots).toMatchObject({ left: { at: 3 - (24 * 1001) / 24000 } });
    expect(takes.find((take) => take.name === 'Bench right 2')?.slot).toBe('none');
    // Takes and songs were measured in one piece then and are measured again; the beats that are laid are kept.
    expect(await store.measures.count()).toBe(0);
    expect(await store.stills.count()).toBe(0);
    const [conflict] = await store.conflicts.toArray();
    expect(conflict).toMatchObject({ field: 'slot', here: 'left', there: 'right' });
  });

  it('is taken back step by step as before, to its beginning and forth again', async () => {
    const store = await openStored();
    const end = (await store.records.toArray()).map(plain);
    const { project } = stored;
    // So many steps were done by hand, and not taken back, after the demo was laid out.
    const steps = 11;
    for (let step = 0; step < steps; step++) await undo(store, project);
    const { clones, takes } = await read(store, project);
    expect(clones.map(({ slots }) => [slots?.left.taps, slots?.right.at])).toEqual([[[], 0]]);
    expect(takes.map(({ slot }) => slot)).not.toContain('none');
    for (let step = 0; step < steps; step++) await redo(store, project);
    expect(told((await store.records.toArray()).map(plain))).toEqual(told(end));
  });

  it('opens whole from a carried file, and is the same project', async () => {
    const one = await openStored();
    const two = open('carried');
    const bundle = readBundle(older('carried-1'));
    expect(bundle.version).toBe(modelVersion);
    await takeInBundle(two, bundle, new Map());
    const [here, there] = await Promise.all([one, two].map((store) => store.records.toArray()));
    expect(told(there.map(plain))).toEqual(told(here.map(plain)));
    // And merged into itself it changes nothing.
    const merged = await takeInBundle(one, bundle, new Map());
    expect(merged).toMatchObject({ steps: 0, records: 0, conflicts: [] });
  });

  it('opens whole from the first carried file there was', async () => {
    const raw = JSON.parse(older('carried-first')) as { commands: Command[]; project: { id: string } };
    const first = new Map<string, StoredRecord>();
    for (const command of raw.commands)
      for (const { record } of command.ops)
        if (!first.has(record))
          first.set(
            record,
            unite(raw.commands, []).reduce<StoredRecord>(
              (made, { id, ops }) =>
                applyOps(
                  made,
                  record,
                  ops.filter((op) => op.record === record),
                  id,
                ),
              undefined as unknown as StoredRecord,
            ),
          );
    const store = open('first');
    await takeInBundle(store, readBundle(older('carried-first')), new Map());
    const records = await store.records.toArray();
    for (const record of records) expect(recordSchema.safeParse(record).error).toBeUndefined();
    const wanted = [...first.values()].map((record) => today(record as unknown as Plain));
    expect(told(records.map(plain))).toEqual(told(wanted));
    const { clones, takes, setups } = await read(store, raw.project.id);
    expect([clones.length, takes.length, setups.length]).toEqual([1, 6, 2]);
  });
});

describe('lifting operations', () => {
  const op = (kind: FieldOp['kind'], field: string, before: unknown, after: unknown): FieldOp => ({
    record: 'r',
    kind,
    field,
    before,
    after,
  });

  it('tells a take of which nothing is known from one that a person keeps out', () => {
    expect(liftOps([op('take', 'role', undefined, 'none')], 1)[0]).toMatchObject({
      field: 'slot',
      after: null,
    });
    expect(liftOps([op('take', 'role', 'left', 'none')], 1)[0]).toMatchObject({
      field: 'slot',
      after: 'none',
    });
  });

  it('leaves what is of today as it is', () => {
    const ops = [
      op('moment', 'slots.left.at', 0, 1),
      op('take', 'slot', null, 'left'),
      op('log', 'shot', 1, 2),
    ];
    expect(liftOps(ops, modelVersion)).toEqual(ops);
    expect(liftOps(ops, 1)).toEqual(ops);
  });

  it('makes the same moment, whether its history or what came of it is lifted', () => {
    const start = { way: 'meet', plate: null, left: null, right: null, first: 'left', leftIn: 0, rightIn: 0 };
    const settings = { ...start, leftTap: null, rightTap: null, fade: 0, feather: 12, seam: null };
    const take = fc.constantFrom(null, 'a', 'b');
    const set = fc.oneof(
      fc.tuple(fc.constantFrom('settings.plate', 'settings.left', 'settings.right'), take),
      fc.tuple(fc.constantFrom('settings.leftIn', 'settings.rightIn'), fc.integer({ min: 0, max: 9 })),
      fc.tuple(fc.constantFrom('settings.leftTap'), fc.constantFrom(null, { time: 1, at: [0, 1] })),
      fc.tuple(fc.constantFrom('settings.fade', 'settings.feather', 'start'), fc.integer({ min: 0, max: 9 })),
    );
    fc.assert(
      fc.property(fc.array(set, { maxLength: 20 }), (sets) => {
        const ops = [
          op('moment', 'kind', undefined, 'moment'),
          op('moment', 'recipe', undefined, 'clone'),
          op('moment', 'settings', undefined, settings),
          ...sets.map(([field, after]) => op('moment', field, 0, after)),
        ];
        const apply = (all: FieldOp[]) => applyOps(undefined, 'r', all, '0000000aa:0000:a');
        const lifted = plain(apply(liftOps(ops, 1)));
        expect(told([lifted])).toEqual(told([today(apply(ops) as unknown as Plain)]));
      }),
    );
  });

  it('of the second version keeps the performer that was tapped, as the first of a list', () => {
    const tap = { time: 1.5, at: [0.2, 0.5] };
    const op = { kind: 'moment', before: undefined };
    const lifted = liftOps(
      [
        { ...op, field: 'slots.left.tap', before: null, after: tap },
        {
          ...op,
          field: 'slots',
          after: { left: { take: 't', at: 1, tap }, right: { take: 'u', tap: null } },
        },
        { ...op, field: 'slots.left.at', after: 2 },
        { kind: 'take', field: 'slot', before: null, after: 'left' },
      ],
      2,
    );
    expect(lifted).toEqual([
      { ...op, field: 'slots.left.taps', before: [], after: [tap] },
      {
        ...op,
        field: 'slots',
        after: { left: { take: 't', at: 1, taps: [tap] }, right: { take: 'u', taps: [] } },
      },
      { ...op, field: 'slots.left.at', after: 2 },
      { kind: 'take', field: 'slot', before: null, after: 'left' },
    ]);
    // What this version writes is left as it is.
    expect(liftOps(lifted, 2)).toEqual(lifted);
  });
});
