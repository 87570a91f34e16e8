'use client';
import { useMemo } from 'react';
import { emptyClone } from '@/core/model/clone';
import type { CloneMoment, Take } from '@/core/model/records';
import { fillOf, plateSlot } from '@/core/model/slots';
import { clone as recipe } from '@/core/recipes/clone';
import { outlineInForce } from '@/core/recipes/clone/build';
import { regularGrid } from '@/core/time/grid';
import { frameOfTime } from '@/core/time/rate';
import { plateFor, plateOfMoment } from '@/store/plates';
import { materialOf, takeMeasure } from '@/store/snapshot';
import { useBench } from '@/ui/bench-context';
import { SeamLine } from '@/ui/stage/seam-line';
import { placeFrame, Stage } from '@/ui/stage/stage';
import { useSize } from '@/ui/use-size';

/** A pair as it would stand together, half-way through, with its join. */
export function PairPicture({ left, right }: { left: Take; right: Take }) {
  const { snapshot, clone: moment } = useBench();
  const [ref, size] = useSize<HTMLDivElement>();
  const { project } = snapshot;
  const built = useMemo(() => {
    const same =
      moment && fillOf(moment, 'left').take === left.id && fillOf(moment, 'right').take === right.id
        ? moment
        : null;
    const trial: CloneMoment = {
      id: 'trial',
      project: project.id,
      created: 0,
      changed: 0,
      alive: true,
      kind: 'moment',
      recipe: 'clone',
      name: '',
      start: 0,
      lands: 0,
      end: 8,
      setup: moment?.setup,
      settings: {
        ...emptyClone,
        feather: same?.settings.feather ?? emptyClone.feather,
        seam: same?.settings.seam ?? null,
      },
      slots: {
        [plateSlot]: {
          take: (moment ? plateOfMoment(snapshot, moment) : plateFor(snapshot, left))?.id ?? null,
        },
        left: { take: left.id },
        right: { take: right.id },
      },
    };
    const { material } = materialOf(snapshot, trial);
    const seam = same ? materialOf(snapshot, same).material.seam : null;
    const ruler = { grid: regularGrid(60, 0, 60), project };
    const whole = { ...material, seam };
    return {
      layers: recipe.build(trial, ruler, whole),
      outline: outlineInForce(trial, whole),
      solved: Boolean(seam ?? same?.settings.seam),
    };
  }, [snapshot, moment, left, right, project]);
  const times = takeMeasure(snapshot, left)?.times;
  const frame = placeFrame(size, project, 6);
  const showing = useMemo(
    () => ({
      layers: built.layers,
      against: null,
      frame: frameOfTime(project.rate, (times?.at(-1) ?? 2) / 2),
    }),
    [built, project.rate, times],
  );
  return (
    <div ref={ref} className="relative mx-5 mb-4 min-h-[230px] flex-1 overflow-hidden bg-stage max-sm:mx-3">
      {size.width > 0 && (
        <Stage frame={frame} showing={showing} label={`${left.name} and ${right.name} in one picture`}>
          <SeamLine frame={frame} outline={built.outline} />
          {!built.solved && (
            <p className="absolute bottom-2 left-1/2 -translate-x-1/2 whitespace-nowrap bg-raised px-2 py-0.5 text-[12px]">
              The join is solved when the pair is used
            </p>
          )}
        </Stage>
      )}
    </div>
  );
}
