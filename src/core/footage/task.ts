import type { SeamMeasure } from '../model/measures';
import type { Cutout, CutoutTask } from './cutout';
import type { Flight, FlightTask } from './flight';
import type { SeamTask } from './seam-task';

/** Something that is solved from takes for a moment. */
export type Task = SeamTask | CutoutTask | FlightTask;

/** What was solved, and by which version of its method; a flight is null where nobody jumps. */
export type Answer =
  | { method: 'seam-3'; seam: SeamMeasure }
  | { method: 'cutout-1'; cutout: Cutout }
  | { method: 'flight-1'; flight: Flight | null };

/** The method that answers each task today; an answer of an older one is solved anew. */
export const methodOf = { seam: 'seam-3', cutout: 'cutout-1', flight: 'flight-1' } as const satisfies Record<
  Task['is'],
  Answer['method']
>;

/** The files that a task is solved from. */
export const mediaOfTask = (task: Task): string[] =>
  task.is === 'seam'
    ? [...task.sides.map(({ node }) => node), ...(task.plate ? [task.plate] : [])].map(
        ({ content }) => content.media,
      )
    : [task.media, task.plate.media];
