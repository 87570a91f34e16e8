import { recordSchema } from '@/core/model/records';
import { applyOps } from '../apply';
import type { Command, FieldOp, StoredRecord } from '../db';

/** Both histories as one: each operation once, in the order of its stamp. Neither side comes first. */
export function unite(one: readonly Command[], two: readonly Command[]): Command[] {
  const all = new Map<string, Command>();
  for (const command of [...one, ...two]) {
    const known = all.get(command.id);
    // A setup's log carries only some operations of a command: the whole command may come later.
    const ops = known ? [...known.ops, ...command.ops.filter((op) => !has(known.ops, op))] : command.ops;
    all.set(command.id, { ...(known ?? command), ops: [...ops].sort(byPlace) });
  }
  return [...all.values()].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
}

const has = (ops: readonly FieldOp[], { record, field }: FieldOp) =>
  ops.some((op) => op.record === record && op.field === field);
const byPlace = (a: FieldOp, b: FieldOp) => {
  const [one, two] = [`${a.record} ${a.field}`, `${b.record} ${b.field}`];
  return one < two ? -1 : one > two ? 1 : 0;
};

/**
 * A record as its history makes it: of each field the latest change holds. A change that no longer fits what the
 * record became by others' earlier ones is passed over, the same on every device.
 * @param commands in the order of their stamps
 * @returns null where nothing ever made it whole
 */
export function replayRecord(id: string, commands: readonly Command[]): StoredRecord | null {
  const steps = commands
    .map((command) => ({ stamp: command.id, ops: command.ops.filter((op) => op.record === id) }))
    .filter(({ ops }) => ops.length > 0);
  const whole = steps.reduce<StoredRecord | undefined>(
    (record, { ops, stamp }) => applyOps(record, id, ops, stamp),
    undefined,
  );
  if (whole && recordSchema.safeParse(whole).success) return whole;
  let valid: StoredRecord | null = null;
  let built: StoredRecord | undefined;
  for (const { ops, stamp } of steps) {
    const next = applyOps(valid ?? built, id, ops, stamp);
    if (recordSchema.safeParse(next).success) valid = next;
    else if (!valid) built = next;
  }
  return valid;
}
