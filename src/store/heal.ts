import { commandSchema, latestStamp } from '@/core/model/command';
import { recordSchema } from '@/core/model/records';
import { isWrongType } from '@/core/model/typed';
import type { Command, Store, StoredRecord } from './db';
import { replayRecord } from './merge/replay';

const isSound = (command: Command): boolean =>
  commandSchema.safeParse(command).success && !command.ops.some(isWrongType);

/**
 * Takes out of this store what a bad file brought into a project before files were checked as they are now: steps
 * stamped with a time that no clock has, or that write what can stand in no field. Records are made anew of the steps
 * that are left.
 * @returns how many steps and records were mended
 */
export async function heal(store: Store, project: string): Promise<number> {
  const tables = [store.records, store.commands, store.writes];
  const late = await store.commands.where('id').above(latestStamp).count();
  const records = await store.records.where({ project }).toArray();
  const broken = records.filter((record) => !recordSchema.safeParse(record).success);
  if (late === 0 && broken.length === 0) return 0;
  return store.transaction('rw', tables, async () => {
    const commands = await store.commands.where({ project }).sortBy('id');
    const bad = commands.filter((command) => !isSound(command));
    await store.commands.bulkDelete(bad.map(({ id }) => id));
    const sound = commands.filter((command) => !bad.includes(command));
    const touched = new Set([
      ...bad.flatMap(({ ops }) => ops.map(({ record }) => record)),
      ...broken.map(({ id }) => id),
    ]);
    const mended: StoredRecord[] = [];
    const gone: string[] = [];
    for (const id of touched) {
      const record = replayRecord(
        id,
        sound.filter(({ ops }) => ops.some((op) => op.record === id)),
      );
      if (record?.project === project) mended.push(record);
      else if (records.some((one) => one.id === id)) gone.push(id);
    }
    await store.writeRows('records', mended);
    await store.removeRows('records', project, gone);
    return bad.length + mended.length + gone.length;
  });
}
