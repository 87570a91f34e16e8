import * as z from 'zod/mini';
import { choice, number, type FilmRecipe } from '../film';
import { action, lockedKit, lockedUntouched, plain, plates, wildSound } from '../shots';

const settings = z.object({
  objects: z.int().check(z.minimum(2), z.maximum(24)),
  way: z.enum(['pop', 'fall', 'pulled']),
});

/** Objects arrive one after another until the scene is full. */
export const buildUp: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'build-up',
  title: 'Build-up',
  settings,
  start: { objects: 5, way: 'pop' },
  fields: {
    objects: number('Objects', '', 2, 24),
    way: choice('How they arrive', {
      pop: 'pop in',
      fall: 'fall in',
      pulled: 'are pulled out and played backwards',
    }),
  },
  sayFilm: () => [{ field: 'objects' }, ' objects ', { field: 'way' }, ', one after another.'],
  film: ({ objects, way }, footing) =>
    plain(
      [
        ...plates(footing.seconds + 2 * footing.handle),
        ...Array.from({ length: objects }, (_, index) =>
          action(
            `object-${index + 1}`,
            `Object ${index + 1} of ${objects}, from the back`,
            'It stays where it lands; tape under it before anything is moved.',
            { seconds: footing.seconds / objects, footing },
            {
              after: ['first-plate'],
              depth: index,
              dressing: true,
              takes: way === 'pop' ? 1 : 3,
              same: ['camera', 'lens', 'exposure', 'light', 'objects'],
            },
          ),
        ),
        ...(way === 'pop' ? [] : [wildSound('objects', 'each object')]),
      ],
      {
        untouched: [...lockedUntouched, 'what has already arrived'],
        joins: ['behind something that stands in front'],
        kit: [...lockedKit, 'small tape for floor marks'],
        props: [`${objects} objects, the furthest first`],
        cautions: way === 'fall' ? ['rigging', 'lights'] : ['lights'],
        risk: way === 'pop' ? 1 : 2,
        mess: 2,
        mend: way === 'pop' ? 0 : 0.1,
        saving: 'Work from the back to the front, and stand something before joins that may show.',
        energy: 0.5,
      },
    ),
};
