'use client';
import { useLiveQuery } from 'dexie-react-hooks';
import type { Take } from '@/core/model/records';
import { bytesOfTake, usesOfTake } from '@/store/space';
import { useData, useServices } from '@/ui/bench-context';
import { sayBytes } from '@/ui/say-bytes';
import { useRemoveTake } from '../use-remove-take';

/** A take with what it weighs and what uses it. */
export function TakeLine({ take }: { take: Take }) {
  const { store } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const bytes = useLiveQuery(() => bytesOfTake(store, take.media), [store, take.media]) ?? 0;
  const uses = usesOfTake(snapshot, take);
  const { remove, asking } = useRemoveTake(take);
  return (
    <li className="flex flex-wrap items-baseline gap-x-3 border-b border-dotted border-line py-1.5">
      <b className="min-w-0 flex-1 basis-40 truncate font-medium">{take.name}</b>
      <span className="min-w-0 flex-1 basis-40 text-ink2 desk:truncate">
        {uses.length > 0 ? uses.join(', ') : 'used nowhere'}
      </span>
      <span className="num">{sayBytes(bytes)}</span>
      <button type="button" className="knob" aria-label={`Remove ${take.name}`} onClick={remove}>
        Remove
      </button>
      {asking}
    </li>
  );
}
