import type { SeamMeasure } from '../model/measures';
import type { Cutout, CutoutTask } from './cutout';
import type { Figure, FiguresTask } from './figures';
import type { Grain } from '../picture/regrain';
import { filesIn } from '../picture/node';
import type { Fall, FallTask } from './fall';
import type { Flight, FlightTask } from './flight';
import type { GrainTask } from './grain';
import type { Softness, SoftnessTask } from './softness';
import type { FreePath, PathTask } from './free-path';
import type { MendTask } from './mend';
import type { SeamTask } from './seam-task';
import type { Tears, TearsTask } from './tears';
import type { Track, TrackTask } from './track/track';
import type { UnderSpan, UnderTask } from './under';
import type { VeilTask, VeilTrack } from './veil';

/** Something that is solved from takes for a moment. */
export type Task =
  | SeamTask
  | CutoutTask
  | FlightTask
  | UnderTask
  | TearsTask
  | TrackTask
  | FallTask
  | FiguresTask
  | MendTask
  | VeilTask
  | PathTask
  | GrainTask
  | SoftnessTask;

/** What was solved, and by which version of its method; a flight is null where nobody jumps, a fall where nothing falls. */
export type Answer =
  | { method: 'seam-7'; seam: SeamMeasure }
  | { method: 'cutout-2'; cutout: Cutout }
  | { method: 'flight-1'; flight: Flight | null }
  | { method: 'under-1'; spans: UnderSpan[] }
  | { method: 'tears-1'; tears: Tears }
  | { method: 'track-2'; track: Track }
  | { method: 'fall-1'; fall: Fall | null }
  | { method: 'figures-2'; figures: Figure[] }
  | { method: 'mend-1'; figures: Figure[] }
  | { method: 'veil-1'; veil: VeilTrack }
  | { method: 'path-1'; path: FreePath }
  /** null where too little stands to tell it */
  | { method: 'grain-1'; grain: Grain | null }
  | { method: 'softness-1'; softness: Softness | null };

/** The method that answers each task today; an answer of an older one is solved anew. */
export const methodOf = {
  seam: 'seam-7',
  cutout: 'cutout-2',
  flight: 'flight-1',
  under: 'under-1',
  tears: 'tears-1',
  track: 'track-2',
  fall: 'fall-1',
  figures: 'figures-2',
  mend: 'mend-1',
  veil: 'veil-1',
  path: 'path-1',
  grain: 'grain-1',
  softness: 'softness-1',
} as const satisfies Record<Task['is'], Answer['method']>;

/** The files that a task is solved from. */
export function mediaOfTask(task: Task): string[] {
  if (task.is === 'softness') return [task.media, task.held.media];
  if (task.is !== 'seam') return [task.media, ...('plate' in task && task.plate ? [task.plate.media] : [])];
  const nodes = [...task.sides.map(({ node }) => node), ...(task.plate ? [task.plate] : [])];
  return [...new Set(nodes.flatMap(filesIn))];
}

/** True where a task has to see files as they were filmed: a proxy has neither their grain nor their detail. */
export const needsOriginals = ({ is }: Task): boolean => is === 'grain' || is === 'softness';
