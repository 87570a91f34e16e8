import { describe, expect, it } from 'vitest';
import type { FilmRecipe } from './film';
import { films, momentKinds } from './films';

const footing = { seconds: 4, frames: 96, handle: 2 };
const all = momentKinds.map((kind) => films[kind] as FilmRecipe<unknown>);

/** Every setting that a person can choose, one at a time. */
function variants(recipe: FilmRecipe<unknown>): unknown[] {
  const start = recipe.start as Record<string, unknown>;
  const changed = Object.entries(recipe.fields).flatMap(([name, field]) => {
    if (field.kind === 'choice') return field.options.map(({ value }) => ({ ...start, [name]: value }));
    if (field.kind === 'number') return [field.min, field.max].map((value) => ({ ...start, [name]: value }));
    return [];
  });
  return [start, ...changed];
}

describe('what each kind of moment needs filmed', () => {
  it.each(all.map((recipe) => [recipe.kind, recipe] as const))(
    '%s says it for every setting',
    (_, recipe) => {
      for (const settings of variants(recipe)) {
        expect(recipe.settings.safeParse(settings).success).toBe(true);
        const filming = recipe.film(settings, footing);
        const keys = filming.shots.map((shot) => shot.key);
        expect(new Set(keys).size).toBe(keys.length);
        for (const shot of filming.shots) {
          expect(shot.seconds).toBeGreaterThan(0);
          expect(shot.takes).toBeGreaterThan(0);
          for (const key of [...(shot.after ?? []), ...(shot.straightAfter ? [shot.straightAfter] : [])])
            expect(keys).toContain(key);
        }
        expect(filming.mask).toBeGreaterThanOrEqual(0);
        expect(filming.mask).toBeLessThanOrEqual(1);
        expect(filming.mend).toBeGreaterThanOrEqual(0);
        for (const draw of filming.draws) expect(draw.scale).toBeGreaterThanOrEqual(1);
      }
    },
  );

  it.each(all.map((recipe) => [recipe.kind, recipe] as const))(
    '%s: the sentence names only fields that there are, each with something to begin with',
    (_, recipe) => {
      for (const part of recipe.sayFilm(recipe.start))
        if (typeof part !== 'string') {
          expect(recipe.fields).toHaveProperty(part.field);
          if (recipe.fields[part.field].kind === 'number')
            expect(recipe.start, part.field).toHaveProperty(part.field, expect.any(Number));
        }
    },
  );

  it('brings plates at both ends to everything that is joined by masks', () => {
    for (const kind of [
      'clone',
      'masked-reveal',
      'cover-swap',
      'vanish',
      'build-up',
      'ghost-trail',
    ] as const) {
      const { shots } = (films[kind] as FilmRecipe<unknown>).film(films[kind].start, footing);
      expect(shots.map((shot) => shot.share)).toEqual(expect.arrayContaining(['first plate', 'last plate']));
    }
  });

  it('asks for the length of the song, the speed and a handle on both sides', () => {
    const [, left] = films.clone.film(films.clone.start, footing).shots.filter((shot) => !shot.share);
    expect(left.seconds).toBe(4 + 2 * 2);
    // Half of four seconds at 40 %, half at 300 %, and two handles.
    expect(films['speed-ramp'].film(films['speed-ramp'].start, footing).shots[0].seconds).toBe(
      Math.ceil(2 * 0.4 + 2 * 3 + 4),
    );
  });

  it('knows the trade: shared objects stay untouched, powder comes last, contact needs eye height', () => {
    const shared = films.clone.film({ ...films.clone.start, way: 'shared' }, footing);
    expect(shared.shots.find((shot) => shot.key === 'right')?.straightAfter).toBe('left');
    const contact = films.clone.film({ ...films.clone.start, way: 'contact' }, footing);
    expect(contact.shots.find((shot) => shot.key === 'right')?.same).toContain('eye height');
    expect(contact.cautions).toContain('contact');
    const falls = films['masked-reveal'].film({ edge: 'falling', frames: 20 }, footing);
    expect(falls.shots.find((shot) => shot.key === 'fall')?.undoable).toBe(false);
    expect(films['take-off'].film({ way: 'both' }, footing).cautions).toContain('heights');
    expect(films.flash.film({ perSecond: 8, strength: 60 }, footing).risk).toBe(3);
  });
});
