'use client';
import type { Moment } from '@/core/model/records';
import { fillOf } from '@/core/model/slots';
import { laysOverPlate } from '@/core/recipes/built';
import { lastShown, type MediaNode } from '@/core/picture/node';
import type { Recipe } from '@/core/recipes/recipe';
import { againstPlate, beginsAfter } from '@/core/footage/take-words';
import { useData } from '@/ui/bench-context';
import { Findings } from '@/ui/findings';
import { Part } from '../station';

/** Findings of the takes that this moment uses, as far as they concern what it shows of them. */
export function TakeNotes({
  moment,
  recipe,
  slots,
  shown,
}: {
  moment: Moment;
  recipe: Recipe;
  slots: string[];
  shown: readonly MediaNode[];
}) {
  const findings = useData((data) => data.findings);
  const takes = useData((data) => data.snapshot.takes);
  const used = slots.map((slot) => fillOf(moment, slot).take);
  const plain = [
    'take.still',
    'take.same-light',
    ...(laysOverPlate(recipe) ? [] : againstPlate),
    // What the frame shows is said of the moment, whose frame can be pushed.
    'take.cropped',
  ];
  const notes = findings.match.filter((finding) => {
    const take = takes.find(({ id }) => id === finding.where.take);
    if (!take || !used.includes(take.id) || plain.includes(finding.code)) return false;
    return shown.length === 0 || !beginsAfter(finding, lastShown(shown, take.media));
  });
  if (notes.length === 0) return null;
  return (
    <Part title="Its takes">
      <Findings findings={notes} />
    </Part>
  );
}
