'use client';
import { useMemo } from 'react';

/** A value of plain data that stays the same object for as long as it says the same. */
export function useSteady<Value>(value: Value): Value {
  const text = JSON.stringify(value ?? null);
  return useMemo(() => JSON.parse(text) as Value, [text]);
}
