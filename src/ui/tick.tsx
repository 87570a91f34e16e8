'use client';
import { tick } from '@/store/commands/plan';
import { useData, useServices } from './bench-context';

/** Keys of everything that is ticked. */
export function useTicks(): Set<string> {
  const snapshot = useData((data) => data.snapshot);
  return new Set(snapshot.ticks.filter(({ done }) => done).map((one) => one.of));
}

/** One line of a list to tick. */
export function Tick({ of, text, done, label }: { of: string; text: string; done: boolean; label?: string }) {
  const { store, attempt } = useServices();
  const projectId = useData((data) => data.snapshot.project.id);
  return (
    <label className="flex min-h-7 items-start gap-2 py-0.5 pointer-coarse:min-h-11 pointer-coarse:py-2">
      <input
        type="checkbox"
        aria-label={label}
        className="mt-0.5 h-4 w-4 flex-none accent-[var(--verdigris)]"
        checked={done}
        onChange={({ target: { checked } }) => attempt(() => tick(store, projectId, of, checked))}
      />
      <span className={done ? 'text-ink2 line-through' : ''}>{text}</span>
    </label>
  );
}
