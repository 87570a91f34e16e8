'use client';
import { useState } from 'react';
import { faultKinds, faultWords } from '@/core/practice/faults';
import type { PracticeRole } from '@/core/practice/practice-set';
import { Choices } from '@/ui/choices';
import type { PracticeControls } from '@/workers/practice-camera';

const roles: { id: PracticeRole; text: string }[] = [
  { id: 'nobody', text: 'Nobody' },
  { id: 'works', text: 'Performer, left' },
  { id: 'stands', text: 'Performer, right' },
];

/** Who stands in front of the practice camera, and what goes wrong there. */
export function FaultPart({ practice, onChange }: { practice: PracticeControls; onChange: () => void }) {
  const [, redraw] = useState(0);
  const on = practice.faults();
  return (
    <section className="flex flex-col gap-2" aria-label="Practice camera">
      <h2 className="text-[16px] font-[560]">In front of the practice camera</h2>
      <Choices
        label="Who is in the picture"
        options={roles}
        pressed={(role) => practice.role() === role}
        onPress={(role) => {
          practice.stage(role);
          redraw((count) => count + 1);
        }}
      />
      <h2 className="mt-1 text-[16px] font-[560]">What goes wrong</h2>
      <Choices
        label="What goes wrong"
        options={faultKinds.map((id) => ({ id, text: faultWords[id].name, title: faultWords[id].what }))}
        pressed={(fault) => on.includes(fault)}
        onPress={(fault) => {
          practice.set(fault, !on.includes(fault));
          redraw((count) => count + 1);
          onChange();
        }}
      />
    </section>
  );
}
