'use client';
import { useState } from 'react';
import { faultKinds, faultWords } from '@/core/practice/faults';
import type { PracticeRole } from '@/core/practice/practice-set';
import type { PracticeControls } from '@/workers/practice-camera';

const roles: { id: PracticeRole; text: string }[] = [
  { id: 'nobody', text: 'Nobody' },
  { id: 'left', text: 'Her, left' },
  { id: 'right', text: 'Her, right' },
];

/** Who stands in front of the practice camera, and what goes wrong there. */
export function FaultPart({ practice, onChange }: { practice: PracticeControls; onChange: () => void }) {
  const [, redraw] = useState(0);
  const on = practice.faults();
  return (
    <section className="flex flex-col gap-2" aria-label="Practice camera">
      <h2 className="text-[16px] font-[560]">In front of the practice camera</h2>
      <div className="flex flex-wrap gap-2" role="group" aria-label="Who is in the picture">
        {roles.map(({ id, text }) => (
          <button
            key={id}
            type="button"
            className="knob"
            aria-pressed={practice.role() === id}
            onClick={() => {
              practice.stage(id);
              redraw((count) => count + 1);
            }}
          >
            {text}
          </button>
        ))}
      </div>
      <h2 className="mt-1 text-[16px] font-[560]">What goes wrong</h2>
      <div className="flex flex-wrap gap-2" role="group" aria-label="What goes wrong">
        {faultKinds.map((fault) => (
          <button
            key={fault}
            type="button"
            className="knob"
            title={faultWords[fault].what}
            aria-pressed={on.includes(fault)}
            onClick={() => {
              practice.set(fault, !on.includes(fault));
              redraw((count) => count + 1);
              onChange();
            }}
          >
            {faultWords[fault].name}
          </button>
        ))}
      </div>
    </section>
  );
}
