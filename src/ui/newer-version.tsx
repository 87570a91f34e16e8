'use client';
import { useState } from 'react';
import { changeOver, useShell } from './shell';

/** Offers a newer version of the bench; this one goes on until the person changes over. */
export function NewerVersion() {
  const { newer } = useShell();
  const [later, setLater] = useState(false);
  if (newer === 'none' || (later && newer === 'ready')) return null;
  return (
    <div
      className="flex flex-wrap items-center gap-3 border-t border-line bg-raised px-5 py-1.5"
      role="status"
    >
      <span className="min-w-0 flex-1 basis-60">
        {newer === 'ready'
          ? 'A new version of the bench is ready. Your projects stay as they are.'
          : 'The bench was renewed in another tab. Load it again here too.'}
      </span>
      <button type="button" className="knob main" onClick={changeOver}>
        {newer === 'ready' ? 'Change over' : 'Load again'}
      </button>
      {newer === 'ready' && (
        <button type="button" className="knob" onClick={() => setLater(true)}>
          Later
        </button>
      )}
    </div>
  );
}
