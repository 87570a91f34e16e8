import { same } from '../apply';
import type { Command, Conflict, FieldOp, StoredRecord } from '../db';

type Last = { op: FieldOp; stamp: string; label: string };

const bookkeeping = new Set(['id', 'project', 'kind', 'created', 'changed']);

/** The last change of each field in a person's steps that only one side has. */
function lastChanges(commands: readonly Command[], known: ReadonlySet<string>): Map<string, Last> {
  const out = new Map<string, Last>();
  for (const command of [...commands].sort((a, b) => (a.id < b.id ? -1 : 1))) {
    if (known.has(command.id) || command.automatic) continue;
    for (const op of command.ops) {
      if (bookkeeping.has(op.field)) continue;
      out.set(`${op.record}\n${op.field}`, { op, stamp: command.id, label: command.label });
    }
  }
  return out;
}

/** True where a field was changed once more after the two changes that a conflict lists. */
export const isSettled = ({ field, since }: Conflict, record: StoredRecord | undefined): boolean =>
  record !== undefined &&
  since !== undefined &&
  Object.entries(record.stamps).some(([one, stamp]) => overlaps(one, field) && stamp > since);

const overlaps = (a: string, b: string) => a === b || a.startsWith(`${b}.`) || b.startsWith(`${a}.`);

/**
 * Fields that both sides changed since they were last alike, to different values; and records that one side
 * removed while the other one went on with them.
 */
export function conflictsOf(
  project: string,
  here: readonly Command[],
  there: readonly Command[],
): Conflict[] {
  const ids = (commands: readonly Command[]) => new Set(commands.map(({ id }) => id));
  const mine = lastChanges(here, ids(there));
  const theirs = [...lastChanges(there, ids(here)).values()];
  const out = new Map<string, Conflict>();
  for (const one of mine.values()) {
    for (const two of theirs) {
      if (one.op.record !== two.op.record) continue;
      const removed = [one, two].filter(({ op }) => op.field === 'alive' && op.after === false);
      const clash = overlaps(one.op.field, two.op.field)
        ? !same(one.op.after, two.op.after)
        : removed.length === 1;
      if (!clash) continue;
      const removal = removed.length === 1 && one.op.field !== two.op.field;
      const field = removal ? 'alive' : one.op.field;
      const id = `${one.op.record}\n${field}`;
      if (out.has(id)) continue;
      out.set(id, {
        id,
        project,
        record: one.op.record,
        field,
        here: removal ? removed[0] !== one : one.op.after,
        there: removal ? removed[0] !== two : two.op.after,
        holds: removal ? (removed[0] === one ? 'here' : 'there') : one.stamp > two.stamp ? 'here' : 'there',
        labels: { here: one.label, there: two.label },
        since: one.stamp > two.stamp ? one.stamp : two.stamp,
      });
    }
  }
  return [...out.values()];
}
