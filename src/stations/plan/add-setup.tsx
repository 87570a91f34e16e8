'use client';
import { addSetup } from '@/store/commands/plan';
import { useData, useServices } from '@/ui/bench-context';

/** Makes another setup and goes there. */
export function AddSetup() {
  const { store, attempt, go } = useServices();
  const projectId = useData((data) => data.snapshot.project.id);
  return (
    <button
      type="button"
      className="knob"
      onClick={() => attempt(async () => go({ setup: await addSetup(store, projectId) }))}
    >
      Add a setup
    </button>
  );
}
