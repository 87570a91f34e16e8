import { refuse } from '@/core/error';
import { change } from '../change';
import type { Command, Conflict, Store } from '../db';
import { conflictsOf } from './conflicts';
import { replayRecord, unite } from './replay';

export type Merged = { steps: number; records: number; conflicts: Conflict[] };

/**
 * Takes another device's history of a project in. Both sides' edits survive; where both changed one field, the
 * later change holds and the field is listed to choose.
 * @throws CoreError `merge.other` where the history reaches into another project; then nothing has changed
 */
export async function mergeHistory(
  store: Store,
  project: string,
  theirs: readonly Command[],
): Promise<Merged> {
  const tables = [store.records, store.writes, store.commands, store.conflicts];
  return store.transaction('rw', tables, async () => {
    const mine = await store.commands.where({ project }).sortBy('id');
    const all = unite(mine, theirs);
    const before = new Map(mine.map((command) => [command.id, command]));
    const fresh = all.filter(({ id, ops }) => before.get(id)?.ops.length !== ops.length);
    const touched = [...new Set(fresh.flatMap(({ ops }) => ops.map(({ record }) => record)))];
    const known = await store.records.bulkGet(touched);
    const foreign = known.some((record) => record && record.project !== project);
    if (foreign || theirs.some((command) => command.project !== project)) {
      refuse(
        'merge.other',
        'This file reaches into another project. Nothing was changed. Carry it over again.',
      );
    }
    const byRecord = new Map<string, Command[]>(touched.map((id) => [id, []]));
    for (const command of all)
      for (const id of new Set(command.ops.map(({ record }) => record))) byRecord.get(id)?.push(command);
    const records = [...byRecord].flatMap(([id, commands]) => {
      const record = replayRecord(id, commands);
      return record && record.project === project ? [record] : [];
    });
    await store.writeRows('records', records);
    const conflicts = conflictsOf(project, mine, theirs);
    await store.commands.bulkPut(
      fresh.map((command) => ({
        ...command,
        ...(before.has(command.id) && !before.get(command.id)?.elsewhere ? {} : { elsewhere: true }),
      })),
    );
    for (const { id } of fresh) store.clock.saw(id);
    await store.writeRows('conflicts', conflicts);
    return { steps: fresh.length, records: records.length, conflicts };
  });
}

/** Chooses one side of a conflict; undo goes back to the other. */
export async function chooseSide(store: Store, conflict: Conflict, side: 'here' | 'there'): Promise<void> {
  await change(store, conflict.project, 'Choose between two changes', [
    { record: conflict.record, set: { [conflict.field]: conflict[side] } },
  ]);
  await store.removeRows('conflicts', conflict.project, [conflict.id]);
}
