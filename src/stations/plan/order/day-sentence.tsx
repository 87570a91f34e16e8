'use client';
import { useState } from 'react';
import type { Day } from '@/core/model/plan-records';
import { usualDay } from '@/core/plan/plan';
import { instantOf } from '@/core/time/zone';
import { setDay } from '@/store/commands/plan';
import { useData, useServices } from '@/ui/bench-context';
import { LiveNumber } from '@/ui/live-number';
import { Term } from '@/ui/term';

type Said = 'date' | 'start' | 'end' | 'zone';
const zones = Intl.supportedValuesOf('timeZone');

/** A date, a time or a zone, chosen with what the device has for it. Half of one is not kept. */
function DayField({
  label,
  type,
  value,
  onChange,
}: {
  label: string;
  type: 'date' | 'time' | 'text';
  value: string;
  onChange: (value: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const end = () => {
    if (typed !== null && typed !== '' && typed !== value) onChange(typed.trim());
    setTyped(null);
  };
  return (
    <input
      type={type}
      aria-label={label}
      list={type === 'text' ? 'zones' : undefined}
      className="live num bg-transparent"
      style={{ width: type === 'text' ? `${Math.max(12, value.length + 4)}ch` : undefined }}
      value={typed ?? value}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={end}
      onKeyDown={(event) => {
        if (event.key === 'Enter') end();
        if (event.key === 'Escape') setTyped(null);
      }}
    />
  );
}

/** The day of filming in a sentence. */
export function DaySentence() {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const { day } = snapshot;
  const save = (set: Parameters<typeof setDay>[2]) => attempt(() => setDay(store, snapshot.project.id, set));
  const field = (label: string, name: Said, type: 'date' | 'time' | 'text', otherwise: string) => (
    <DayField
      label={label}
      type={type}
      value={day?.[name] ?? otherwise}
      onChange={(value) =>
        attempt(async () => {
          if (name === 'zone') instantOf('2026-01-01', '00:00', value);
          await setDay(store, snapshot.project.id, { [name]: value });
        })
      }
    />
  );
  const minutes = (label: string, field: 'setUp' | 'changing' | 'reset' | 'rehearsal', step: number) => (
    <LiveNumber
      label={label}
      value={day?.[field] ?? usualDay[field]}
      step={step}
      min={0}
      show={(value) => `${Number(value.toFixed(1))} min`}
      onChange={(value) => save({ [field]: value } as Partial<Day>)}
    />
  );
  return (
    <p className="font-serif text-[16px] leading-[1.9]" data-testid="day">
      On {field('Date', 'date', 'date', '')}, from {field('From', 'start', 'time', '15:00')} until{' '}
      {field('Until', 'end', 'time', '23:00')} (
      {field('Time zone', 'zone', 'text', Intl.DateTimeFormat().resolvedOptions().timeZone)}
      <datalist id="zones">
        {zones.map((zone) => (
          <option key={zone} value={zone} />
        ))}
      </datalist>
      ). A setup takes {minutes('Setting up', 'setUp', 5)}, changing clothes{' '}
      {minutes('Changing clothes', 'changing', 1)}, setting back between takes{' '}
      {minutes('Setting back', 'reset', 0.5)}, rehearsing what can go wrong{' '}
      {minutes('Rehearsal', 'rehearsal', 1)}. Every shot runs{' '}
      <LiveNumber
        label="Spare length on both sides"
        value={day?.handle ?? usualDay.handle}
        step={0.5}
        min={0}
        max={30}
        show={(value) => `${Number(value.toFixed(1))} s`}
        onChange={(handle) => save({ handle })}
      />{' '}
      longer on both sides, as its <Term word="handle" />.
    </p>
  );
}
