import { films, momentKinds } from '@/core/recipes/films';

/** Every kind of moment, to choose from. */
export const kindOptions = momentKinds.map((kind) => ({ value: kind, text: films[kind].title }));
