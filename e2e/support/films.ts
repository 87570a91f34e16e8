import { keptSeed, type Seed } from './seeds';

/** A project of one's own with the demo's song, its beats and sections found by the bench. */
export const songFilm = (): Seed => keptSeed('song');

/** The demo as it is once all of it was measured after the first visit. */
export const demoFilm = (): Seed => keptSeed('demo');
