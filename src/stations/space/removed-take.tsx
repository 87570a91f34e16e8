'use client';
import { restoreTake } from '@/store/commands/takes';
import { emptyTake, type RemovedTake } from '@/store/space';
import { useServices } from '@/ui/bench-context';
import { sayBytes } from '@/ui/say-bytes';
import { sayRemoved, WaitingLine } from '@/ui/waiting-line';

/** A take that was removed and waits. */
export function RemovedTakeLine({ take, project }: { take: RemovedTake; project: string }) {
  const { store, attempt } = useServices();
  return (
    <WaitingLine
      name={take.name}
      about={`a take, ${sayBytes(take.bytes)} · ${sayRemoved(take.removed)}`}
      onBack={() => attempt(() => restoreTake(store, project, take.id))}
      onDelete={() => attempt(() => emptyTake(store, project, take.media))}
    />
  );
}
