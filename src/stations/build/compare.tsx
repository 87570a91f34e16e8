'use client';
import { useState } from 'react';
import type { Node } from '@/core/picture/node';
import type { View } from '@/core/recipes/recipe';
import type { Rate } from '@/core/time/rate';
import { LiveChoice } from '@/ui/live-choice';
import type { Second } from '@/ui/stage/second-picture';
import { showingOf } from './views';

const nothing = 'nothing';
const edges = 'edges';
const ways = [
  { value: 'wiped', text: 'wiped' },
  { value: 'faint', text: 'faintly' },
];

/** A version of the moment that is kept, and its picture. */
export type OtherVersion = { id: string; name: string; tree: Node };

/** What lies over the picture on the stage: another view, a picture just before or after, or the edges of what it is made of. */
export function useCompare({
  views,
  view,
  tree,
  frame,
  span,
  rate,
  versions,
}: {
  views: readonly View[];
  view: View;
  tree: Node | null;
  frame: number;
  span: { start: number; end: number };
  rate: Rate;
  versions: readonly OtherVersion[];
}) {
  const [wanted, setWanted] = useState(nothing);
  const [how, setHow] = useState<Second['how']>('wiped');
  const others = views.filter(({ id, outline, against }) => id !== view.id && !outline && !against);
  const options = [
    { value: nothing, text: 'nothing' },
    ...others.map(({ id, title }) => ({ value: `view ${id}`, text: title.toLowerCase() })),
    ...versions.map(({ id, name }) => ({ value: `version ${id}`, text: `version ${name}` })),
    { value: 'before', text: 'the picture before' },
    { value: 'after', text: 'the picture after' },
    { value: edges, text: 'edges and outlines' },
  ];
  const chosen = options.find(({ value }) => value === wanted) ?? options[0];
  const second = (): Second | null => {
    if (!tree || chosen.value === nothing || chosen.value === edges) return null;
    const [kind, id] = chosen.value.split(' ');
    const version = kind === 'version' ? versions.find((one) => one.id === id) : undefined;
    const other = kind === 'view' ? others.find((one) => one.id === id) : view;
    const by = { before: -1, after: 1 }[kind] ?? 0;
    const at = Math.min(span.end - 1, Math.max(span.start, frame + by));
    const showing = other && showingOf(version ? { id, title: '' } : other, version?.tree ?? tree, at, rate);
    return showing ? { showing, how, title: chosen.text } : null;
  };
  const controls = (
    <span className="flex items-baseline gap-1 font-serif text-[15px]">
      Over it{' '}
      <LiveChoice label="Over the picture" value={chosen.value} options={options} onChange={setWanted} />
      {chosen.value !== nothing && chosen.value !== edges && (
        <LiveChoice
          label="How it lies over the picture"
          value={how}
          options={ways}
          onChange={(value) => setHow(value as Second['how'])}
        />
      )}
    </span>
  );
  return { second: second(), edges: chosen.value === edges, controls };
}
