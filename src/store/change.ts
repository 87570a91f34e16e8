import { refuse } from '@/core/error';
import { recordSchema, type AnyRecord } from '@/core/model/records';
import { applyOps, fieldOf, same } from './apply';
import { readArranged, type Arranged } from './arrange';
import type { Command, FieldOp, Store } from './db';

/**
 * One thing to change: a new record, fields of one (dots lead inwards), or its end. Fields that are `decided` are
 * written also where they hold that value already, so that other devices hear of it.
 */
export type Edit =
  | { create: AnyRecord }
  | { record: string; set: Record<string, unknown>; decided?: true }
  | { remove: string };

/** Writes operations onto records; every result must satisfy the schema. */
async function write(store: Store, ops: readonly FieldOp[], stamp: string): Promise<void> {
  const ids = [...new Set(ops.map((op) => op.record))];
  const found = await store.records.bulkGet(ids);
  const records = ids.map((id, index) => {
    const mine = ops.filter((one) => one.record === id);
    const record = applyOps(found[index], id, mine, stamp);
    const checked = recordSchema.safeParse(record, { error: () => 'this value does not fit' });
    if (!checked.success) {
      const [issue] = checked.error.issues;
      refuse('value', `${issue.path.join(' ')}: ${issue.message}. It was left as it was.`);
    }
    return record;
  });
  await store.writeRows('records', records);
}

/** A stamp later than everything in this store, whatever the device's clock says. */
async function nextStamp(store: Store): Promise<string> {
  const last = await store.commands.orderBy('id').last();
  if (last) store.clock.saw(last.id);
  return store.clock.next();
}

/**
 * Runs a step in a transaction of its own. The step counts as the newest before others can read what it wrote: a
 * reader that sees it newest waits for the transaction, and so sees all of it.
 */
async function stepping<Made extends { id: string } | null>(
  store: Store,
  project: string,
  work: () => Promise<Made>,
): Promise<Made> {
  const before = store.latest.get(project);
  try {
    const tables = [store.records, store.writes, store.commands, store.measures];
    return await store.transaction('rw', tables, async () => {
      const made = await work();
      if (made) store.latest.set(project, made.id);
      return made;
    });
  } catch (error) {
    if (before === undefined) store.latest.delete(project);
    else store.latest.set(project, before);
    throw error;
  }
}

/** What is to be changed: known beforehand, or worked out from the records as they are inside the transaction. */
type Edits = readonly Edit[] | ((now: Arranged) => readonly Edit[] | Promise<readonly Edit[]>);

/**
 * Makes one undoable step of some edits. Edits that depend on what is there are given as a function: two quick
 * steps then build on each other, however old the picture is that they were pressed on.
 * @param automatic done by the bench itself; undo passes over it
 * @returns the command, or null where nothing would change
 * @throws CoreError `value` where a value does not fit; then nothing has changed
 */
export async function change(
  store: Store,
  project: string,
  label: string,
  edits: Edits,
  automatic = false,
): Promise<Command | null> {
  const gesture = store.gestureNow();
  return stepping(store, project, async () => {
    const wanted = typeof edits === 'function' ? await edits(await readArranged(store, project)) : edits;
    const ops: FieldOp[] = [];
    for (const edit of wanted) {
      if ('create' in edit) {
        const { id, kind } = edit.create;
        for (const [field, after] of Object.entries(edit.create))
          ops.push({ record: id, kind, field, before: undefined, after });
        continue;
      }
      const id = 'remove' in edit ? edit.remove : edit.record;
      const record = await store.records.get(id);
      if (!record) refuse('gone', 'This is no longer in the project. Undo brings it back.');
      for (const [field, after] of Object.entries('remove' in edit ? { alive: false } : edit.set)) {
        const before = fieldOf(record, field);
        if (!same(before, after) || ('decided' in edit && edit.decided))
          ops.push({ record: id, kind: record.kind, field, before, after });
      }
    }
    if (ops.length === 0) return null;
    const id = await nextStamp(store);
    const command: Command = { id, project, label, ops, automatic, ...(gesture ? { gesture } : {}) };
    await write(store, ops, id);
    await store.commands.add(command);
    return command;
  });
}

