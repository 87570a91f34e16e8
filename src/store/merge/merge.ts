import { refuse } from '@/core/error';
import { change } from '../change';
import type { Command, Conflict, Store } from '../db';
import { conflictsOf, isSettled } from './conflicts';
import { replayRecord, unite } from './replay';

export type Merged = {
  steps: number;
  records: number;
  conflicts: Conflict[];
  /** steps of a history of which none could be used: nothing of it was kept */
  refused: number;
};

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
    // A history whose every step was passed over is not kept: steps that were made up under the stamps of others'
    // would else stand in for those when they come.
    const made = new Map(records.map((record) => [record.id, record]));
    const counts = ({ id, ops }: Command) =>
      ops.some(({ record, field }) => (made.get(record)?.stamps[field] ?? '') >= id);
    if (!fresh.some(counts)) return { steps: 0, records: 0, conflicts: [], refused: fresh.length };
    await store.writeRows('records', records);
    const conflicts = conflictsOf(project, mine, theirs);
    await dropSettled(store, project);
    await store.commands.bulkPut(
      fresh.map((command) => ({
        ...command,
        ...(before.has(command.id) && !before.get(command.id)?.elsewhere ? {} : { elsewhere: true }),
      })),
    );
    for (const { id } of fresh) store.clock.saw(id);
    await store.writeRows('conflicts', conflicts);
    return { steps: fresh.length, records: records.length, conflicts, refused: 0 };
  });
}

/** Takes off the list what was settled on another device, or decided by changing it once more. */
async function dropSettled(store: Store, project: string): Promise<void> {
  const conflicts = await store.conflicts.where({ project }).toArray();
  const records = await store.records.bulkGet(conflicts.map(({ record }) => record));
  const settled = conflicts.filter((conflict, index) => isSettled(conflict, records[index]));
  await store.removeRows(
    'conflicts',
    project,
    settled.map(({ id }) => id),
  );
}

/**
 * Chooses one side of a conflict, also where that is in force already, so that the other device hears of it; undo
 * goes back.
 * @throws CoreError `conflict.settled` where the field was changed once more since; then it stays as it is
 */
export async function chooseSide(store: Store, conflict: Conflict, side: 'here' | 'there'): Promise<void> {
  const { project, record, field, id } = conflict;
  if (isSettled(conflict, await store.records.get(record))) {
    await store.removeRows('conflicts', project, [id]);
    refuse('conflict.settled', 'This was changed once more since, and stays as it is now.');
  }
  await change(store, project, 'Choose between two changes', [
    { record, set: { [field]: conflict[side] }, decided: true },
  ]);
  await store.removeRows('conflicts', project, [id]);
}
