'use client';
import { useMemo } from 'react';
import type { Moment, Take } from '@/core/model/records';
import { fillOf, plateSlot } from '@/core/model/slots';
import { usualKind } from '@/core/recipes/built';
import { halvesOf } from '@/core/recipes/halves';
import type { Pairs, Recipe } from '@/core/recipes/recipe';
import { regularGrid } from '@/core/time/grid';
import { frameOfTime } from '@/core/time/rate';
import { newMoment } from '@/store/commands/moments';
import { materialOf } from '@/store/material';
import { plateFor, plateOfMoment } from '@/store/plates';
import { takeMeasure } from '@/store/snapshot';
import { useData } from '@/ui/bench-context';
import { SeamLine } from '@/ui/stage/seam-line';
import { placeFrame, Stage } from '@/ui/stage/stage';
import { useSize } from '@/ui/use-size';

/** A pair as it would stand together, at some seconds of both or half-way through: with its join, or half of the one beside half of the other. */
export function PairPicture({
  recipe,
  pairs: { slots, by },
  further,
  first,
  second,
  at,
}: {
  recipe: Recipe;
  pairs: Pairs;
  /** seconds by which the first is further where one is to take the other's place */
  further: number;
  first: Take;
  second: Take;
  /** null for half-way */
  at: number | null;
}) {
  const snapshot = useData((data) => data.snapshot);
  const moment = useData((data) => data.builtMoment);
  const [ref, size] = useSize<HTMLDivElement>();
  const { project } = snapshot;
  const [down, across] = slots;
  const beside = by.includes('seam');
  const length = takeMeasure(snapshot, first)?.times.last ?? 2;
  const built = useMemo(() => {
    const same =
      moment && fillOf(moment, down.key).take === first.id && fillOf(moment, across.key).take === second.id;
    const like = moment ?? newMoment(project.id, usualKind, 0, 8);
    const plate = moment ? plateOfMoment(snapshot, moment) : plateFor(snapshot, first);
    const trial = {
      ...like,
      id: 'trial',
      start: 0,
      lands: 0,
      end: 8,
      settings: same ? like.settings : { ...like.settings, ...recipe.ofTakes },
      slots: {
        [plateSlot]: { take: plate?.id ?? null },
        [down.key]: { take: first.id },
        [across.key]: { take: second.id },
      },
    } as Moment;
    const { takes } = materialOf(snapshot, trial).material;
    const solved = same ? materialOf(snapshot, moment).material.solved : {};
    if (!beside) {
      const until = frameOfTime(project.rate, length) + 1;
      const both = [takes[down.key] ?? null, takes[across.key] ?? null] as const;
      return { tree: halvesOf(project, both, until, further), outline: null };
    }
    const ruler = { grid: regularGrid(60, 0, 60), project };
    return {
      tree: recipe.build(trial, ruler, { takes, solved }),
      outline: recipe.outline(trial, { takes, solved }, ruler, 0),
    };
  }, [snapshot, moment, recipe, down, across, beside, further, length, first, second, project]);
  const frame = placeFrame(size, project, 6);
  const showing = useMemo(
    () => ({
      tree: built.tree,
      against: null,
      frame: frameOfTime(project.rate, Math.min(length, at ?? length / 2)),
    }),
    [built, project.rate, length, at],
  );
  return (
    <div ref={ref} className="relative mx-5 mb-4 min-h-[230px] flex-1 overflow-hidden bg-stage phone:mx-3">
      {size.width > 0 && (
        <Stage frame={frame} showing={showing} label={`${first.name} and ${second.name} in one picture`}>
          {built.outline && <SeamLine frame={frame} rings={built.outline.rings} />}
          {built.outline?.state === 'guessed' && (
            <p className="absolute bottom-2 left-1/2 -translate-x-1/2 bg-raised px-2 py-0.5 text-[12px] whitespace-nowrap">
              The join is solved when the pair is used
            </p>
          )}
        </Stage>
      )}
    </div>
  );
}
