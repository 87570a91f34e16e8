'use client';
import { useState, useSyncExternalStore } from 'react';
import type { Halted } from '@/store/db';
import { lacksOf } from '@/store/needs';
import { useData, useServices } from './bench-context';
import { Progress } from './progress';

const nothing = () => null;
const none = (): readonly Halted[] => noHalted;
const noHalted: readonly Halted[] = [];

/** A file that cannot be decoded is no better the next time. */
const canBeTriedAgain = ({ reason }: Halted): boolean =>
  reason === 'cancelled' || !reason.code.startsWith('media.');

/** What is being done, how far it is, the time left, and a way to end it; and what was ended. */
export function ActivityStrip() {
  const { attempt, runner } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const activity = useSyncExternalStore(runner.subscribe, runner.current, nothing);
  const unwritten = useSyncExternalStore(runner.subscribe, runner.notWrittenDown, none);
  const [all, setAll] = useState(false);
  // What is no longer wanted is nothing to be told either: its file or its take is gone, or it was done otherwise.
  const wanted = new Set(lacksOf(snapshot).map(({ key }) => key));
  const halted = [...snapshot.halted.values(), ...unwritten].filter(
    ({ key, reason, dismissed }) =>
      wanted.has(key) && !dismissed && (reason === 'cancelled' || reason.message !== ''),
  );
  if (!activity && halted.length === 0) return null;
  const shown = all ? halted : halted.slice(0, 3);
  return (
    <div className="flex flex-col gap-1 border-t border-line bg-raised px-5 py-1.5">
      {/* Readers hear what is begun, not each second of it. */}
      <p className="sr-only" role="status">
        {activity?.label}
      </p>
      {activity && (
        <div className="flex items-center gap-3">
          <span className="min-w-0 truncate">{activity.label}</span>
          <Progress label={activity.label} share={activity.share} />
          <span className="num text-ink2 phone:hidden">
            {activity.left === null ? 'working out the time' : `${Math.ceil(activity.left)} s left`}
            {activity.waiting > 0 ? ` · ${activity.waiting} more` : ''}
          </span>
          <button
            type="button"
            className="knob"
            onClick={() => attempt(async () => runner.cancel(activity.key))}
          >
            Cancel
          </button>
        </div>
      )}
      <ul className="flex max-h-40 list-none flex-col gap-1 overflow-auto">
        {shown.map((one) => (
          <li key={one.key} data-halted={one.key} className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <span className="min-w-0 flex-1 basis-56">
              {one.label}: {one.reason === 'cancelled' ? 'cancelled.' : one.reason.message}
            </span>
            <span className="ml-auto flex gap-2">
              {canBeTriedAgain(one) && (
                <button
                  type="button"
                  className="knob"
                  aria-label={`Do it again: ${one.label}`}
                  onClick={() => attempt(async () => runner.again(one.key))}
                >
                  Do it again
                </button>
              )}
              <button
                type="button"
                className="knob"
                aria-label={`Dismiss: ${one.label}`}
                onClick={() => attempt(async () => runner.dismiss([one.key]))}
              >
                Dismiss
              </button>
            </span>
          </li>
        ))}
      </ul>
      {halted.length > 3 && (
        <div className="flex flex-wrap gap-2">
          <button type="button" className="knob" onClick={() => setAll(!all)}>
            {all ? 'Show three' : `Show all ${halted.length}`}
          </button>
          <button
            type="button"
            className="knob"
            onClick={() => attempt(async () => runner.dismiss(halted.map(({ key }) => key)))}
          >
            Dismiss all
          </button>
        </div>
      )}
    </div>
  );
}
