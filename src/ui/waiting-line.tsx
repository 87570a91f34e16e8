'use client';
import { useState } from 'react';

/** Something that was removed and waits: brought back with one press, deleted for good with two. */
export function WaitingLine({
  name,
  about,
  onBack,
  onDelete,
}: {
  name: string;
  about: string;
  onBack: () => void;
  onDelete: () => void;
}) {
  const [sure, setSure] = useState(false);
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-dotted border-line py-2">
      <span className="min-w-0 flex-1 basis-40">
        <b className="block truncate font-serif text-[15px] font-medium">{name}</b>
        <span className="text-ink2">{about}</span>
      </span>
      {sure && <span className="basis-full">Nothing brings it back then.</span>}
      <span className="ml-auto flex gap-2">
        {sure ? (
          <>
            <button type="button" className="knob" onClick={() => setSure(false)}>
              Keep it
            </button>
            <button
              type="button"
              className="knob main"
              aria-label={`Delete for good: ${name}`}
              onClick={onDelete}
            >
              Delete for good
            </button>
          </>
        ) : (
          <>
            <button type="button" className="knob" aria-label={`Bring back ${name}`} onClick={onBack}>
              Bring back
            </button>
            <button
              type="button"
              className="knob"
              aria-label={`Delete for good …: ${name}`}
              onClick={() => setSure(true)}
            >
              Delete for good …
            </button>
          </>
        )}
      </span>
    </li>
  );
}

/** "removed 27 Nov 2026, 13:40" */
export const sayRemoved = (when: number): string =>
  `removed ${new Date(when).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}`;
