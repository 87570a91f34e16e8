import { refuse } from '@/core/error';
import type { Day, Item, Mark, Pass, Piece, Setup, ShotChoice, Tick, Zone } from '@/core/model/plan-records';
import {
  type AnyRecord,
  type Cue,
  type Moment,
  type Project,
  type RecordKind,
  type RecordOf,
  type Section,
  type Song,
  type Take,
} from '@/core/model/records';
import { recipeOf } from '@/core/recipes/built';
import type { Log, Move, Pickup, Strike } from '@/core/model/shoot-records';
import type { BeatGrid } from '@/core/time/grid';
import type { Store } from './db';
import { readRecords } from './read-records';

/** The records of a project, sorted as screens show them. */
export type Arranged = {
  project: Project;
  song: Song | null;
  /** the grid that was in force before this song was brought in */
  gridBefore: BeatGrid | null;
  sections: Section[];
  cues: Cue[];
  takes: Take[];
  moments: Moment[];
  /** the moments that can be built here */
  built: Moment[];
  setups: Setup[];
  marks: Mark[];
  pieces: Piece[];
  zones: Zone[];
  passes: Pass[];
  choices: ShotChoice[];
  /** the day of filming, once there is one */
  day: Day | null;
  ticks: Tick[];
  items: Item[];
  logs: Log[];
  strikes: Strike[];
  pickups: Pickup[];
  moves: Move[];
};

const aliveOf = <Kind extends RecordKind>(records: readonly AnyRecord[], kind: Kind): RecordOf<Kind>[] =>
  records.filter((record): record is RecordOf<Kind> => record.kind === kind && record.alive);

/** Sorts the records of a project; null where the project itself is not among them. */
export function arrange(records: readonly AnyRecord[]): Arranged | null {
  const [project] = aliveOf(records, 'project');
  if (!project) return null;
  const songs = aliveOf(records, 'song').sort((a, b) => b.created - a.created);
  const moments = aliveOf(records, 'moment').sort((a, b) => a.start - b.start);
  const made = <Kind extends RecordKind>(kind: Kind) =>
    aliveOf(records, kind).sort((a, b) => a.created - b.created || (a.id < b.id ? -1 : 1));
  return {
    project,
    song: songs[0] ?? null,
    gridBefore: songs.slice(1).find(({ grid }) => grid)?.grid ?? null,
    sections: aliveOf(records, 'section').sort((a, b) => a.at - b.at),
    cues: aliveOf(records, 'cue').sort((a, b) => a.at - b.at),
    takes: aliveOf(records, 'take').sort((a, b) => a.order - b.order),
    moments,
    built: moments.filter((moment) => recipeOf(moment)),
    setups: aliveOf(records, 'setup').sort((a, b) => a.order - b.order),
    marks: made('mark'),
    pieces: made('piece'),
    zones: made('zone'),
    passes: made('pass'),
    choices: made('shot'),
    day: made('day')[0] ?? null,
    ticks: made('tick'),
    items: made('item'),
    logs: aliveOf(records, 'log').sort((a, b) => a.started - b.started || (a.id < b.id ? -1 : 1)),
    strikes: made('strike'),
    pickups: made('pickup'),
    moves: made('move'),
  };
}

/**
 * The records of a project as they are now; inside a transaction, as they are for all of it.
 * @throws CoreError `gone` where the project is not there
 */
export async function readArranged(store: Store, project: string): Promise<Arranged> {
  const { records } = await readRecords(store, project);
  return (
    arrange([...records.values()]) ??
    refuse('gone', 'This project is no longer on this device. Open another one.')
  );
}
