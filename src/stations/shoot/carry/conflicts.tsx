'use client';
import { useLiveQuery } from 'dexie-react-hooks';
import type { Conflict, StoredRecord } from '@/store/db';
import { chooseSide } from '@/store/merge/merge';
import { useData, useServices } from '@/ui/bench-context';

/** What a record is called. */
function nameOf(record: StoredRecord | undefined, titles: Record<string, string>): string {
  if (!record) return 'Something';
  if (record.kind === 'log') return `${titles[record.shot] ?? 'A shot'}, take ${record.number}`;
  if ('name' in record) return record.name;
  if ('title' in record) return record.title;
  return `A ${record.kind}`;
}

/** A field's name as people read it: "settings.feather" becomes "feather", "slots.left.take" becomes "left take". */
const fieldName = (field: string): string =>
  field
    .replace(/^(settings|slots)\./, '')
    .replace(/\./g, ' ')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase();

function sayValue(value: unknown, field: string): string {
  if (field === 'alive') return value === false ? 'removed' : 'kept';
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'object') return JSON.stringify(value).slice(0, 140);
  return String(value);
}

/** What two devices changed differently, side by side. */
export function Conflicts() {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const { conflicts } = snapshot;
  const ids = conflicts.map(({ record }) => record).join('\n');
  const records = useLiveQuery(() => store.records.bulkGet(ids ? ids.split('\n') : []), [store, ids]) ?? [];
  if (conflicts.length === 0) return null;
  const titles = Object.fromEntries(
    plan.boards.flatMap(({ rows }) => rows.map(({ id, title }) => [id, title])),
  );
  return (
    <section className="flex flex-col gap-3" aria-label="Changed on both devices" data-testid="conflicts">
      <h2 className="text-[18px] font-[560]">Changed on both devices</h2>
      {conflicts.map((conflict) => (
        <Choice
          key={conflict.id}
          conflict={conflict}
          name={nameOf(
            records.find((record) => record?.id === conflict.record),
            titles,
          )}
          onChoose={(side) => attempt(() => chooseSide(store, conflict, side))}
        />
      ))}
    </section>
  );
}

function Choice({
  conflict,
  name,
  onChoose,
}: {
  conflict: Conflict;
  name: string;
  onChoose: (side: 'here' | 'there') => void;
}) {
  return (
    <div className="border-l-4 border-saffron bg-raised px-3 py-2.5" data-conflict={conflict.field}>
      <p className="font-semibold">
        {name}:{' '}
        {conflict.field === 'alive'
          ? 'removed on one device, changed on the other'
          : fieldName(conflict.field)}
      </p>
      <div className="mt-2 grid grid-cols-2 gap-2.5">
        {(['here', 'there'] as const).map((side) => (
          <div key={side} className="flex flex-col gap-2 bg-ground p-2.5">
            <span className="text-[13px] text-ink2">
              {side === 'here' ? 'On this device' : 'On the other one'} ({conflict.labels[side]})
            </span>
            <span className="min-w-0 break-words">{sayValue(conflict[side], conflict.field)}</span>
            <span className="flex-1" />
            <button type="button" className="knob" onClick={() => onChoose(side)}>
              {conflict.holds === side ? 'Keep this (in force)' : 'Keep this'}
            </button>
          </div>
        ))}
      </div>
    </div>
  );
}
