'use client';
import { useState, useSyncExternalStore } from 'react';
import { chosenPainters, type PainterTrial } from '@/core/picture/painters';
import { useServices } from '@/ui/bench-context';
import { painterTrial, tryPaintersHere, watchPainters } from '@/workers/painters';

const names = { processor: 'the processor', card: 'the graphics card' };

const ms = (milliseconds: number): string => `${milliseconds.toFixed(milliseconds < 10 ? 1 : 0)} ms`;

/** Who paints, and why, in words. */
function tell(trial: PainterTrial): string {
  const [render, stage] = [chosenPainters(trial, 'whole'), chosenPainters(trial, 'stage')];
  const { name, whole, rest } = trial;
  const large = `A test picture of 1920 × 1080 takes the processor ${ms(whole.processor)}`;
  if (!name)
    return `${names.processor} paints every picture: this browser has no graphics card to paint with. ${large}.`;
  const other =
    whole.card === null
      ? 'the graphics card was far slower at a small one already'
      : `the graphics card ${ms(whole.card)}`;
  const both = stage.plain === render.plain;
  return [
    `${names[render.plain]} paints renders${both ? ' and the stage' : `, and ${names[stage.plain]} the stage`}. ${large}, ${other}.`,
    ...(rest.card === null
      ? []
      : [
          `What is blurred or blended is painted by ${names[render.rest]}: at 320 × 180 the processor takes ${ms(rest.processor)}, the card ${ms(rest.card)}.`,
        ]),
    `The card calls itself ${name}.`,
  ].join(' ');
}

/** Who paints on this device, as it was measured here, and the way to measure it again. */
export function PainterNote() {
  const { attempt } = useServices();
  const [busy, setBusy] = useState(false);
  const trial = useSyncExternalStore(watchPainters, painterTrial, () => null);
  const again = () =>
    attempt(async () => {
      setBusy(true);
      await tryPaintersHere().finally(() => setBusy(false));
    });
  const said = trial
    ? tell(trial)
    : 'The processor paints every picture; the graphics card was not tried yet.';
  return (
    <div className="flex flex-col items-start gap-2">
      <p className="max-w-[64ch] text-ink2" aria-live="polite">
        {said[0].toUpperCase() + said.slice(1)}
      </p>
      <button type="button" className="knob" onClick={again} disabled={busy}>
        {busy ? 'Measuring…' : trial ? 'Measure again' : 'Measure'}
      </button>
    </div>
  );
}
