'use client';
import type { Moment } from '@/core/model/records';
import { slotsInUse } from '@/core/recipes/built';
import { cropOf } from '@/core/recipes/framing';
import type { Material } from '@/core/recipes/material';
import type { Recipe, Ruler } from '@/core/recipes/recipe';
import { setMoment } from '@/store/commands/moments';
import { useServices } from '@/ui/bench-context';
import { LiveNumber } from '@/ui/live-number';
import { Part } from '../station';

const ways = {
  width: { side: 'across', before: 'left', after: 'right' },
  height: { side: 'down', before: 'up', after: 'down' },
} as const;

/** Which part of what was filmed a film of another shape shows; nothing where it shows all. */
export function Framing({
  moment,
  recipe,
  ruler,
  material,
}: {
  moment: Moment;
  recipe: Recipe;
  ruler: Ruler;
  material: Material;
}) {
  const { store, attempt } = useServices();
  if (recipe.framesItself) return null;
  const slots = slotsInUse(moment, recipe).map(({ key }) => key);
  const crop = cropOf(material, slots, ruler.project);
  if (!crop) return null;
  const { side, before, after } = ways[crop.of];
  return (
    <Part title="What the frame shows">
      <p className="font-serif text-[15px] leading-[1.7]">
        The frame shows {Math.round(crop.shown * 100)} % of the {crop.of} of what was filmed, pushed{' '}
        <LiveNumber
          label="The frame is pushed"
          value={ruler.project.push?.[side] ?? 0}
          step={1}
          min={-100}
          max={100}
          show={(value) =>
            value === 0 ? 'to neither side' : `${Math.abs(value)} % ${value < 0 ? before : after}`
          }
          onChange={(value) =>
            attempt(() =>
              setMoment(store, moment.project, moment.id, 'Push the frame', {
                [`framing.${side}`]: Math.round(value),
              }),
            )
          }
        />
        .
      </p>
    </Part>
  );
}
