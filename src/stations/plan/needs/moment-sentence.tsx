'use client';
import type { Moment } from '@/core/model/records';
import type { FilmRecipe } from '@/core/recipes/film';
import { films } from '@/core/recipes/films';
import { setPart } from '@/store/commands/plan';
import { useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { LiveLength } from '@/ui/live-length';
import { LiveNumber } from '@/ui/live-number';

/** A moment as it is filmed, in a sentence whose quantities are changed where they stand. */
export function FilmSentence({ moment }: { moment: Moment }) {
  const recipe = films[moment.recipe] as FilmRecipe<unknown>;
  return (
    <p className="font-serif text-[16px] leading-[1.8]">
      {recipe
        .sayFilm(moment.settings)
        .map((part, index) =>
          typeof part === 'string' ? (
            part
          ) : (
            <FieldValue key={index} moment={moment} recipe={recipe} name={part.field} />
          ),
        )}
    </p>
  );
}

function FieldValue({ moment, recipe, name }: { moment: Moment; recipe: FilmRecipe<unknown>; name: string }) {
  const { store, attempt } = useServices();
  const field = recipe.fields[name];
  const said: Record<string, unknown> = { ...(recipe.start as object), ...moment.settings };
  const value = said[name];
  const label = `${field.label}, ${moment.name}`;
  const save = (next: unknown) =>
    attempt(() => setPart(store, moment.project, moment.id, field.label, { [`settings.${name}`]: next }));
  if (field.kind === 'choice')
    return (
      <LiveChoice
        label={label}
        value={String(value ?? field.options[0].value)}
        options={field.options}
        onChange={save}
      />
    );
  if (field.kind === 'instant') return null;
  if (field.unit === 'm')
    return <LiveLength label={label} value={Number(value)} min={field.min} onChange={save} />;
  const unit = field.unit === '' || field.unit === '°' ? field.unit : ` ${field.unit}`;
  const whole = Number.isInteger(field.step) && field.unit !== '%' && field.unit !== '°';
  return (
    <LiveNumber
      label={label}
      value={Number(value)}
      step={field.step}
      min={field.min}
      max={field.max}
      show={(number) => `${Number(number.toFixed(2))}${unit}`}
      onChange={(number) => save(whole ? Math.round(number) : number)}
    />
  );
}
