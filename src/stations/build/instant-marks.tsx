'use client';
import { useMemo } from 'react';
import type { Moment } from '@/core/model/records';
import { slotsInUse } from '@/core/recipes/built';
import { mediaIn, secondsAt } from '@/core/picture/node';
import type { Material } from '@/core/recipes/material';
import type { Recipe, Ruler } from '@/core/recipes/recipe';
import { setMoment } from '@/store/commands/moments';
import { useOffer } from '@/ui/actions/offers';
import { useServices } from '@/ui/bench-context';
import type { Showing } from '@/ui/stage/use-painter';
import { Part } from '../station';

/** Instants of a take that are marked on the picture: each becomes the one that is looked at. */
export function InstantMarks({
  moment,
  recipe,
  ruler,
  material,
  showing,
}: {
  moment: Moment;
  recipe: Recipe;
  ruler: Ruler;
  material: Material;
  showing: Showing | null;
}) {
  const { store, attempt } = useServices();
  const marks = useMemo(() => {
    // Without a view of the take as it was filmed there is nothing to step through; the number is typed then.
    if (!recipe.views.some(({ asFilmed }) => asFilmed)) return [];
    const shown = showing ? mediaIn(showing.tree) : [];
    return recipe.say(moment, ruler, material).flatMap((part) => {
      if (typeof part === 'string' || !('field' in part)) return [];
      const field = recipe.fields[part.field];
      if (field.kind !== 'instant') return [];
      const node = shown.find(({ id }) => id === field.slot);
      const mark = () =>
        node &&
        showing &&
        attempt(() =>
          setMoment(store, moment.project, moment.id, field.label, {
            [`settings.${part.field}`]: Math.max(0, secondsAt(node, showing.frame)),
          }),
        );
      return [{ name: part.field, label: field.label, mark, ready: Boolean(node) }];
    });
  }, [moment, recipe, ruler, material, showing, store, attempt]);
  useOffer(
    useMemo(
      () =>
        marks
          .filter(({ ready }) => ready)
          .map(({ name, label, mark }, index) => ({
            id: `mark ${name}`,
            text: `${label}: this picture`,
            scope: 'picture' as const,
            keys: index < 9 ? [`shift+${index + 1}`] : [],
            run: () => void mark(),
          })),
      [marks],
    ),
  );
  if (marks.length === 0) return null;
  const used = slotsInUse(moment, recipe).map(({ key }) => key);
  const filmed = recipe.views
    .filter(({ alone, asFilmed }) => asFilmed && alone && used.includes(alone))
    .map(({ title }) => `“${title}”`);
  return (
    <Part title="On this picture">
      <p className="mb-1.5 text-[12px] text-ink2">
        Step to the picture in {new Intl.ListFormat('en', { type: 'disjunction' }).format(filmed)}, then say
        what it is.
      </p>
      <div className="flex flex-wrap gap-1.5">
        {marks.map(({ name, label, mark, ready }, index) => (
          <button
            key={name}
            type="button"
            className="knob"
            disabled={!ready}
            title={index < 9 ? `Shift+${index + 1}` : undefined}
            onClick={() => void mark()}
          >
            {label}
          </button>
        ))}
      </div>
    </Part>
  );
}