/**
 * True for steps that undo and redo take. What the bench did by itself is passed over, what came from another device is
 * taken back there, and a project's beginning, removal and return are acts of their own: undo ends where the project
 * begins.
 */
const isStep = ({ automatic, elsewhere, project, ops }: Command): boolean =>
  !automatic &&
  !elsewhere &&
  !ops.some(({ record, field }) => record === project && (field === 'kind' || field === 'alive'));

/**
 * The steps that undo and redo would take next, oldest first: one command, or all of one gesture; none where there
 * is nothing to take.
 */
export function historyOf(commands: readonly Command[]): { undo: Command[]; redo: Command[] } {
  const done: Command[][] = [];
  const undone: Command[][] = [];
  for (const command of commands.filter(isStep)) {
    if (command.undoes) {
      const step = done.pop();
      if (step) undone.push(step);
    } else if (command.redoes) {
      const step = undone.pop();
      if (step) done.push(step);
    } else {
      const last = done.at(-1);
      if (command.gesture && last?.[0].gesture === command.gesture && undone.length === 0) last.push(command);
      else done.push([command]);
      undone.length = 0;
    }
  }
  return { undo: done.at(-1) ?? [], redo: undone.at(-1) ?? [] };
}

/** What some commands did together: each field once, from before the first to after the last. */
function netOps(commands: readonly Command[]): FieldOp[] {
  const net = new Map<string, FieldOp>();
  for (const op of commands.flatMap(({ ops }) => ops)) {
    const key = `${op.record} ${op.field}`;
    net.set(key, { ...op, before: net.has(key) ? net.get(key)?.before : op.before });
  }
  return [...net.values()];
}

/** What undo or redo did. */
export type Stepped = {
  /** of the step */
  label: string;
  /** changes of it that were put back or done again */
  moved: number;
  /** changes of it that stay as they are, because something changed them again since */
  left: number;
};

async function step(store: Store, project: string, way: 'undo' | 'redo'): Promise<Stepped | null> {
  const made = await stepping(store, project, async () => {
    const commands = await store.commands.where({ project }).sortBy('id');
    const targets = historyOf(commands)[way];
    const target = targets.at(-1);
    if (!target) return null;
    const wanted = netOps(targets);
    const ops: FieldOp[] = [];
    let left = 0;
    const records = await store.records.bulkGet([...new Set(wanted.map((op) => op.record))]);
    const fresh = new Set(wanted.filter((op) => op.field === 'kind').map((op) => op.record));
    for (const op of wanted) {
      // A record that the step made is only laid aside.
      if (fresh.has(op.record) && op.field !== 'alive') continue;
      const record = records.find((one) => one?.id === op.record);
      const now = record && fieldOf(record, op.field);
      const known = (value: unknown) => (op.field === 'alive' ? Boolean(value) : value);
      const [from, to] = (way === 'undo' ? [op.after, op.before] : [op.before, op.after]).map(known);
      // Only what still holds what the step wrote is put back.
      if (record && same(now, from)) ops.push({ ...op, before: now, after: to });
      else if (!same(now, to)) left++;
    }
    const link = way === 'undo' ? { undoes: target.id } : { redoes: target.id };
    const command: Command = { id: await nextStamp(store), project, label: target.label, ops, ...link };
    await write(store, ops, command.id);
    await store.commands.add(command);
    return { id: command.id, stepped: { label: target.label, moved: ops.length, left } };
  });
  return made?.stepped ?? null;
}

/** Takes back the last step, by a new command. Works across reloads and tabs. */
export const undo = (store: Store, project: string) => step(store, project, 'undo');
/** Does the last undone step again. */
export const redo = (store: Store, project: string) => step(store, project, 'redo');
