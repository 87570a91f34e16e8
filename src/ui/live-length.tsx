'use client';
import { otherUnits, readLength, sayLength } from '@/core/units';
import { useData } from './bench-context';
import { LiveNumber } from './live-number';

/** A length in metres, shown and read in the project's units; the other units on hover. */
export function LiveLength({
  label,
  value,
  min,
  dye,
  onDraft,
  onChange,
}: {
  label: string;
  value: number;
  min?: number;
  dye?: string;
  onDraft?: (metres: number | null) => void;
  onChange: (metres: number) => void | Promise<void>;
}) {
  const units = useUnits();
  return (
    <LiveNumber
      label={label}
      value={value}
      step={units === 'metric' ? 0.01 : 0.0127}
      min={min}
      dye={dye}
      show={(metres) => sayLength(metres, units)}
      also={(metres) => sayLength(metres, otherUnits(units))}
      read={(text) => readLength(text, units)}
      onDraft={onDraft}
      onChange={onChange}
    />
  );
}

/** The units that lengths are shown in. */
export const useUnits = () => useData((data) => data.snapshot.project.units ?? 'metric');
