import { refuse } from '@/core/error';
import { recordSchema, type AnyRecord } from '@/core/model/records';
import { applyOps, fieldOf, same } from './apply';
import type { Command, FieldOp, Store } from './db';

/** One thing to change: a new record, fields of one (dots lead inwards), or its end. */
export type Edit =
  { create: AnyRecord } | { record: string; set: Record<string, unknown> } | { remove: string };

/** Writes operations onto records; every result must satisfy the schema. */
async function write(store: Store, ops: readonly FieldOp[], stamp: string): Promise<void> {
  const ids = [...new Set(ops.map((op) => op.record))];
  const found = await store.records.bulkGet(ids);
  for (const [index, id] of ids.entries()) {
    const mine = ops.filter((one) => one.record === id);
    const record = applyOps(found[index], id, mine, stamp);
    const checked = recordSchema.safeParse(record);
    if (!checked.success) {
      const [issue] = checked.error.issues;
      refuse(
        'value',
        `${issue.path.join(' ')}: this value does not fit (${issue.message}). It was left as it was.`,
      );
    }
    await store.records.put(record);
  }
}

/** A stamp later than everything in this store, whatever the device's clock says. */
async function nextStamp(store: Store): Promise<string> {
  const last = await store.commands.orderBy('id').last();
  if (last) store.clock.saw(last.id);
  return store.clock.next();
}

/**
 * Makes one undoable step of some edits.
 * @param automatic done by the bench itself; undo passes over it
 * @returns the command, or null where nothing would change
 * @throws CoreError `value` where a value does not fit; then nothing has changed
 */
export async function change(
  store: Store,
  project: string,
  label: string,
  edits: readonly Edit[],
  automatic = false,
): Promise<Command | null> {
  return store.transaction('rw', store.records, store.commands, async () => {
    const ops: FieldOp[] = [];
    for (const edit of edits) {
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
        if (!same(before, after)) ops.push({ record: id, kind: record.kind, field, before, after });
      }
    }
    if (ops.length === 0) return null;
    const command: Command = { id: await nextStamp(store), project, label, ops, automatic };
    await write(store, ops, command.id);
    await store.commands.add(command);
    return command;
  });
}

/** The commands that undo and redo would take next. */
export function historyOf(commands: readonly Command[]): { undo: Command | null; redo: Command | null } {
  const done: Command[] = [];
  const undone: Command[] = [];
  const byId = new Map(commands.map((command) => [command.id, command]));
  for (const command of commands) {
    // What came from another device is taken back there, not here.
    if (command.automatic || command.elsewhere) continue;
    if (command.undoes) {
      done.pop();
      undone.push(byId.get(command.undoes) as Command);
    } else if (command.redoes) {
      undone.pop();
      done.push(byId.get(command.redoes) as Command);
    } else {
      done.push(command);
      undone.length = 0;
    }
  }
  return { undo: done.at(-1) ?? null, redo: undone.at(-1) ?? null };
}

async function step(store: Store, project: string, way: 'undo' | 'redo'): Promise<Command | null> {
  return store.transaction('rw', store.records, store.commands, async () => {
    const commands = await store.commands.where({ project }).sortBy('id');
    const target = historyOf(commands)[way];
    if (!target) return null;
    const ops: FieldOp[] = [];
    const records = await store.records.bulkGet([...new Set(target.ops.map((op) => op.record))]);
    const made = new Set(target.ops.filter((op) => op.field === 'kind').map((op) => op.record));
    for (const op of target.ops) {
      const record = records.find((one) => one?.id === op.record);
      const now = record && fieldOf(record, op.field);
      const [from, to] = way === 'undo' ? [op.after, op.before] : [op.before, op.after];
      const created = made.has(op.record) && op.field !== 'alive';
      // Only what still holds what the command wrote is put back; a record that it made is only laid aside.
      if (created || !record || !same(now, op.field === 'alive' && from === undefined ? false : from))
        continue;
      ops.push({ ...op, before: now, after: op.field === 'alive' ? Boolean(to) : to });
    }
    const link = way === 'undo' ? { undoes: target.id } : { redoes: target.id };
    const command: Command = { id: await nextStamp(store), project, label: target.label, ops, ...link };
    await write(store, ops, command.id);
    await store.commands.add(command);
    return target;
  });
}

/** Takes back the last step, by a new command. Works across reloads and tabs. */
export const undo = (store: Store, project: string) => step(store, project, 'undo');
/** Does the last undone step again. */
export const redo = (store: Store, project: string) => step(store, project, 'redo');
