'use client';
import { useState } from 'react';

/** Words that are changed where they stand: press, type, Enter. */
export function LiveText({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
}) {
  const [typing, setTyping] = useState<string | null>(null);
  if (typing === null) {
    return (
      <button
        type="button"
        aria-label={`${label}: ${value}`}
        className="live-text min-h-6 max-w-full truncate border-b border-transparent text-left font-semibold hover:border-ink2"
        onClick={() => setTyping(value)}
      >
        {value}
      </button>
    );
  }
  const finish = () => {
    setTyping(null);
    const next = typing.trim();
    if (next !== '' && next !== value) onChange(next);
  };
  return (
    <input
      aria-label={label}
      autoFocus
      className="w-full border-b-2 border-ink2 bg-sunk px-1"
      value={typing}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setTyping(event.target.value)}
      onBlur={finish}
      onKeyDown={(event) => {
        if (event.key === 'Enter') finish();
        if (event.key === 'Escape') setTyping(null);
      }}
    />
  );
}
