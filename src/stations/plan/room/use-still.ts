'use client';
import { useEffect, useState } from 'react';
import type { Setup } from '@/core/model/plan-records';
import { partKey } from '@/core/footage/take-parts';
import { useData, useServices } from '@/ui/bench-context';

/** Address of the picture behind a setup's drawing; null for the sketch. */
export function useStill(setup: Setup): string | null {
  const { store } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const [address, setAddress] = useState<string | null>(null);
  const still = setup.still ?? null;
  const take = snapshot.takes.find((one) => one.id === still);
  const key = take ? partKey('pictures', take) : null;
  const measured = key !== null && snapshot.measures.has(key);
  useEffect(() => {
    let here = true;
    let made: string | null = null;
    const read = async () => {
      if (still?.startsWith('file:')) return (await store.originals.get(still.slice(5)))?.blob;
      const value = key && measured ? (await store.measures.get(key))?.value : null;
      return value?.method === 'pictures' ? value.poster : undefined;
    };
    const show = async () => {
      const blob = await read();
      if (!here) return;
      made = blob ? URL.createObjectURL(blob) : null;
      setAddress(made);
    };
    void show();
    return () => {
      here = false;
      if (made) URL.revokeObjectURL(made);
    };
  }, [store, still, key, measured]);
  return address;
}
