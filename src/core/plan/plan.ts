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

/** Starting values of a setup: full frame on a tripod, a shutter that suits 50 Hz. Common practice, no published source. */
export const usualSetup = {
  place: 'inside',
  sensor: { width: 36, height: 24 },
  focal: 24,
  aperture: 8,
  shutter: 50,
  iso: 800,
  kelvin: 4300,
  focus: 2.5,
  height: 1.2,
  tilt: 0,
  rig: 'tripod',
  walls: { left: 2.2, right: 2.2, ahead: 4, behind: 1 },
  card: 64,
  battery: 90,
  approach: 'separate',
  matches: null,
  colours: '',
} as const;
