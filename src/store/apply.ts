import { timeOfStamp } from '@/core/model/command';
import type { FieldOp, StoredRecord } from './db';

/** The value of a field whose name may lead inwards: "settings.feather". */
export function fieldOf(record: object, path: string): unknown {
  return path
    .split('.')
    .reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], record);
}

/** A record with a field set, or without it where the value is undefined; dots lead inwards. */
export function withField<Value extends object>(record: Value, path: string, value: unknown): Value {
  const [key, ...rest] = path.split('.');
  const { [key]: now, ...others } = record as Record<string, unknown>;
  const inner = rest.length ? withField({ ...(now as object) }, rest.join('.'), value) : value;
  return (inner === undefined ? others : { ...record, [key]: inner }) as Value;
}

/** A record, or none yet, with the operations of one command; each field takes the command's stamp. */
export function applyOps(
  record: StoredRecord | undefined,
  id: string,
  ops: readonly FieldOp[],
  stamp: string,
): StoredRecord {
  let next = record ?? ({ id, stamps: {} } as unknown as StoredRecord);
  for (const op of ops) {
    next = withField(next, op.field, op.after);
    next = { ...next, stamps: { ...next.stamps, [op.field]: stamp } };
  }
  return { ...next, changed: timeOfStamp(stamp) };
}

/** True where two values are written alike. */
export const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);
