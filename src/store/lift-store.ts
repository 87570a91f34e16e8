import type { Transaction } from 'dexie';
import { liftOps } from '@/core/model/lift';
import type { Command, Conflict, StoredRecord } from './db';
import { replayRecord } from './merge/replay';

/** Lifts all that this store keeps of projects, histories first: records are what their histories make of them. */
export async function liftStore(transaction: Transaction, from: number): Promise<void> {
  const commands = transaction.table<Command, string>('commands');
  const records = transaction.table<StoredRecord, string>('records');
  const conflicts = transaction.table<Conflict, string>('conflicts');
  // What was solved for an earlier model is solved again: sides had no order, then one tap at most.
  const measures = transaction.table<{ value: { method: string } }, string>('measures');
  await measures.filter(({ value }) => ['seam-1', 'seam-2'].includes(value.method)).delete();
  const histories = new Map<string, Command[]>();
  for (const command of await commands.orderBy('id').toArray()) {
    const lifted = { ...command, ops: liftOps(command.ops, from) };
    await commands.put(lifted);
    for (const id of new Set(lifted.ops.map(({ record }) => record)))
      histories.set(id, [...(histories.get(id) ?? []), lifted]);
  }
  const kinds = new Map<string, StoredRecord['kind']>();
  for (const { id, kind } of await records.toArray()) {
    kinds.set(id, kind);
    const record = replayRecord(id, histories.get(id) ?? []);
    if (record) await records.put(record);
  }
  for (const { here, there, ...conflict } of await conflicts.toArray()) {
    const { id, record, field } = conflict;
    const kind = kinds.get(record);
    if (!kind) continue;
    const [lifted] = liftOps([{ kind, field, before: here, after: there }], from);
    if (lifted.field !== field) await conflicts.delete(id);
    await conflicts.put({
      ...conflict,
      id: `${record}\n${lifted.field}`,
      field: lifted.field,
      here: lifted.before,
      there: lifted.after,
    });
  }
}

/** Takes that were measured before each measure had a key of its own are measured again; nothing else is lost. */
export async function dropOldTakeMeasures(transaction: Transaction): Promise<void> {
  const measures = transaction.table<{ value: { method: string } }, string>('measures');
  await measures.filter(({ value }) => ['take-2', 'compare-1'].includes(value.method)).delete();
  await transaction.table('stills').clear();
}

/**
 * Songs that were measured before each part had a key of its own are measured again. Their decoded sound stays: where
 * it began late by what the encoder put before it, beats that lie on it are moved with it.
 */
export async function dropOldSongMeasures(transaction: Transaction): Promise<void> {
  const measures = transaction.table<{ value: { method: string } }, string>('measures');
  await measures.filter(({ value }) => value.method === 'song-2').delete();
}
