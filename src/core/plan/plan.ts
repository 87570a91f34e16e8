import type { Moment, Project } from '../model/records';
import type { Day, Mark, Pass, Piece, Setup, ShotChoice, Zone } from '../model/plan-records';
import type { BeatGrid } from '../time/grid';

/** Everything that a plan follows from. */
export type PlanInput = {
  project: Project;
  grid: BeatGrid | null;
  /** seconds of the song; 0 while there is none */
  songSeconds: number;
  moments: readonly Moment[];
  setups: readonly Setup[];
  marks: readonly Mark[];
  pieces: readonly Piece[];
  zones: readonly Zone[];
  passes: readonly Pass[];
  choices: readonly ShotChoice[];
  day: Day | null;
};

/** Starting values of a day of filming. Common practice, no published source. */
export const usualDay = {
  mains: 50 as 50 | 60,
  stops: 0.33,
  degrees: 10,
  setUp: 30,
  changing: 10,
  reset: 1.5,
  rehearsal: 5,
  handle: 2,
};
