'use client';
import { useMemo } from 'react';
import { allowed } from '@/core/finding/allowed';
import type { Material } from '@/core/recipes/material';
import { timeOfFrame, type Rate } from '@/core/time/rate';
import { useServices } from '@/ui/bench-context';
import { Chart, type ChartProps } from '@/ui/chart';
import { Term } from '@/ui/term';
import { Part } from '../station';

/** How visible the join is over the frames of a moment; a press goes there. @param start the moment's first frame */
export function JoinCurve({
  answers,
  start,
  rate,
}: {
  answers: Material['solved'];
  start: number;
  rate: Rate;
}) {
  const solved = Object.values(answers).find((answer) => answer?.method === 'seam-3');
  const seam = solved?.method === 'seam-3' ? solved.seam : null;
  const { player } = useServices();
  const go = useMemo(
    () => (frame: number) => {
      player.pause();
      player.seek(timeOfFrame(rate, Math.round(frame)) + 0.001);
    },
    [player, rate],
  );
  const chart = useMemo((): ChartProps | null => {
    if (!seam || seam.visible.length < 2) return null;
    return {
      label: `How visible the join is in ${seam.visible.length} frames. A press goes to the frame.`,
      curves: [
        {
          name: 'Join',
          points: seam.visible.map(({ frame, difference }) => [frame, difference] as const),
          dye: '--woad',
        },
      ],
      across: (frame) => `${Math.round(frame) - start + 1}`,
      down: (difference) => `ΔE ${difference.toFixed(1)}`,
      limit: { value: allowed.difference, text: 'allowed' },
      height: 120,
      onPick: go,
    };
  }, [seam, start, go]);
  if (!seam || !chart) return null;
  const worst = seam.visible.reduce((most, one) => (one.difference > most.difference ? one : most));
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
