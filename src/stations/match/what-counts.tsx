'use client';
import type { PairWeights } from '@/core/footage/pairs';
import { weighPairs } from '@/store/commands/projects';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';

const amounts = [
  { value: '0', text: 'not at all' },
  { value: '0.5', text: 'a little' },
  { value: '1', text: 'somewhat' },
  { value: '2', text: 'much' },
  { value: '4', text: 'more than all else' },
];
const parts: { key: keyof PairWeights; said: string }[] = [
  { key: 'lock', said: 'A camera that stands counts ' },
  { key: 'light', said: ', the same light ' },
  { key: 'seam', said: ', room for a join that stands still ' },
  { key: 'overlap', said: ', never standing in one place ' },
  { key: 'contact', said: ', coming near each other ' },
  { key: 'pose', said: ', one pose of who stands there ' },
  { key: 'eyes', said: ', eyes at one height and bodies of one size ' },
];

/** How much each part of a pair's score counts, in a sentence. */
export function WhatCounts({ weights, by }: { weights: PairWeights; by: readonly (keyof PairWeights)[] }) {
  const { store, attempt } = useServices();
  const id = useData((data) => data.snapshot.project.id);
  const shown = parts.filter(({ key }) => by.includes(key));
  return (
    <p className="max-w-[72ch] pt-2 leading-[1.9]">
      {shown.map(({ key, said }) => (
        <span key={key}>
          {said}
          <LiveChoice
            label={`How much it counts: ${said.replace(/^[, ]+| counts $/g, '').trim()}`}
            value={String(weights[key])}
            options={amounts}
            onChange={(value) => attempt(() => weighPairs(store, id, key, Number(value)))}
          />
        </span>
      ))}
      {weights.eyes > 0 || !by.includes('eyes')
        ? ''
        : ' (what finds people, 21 MB, is fetched the first time)'}
      .
    </p>
  );
}
