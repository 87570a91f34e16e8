'use client';
import type { Day } from '@/core/model/plan-records';
import { usualDay } from '@/core/plan/plan';
import { instantOf } from '@/core/time/zone';
import { setDay } from '@/store/commands/plan';
import { useBench } from '@/ui/bench-context';
import { LiveNumber } from '@/ui/live-number';
import { LiveText } from '@/ui/live-text';

/** "9:5" and "9.05" as "09:05"; anything else as it was typed. */
const tidyClock = (text: string): string => {
  const match = /^(\d{1,2})[:.h ]?(\d{2})?$/.exec(text.trim());
  return match ? `${match[1].padStart(2, '0')}:${match[2] ?? '00'}` : text.trim();
};

/** The day of filming in a sentence. */
export function DaySentence() {
  const { snapshot, store, attempt } = useBench();
  const { day } = snapshot;
  const save = (set: Parameters<typeof setDay>[2]) => attempt(() => setDay(store, snapshot.project.id, set));
  const words = (label: string, field: 'date' | 'start' | 'end' | 'zone', otherwise: string) => (
    <span className="inline-block">
      <LiveText
        label={label}
        value={day?.[field] ?? otherwise}
        onChange={(text) => {
          const value = field === 'start' || field === 'end' ? tidyClock(text) : text.trim();
          void attempt(async () => {
            if (field === 'zone') instantOf('2026-01-01', '00:00', value);
            if (field === 'date') instantOf(value, '00:00', day?.zone ?? 'UTC');
            await setDay(store, snapshot.project.id, { [field]: value });
          });
        }}
      />
    </span>
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
      On {words('Date', 'date', 'a date like 2026-11-28')}, from {words('From', 'start', '15:00')} until{' '}
      {words('Until', 'end', '23:00')} (
      {words('Time zone', 'zone', Intl.DateTimeFormat().resolvedOptions().timeZone)}
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
      longer on both sides.
    </p>
  );
}
