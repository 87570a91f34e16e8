'use client';
import { useSyncExternalStore } from 'react';
import type { Halted } from '@/store/db';
import type { Runner } from '@/workers/runner';
import { useBench } from './bench-context';
import { Progress } from './progress';

const nothing = () => null;
const none = (): readonly Halted[] => noHalted;
const noHalted: readonly Halted[] = [];
const unheard = () => () => undefined;

/** What is being done, how far it is, the time left, and a way to end it; and what was ended. */
export function ActivityStrip({ runner }: { runner: Runner | null }) {
  const { snapshot, attempt } = useBench();
  const activity = useSyncExternalStore(runner?.subscribe ?? unheard, runner?.current ?? nothing, nothing);
  const unwritten = useSyncExternalStore(runner?.subscribe ?? unheard, runner?.notWrittenDown ?? none, none);
  const halted = [...snapshot.halted.values(), ...unwritten].filter(
    (one) => one.reason === 'cancelled' || one.reason.message !== '',
  );
  if (!activity && halted.length === 0) return null;
  return (
    <div
      className="flex flex-col gap-1 border-t border-line bg-raised px-5 py-1.5"
      role="status"
      aria-live="polite"
    >
      {activity && (
        <div className="flex items-center gap-3">
          <span className="min-w-0 truncate">{activity.label}</span>
          <Progress label={activity.label} share={activity.share} />
          <span className="num text-ink2 max-sm:hidden">
            {activity.left === null ? 'working out the time' : `${Math.ceil(activity.left)} s left`}
            {activity.waiting > 0 ? ` · ${activity.waiting} more` : ''}
          </span>
          <button
            type="button"
            className="knob"
            onClick={() => attempt(async () => runner?.cancel(activity.key))}
          >
            Cancel
          </button>
        </div>
      )}
      {halted.slice(0, 3).map((one) => (
        <div key={one.key} className="flex items-center gap-3">
          <span className="min-w-0 flex-1">
            {one.label}: {one.reason === 'cancelled' ? 'cancelled.' : one.reason.message}
          </span>
          <button type="button" className="knob" onClick={() => attempt(async () => runner?.again(one.key))}>
            Do it again
          </button>
        </div>
      ))}
    </div>
  );
}
