'use client';
import { Fragment } from 'react';
import type { Moment } from '@/core/model/records';
import { measuredIn, type Material } from '@/core/recipes/material';
import type { Recipe } from '@/core/recipes/recipe';
import { smoothableIn } from '@/core/recipes/smoothing';
import { setTake } from '@/store/commands/takes';
import { useServices } from '@/ui/bench-context';
import { LiveNumber } from '@/ui/live-number';
import { Part } from '../station';

/** By how much the cameras of a moment's takes are smoothed on their way; nothing where a plate holds them. */
export function SmoothCameras({
  moment,
  recipe,
  material,
}: {
  moment: Moment;
  recipe: Recipe;
  material: Material;
}) {
  const { store, attempt } = useServices();
  const smoothable = smoothableIn(moment, recipe, material.takes);
  const takes = measuredIn(smoothable).filter(({ take }) => !take.sketch);
  if (takes.length === 0) return null;
  return (
    <Part title="How the camera moves">
      <p className="font-serif text-[15px] leading-[1.7]">
        On its way {takes.length > 1 ? 'each' : 'it'} is smoothed by so much:{' '}
        {takes.map(({ take }, index) => (
          <Fragment key={take.id}>
            {index > 0 && ', '}
            {take.name}{' '}
            <LiveNumber
              label={`Smoothing of ${take.name}`}
              value={take.smooth ?? 0}
              step={5}
              min={0}
              max={100}
              show={(value) => (value === 0 ? 'not at all' : `${Math.round(value)} %`)}
              onChange={(value) =>
                attempt(() =>
                  setTake(store, moment.project, take.id, 'Smooth the camera', { smooth: Math.round(value) }),
                )
              }
            />
          </Fragment>
        ))}
        .
      </p>
    </Part>
  );
}
