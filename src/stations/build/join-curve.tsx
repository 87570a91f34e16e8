'use client';
import { useMemo } from 'react';
import { allowed } from '@/core/finding/allowed';
import type { Material } from '@/core/recipes/material';
import { timeOfFrame, type Rate } from '@/core/time/rate';
import { useServices } from '@/ui/bench-context';
import { Chart, type ChartProps } from '@/ui/chart';
import { Term } from '@/ui/term';
import { Part } from '../station';

/** How visible the worst join of each frame is. */
function visibleIn(answers: Material['solved']): { frame: number; difference: number }[] {
  const most = new Map<number, number>();
  for (const answer of Object.values(answers))
    if (answer?.method === 'seam-7')
      for (const { frame, difference } of answer.seam.visible)
        most.set(frame, Math.max(difference, most.get(frame) ?? 0));
  return [...most].map(([frame, difference]) => ({ frame, difference })).sort((a, b) => a.frame - b.frame);
}

/** How visible its joins are over the frames of a moment; a press goes there. @param start the moment's first frame */
export function JoinCurve({
  answers,
  start,
  rate,
}: {
  answers: Material['solved'];
  start: number;
  rate: Rate;
}) {
  const visible = useMemo(() => visibleIn(answers), [answers]);
  const { player } = useServices();
  const go = useMemo(
    () => (frame: number) => {
      player.pause();
      player.seek(timeOfFrame(rate, Math.round(frame)) + 0.001);
    },
    [player, rate],
  );
  const chart = useMemo((): ChartProps | null => {
    if (visible.length < 2) return null;
    return {
      label: `How visible the join is in ${visible.length} frames. A press goes to the frame.`,
      curves: [
        {
          name: 'Join',
          points: visible.map(({ frame, difference }) => [frame, difference] as const),
          dye: '--woad',
        },
      ],
      across: (frame) => `${Math.round(frame) - start + 1}`,
      down: (difference) => `ΔE ${difference.toFixed(1)}`,
      limit: { value: allowed.difference, text: 'allowed' },
      height: 120,
      onPick: go,
    };
  }, [visible, start, go]);
  if (!chart) return null;
  const worst = visible.reduce((most, one) => (one.difference > most.difference ? one : most));
  return (
    <Part title="The join, frame by frame">
      <Chart {...chart} />
      <p className="mb-1.5 text-ink2">
        The <Term word="join" /> is hidden while it stays under what is allowed. Its <Term word="softness" />{' '}
        is set in the sentence.
      </p>
      <button type="button" className="knob" onClick={() => go(worst.frame)}>
        To its worst frame
      </button>
    </Part>
  );
}
