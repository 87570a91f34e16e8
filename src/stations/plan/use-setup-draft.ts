'use client';
import { useMemo, useState } from 'react';
import { setupSchema, type Setup } from '@/core/model/plan-records';
import { setupNumbers } from '@/core/plan/setup/numbers';
import { withField } from '@/store/apply';
import { useData } from '@/ui/bench-context';

/** Hears of a field's value while it is typed or dragged; null when that is over. */
export type Draft = (field: string) => (value: number | null) => void;

/** A setup with what is being typed already in it, so that drawings and numbers answer before Enter. */
export function useSetupDraft(setup: Setup) {
  const plan = useData((data) => data.plan);
  const [typed, setTyped] = useState<{ field: string; value: number } | null>(null);
  const shown = useMemo(() => {
    if (!typed) return setup;
    const next = withField(setup, typed.field, typed.value);
    return setupSchema.safeParse(next).success ? next : setup;
  }, [setup, typed]);
  const numbers = useMemo(() => {
    if (shown === setup) return plan.numbers.get(setup.id);
    const setups = plan.input.setups.map((one) => (one.id === setup.id ? shown : one));
    return setupNumbers({ ...plan.input, setups }, shown);
  }, [setup, shown, plan]);
  const draft: Draft = (field) => (value) => setTyped(value === null ? null : { field, value });
  return { shown, numbers, draft };
}
