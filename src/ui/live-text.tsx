'use client';
import { useEffect, useRef, useState } from 'react';
import { longestName } from '@/core/model/base';
import { focused } from './focused';
import { Longest } from './longest';

/**
 * Words that are changed where they stand: press, type, Enter.
 * @param empty what stands there for no words; left out, words cannot be emptied
 * @param most letters that are taken; said once they are reached
 */
export function LiveText({
  label,
  value,
  empty,
  most = longestName,
  onChange,
}: {
  label: string;
  value: string;
  empty?: string;
  most?: number;
  onChange: (value: string) => void;
}) {
  const [typing, setTyping] = useState<string | null>(null);
  const shown = useRef<HTMLButtonElement>(null);
  const refocus = useRef(false);
  const ended = useRef(false);
  useEffect(() => {
    if (typing !== null || !refocus.current) return;
    refocus.current = false;
    shown.current?.focus();
  }, [typing]);
  if (typing === null)
    return (
      <button
        ref={shown}
        type="button"
        aria-label={`${label}: ${value || (empty ?? '')}`}
        className="live max-w-full text-left font-semibold"
        onClick={() => {
          ended.current = false;
          setTyping(value);
        }}
      >
        <span className={`min-w-0 truncate ${value ? '' : 'font-normal text-ink2'}`}>{value || empty}</span>
      </button>
    );
  const end = (keep: boolean, byKey: boolean) => {
    // Taking the field away blurs it once more.
    if (ended.current) return;
    ended.current = true;
    refocus.current = byKey;
    setTyping(null);
    const next = typing.trim();
    if (keep && next !== value && (next !== '' || empty !== undefined)) onChange(next);
  };
  const input = (
    <input
      aria-label={label}
      ref={focused}
      maxLength={most}
      enterKeyHint="done"
      className="live w-full bg-sunk text-left"
      value={typing}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setTyping(event.target.value)}
      onBlur={() => end(true, false)}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key !== 'Enter' && event.key !== 'Escape') return;
        // What has the focus next is not pressed by the same key.
        event.preventDefault();
        end(event.key === 'Enter', true);
      }}
    />
  );
  return (
    <>
      {input}
      {typing.length >= most && <Longest most={most} />}
    </>
  );
}
