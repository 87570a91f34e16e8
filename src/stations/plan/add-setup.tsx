'use client';
import { addSetup } from '@/store/commands/plan';
import { useBench } from '@/ui/bench-context';

/** Makes another setup and goes there. */
export function AddSetup() {
  const { store, snapshot, attempt, go } = useBench();
  return (
    <button
      type="button"
      className="knob"
      onClick={() => attempt(async () => go({ setup: await addSetup(store, snapshot.project.id) }))}
    >
      Add a setup
    </button>
  );
}
