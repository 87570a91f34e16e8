import { refuse } from '@/core/error';
import type { Day, Item, Mark, Pass, Piece, Setup, ShotChoice, Tick, Zone } from '@/core/model/plan-records';
import {
  type AnyRecord,
  type Cue,
  type Moment,
  type OwnSound,
  type Project,
  type RecordKind,
  type RecordOf,
  type Section,
  type Song,
  type Style,
  type Take,
  type Version,
} from '@/core/model/records';
import { recipeOf } from '@/core/recipes/built';
import type { Log, Move, Pickup, Strike } from '@/core/model/shoot-records';
import type { BeatGrid } from '@/core/time/grid';
import type { Store } from './db';
import { readRecords } from './read-rows';

/** The records of a project, sorted as screens show them. */
export type Arranged = {
  project: Project;
  song: Song | null;
  /** the grid that was in force before this song was brought in */
  gridBefore: BeatGrid | null;
  sections: Section[];
  cues: Cue[];
  takes: Take[];
  /** sounds of one's own */
  sounds: OwnSound[];
  moments: Moment[];
  /** the moments that can be built here */
  built: Moment[];
  versions: Version[];
  styles: Style[];
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

/** Records that were not removed, by their kind. */
function aliveByKind(records: readonly AnyRecord[]) {
  const kinds = new Map<RecordKind, AnyRecord[]>();
  for (const record of records) {
    if (!record.alive) continue;
    const known = kinds.get(record.kind);
    if (known) known.push(record);
    else kinds.set(record.kind, [record]);
  }
  return <Kind extends RecordKind>(kind: Kind) => (kinds.get(kind) ?? []) as RecordOf<Kind>[];
}

/** Sorts the records of a project; null where the project itself is not among them. */
export function arrange(records: readonly AnyRecord[]): Arranged | null {
  const alive = aliveByKind(records);
  const [project] = alive('project');
  if (!project) return null;
  const songs = alive('song').sort((a, b) => b.created - a.created);
  const moments = alive('moment').sort((a, b) => a.start - b.start);
  const made = <Kind extends RecordKind>(kind: Kind) =>
    alive(kind).sort((a, b) => a.created - b.created || (a.id < b.id ? -1 : 1));
  return {
    project,
    song: songs[0] ?? null,
    gridBefore: songs.slice(1).find(({ grid }) => grid)?.grid ?? null,
    sections: alive('section').sort((a, b) => a.at - b.at),
    cues: alive('cue').sort((a, b) => a.at - b.at),
    takes: alive('take').sort((a, b) => a.order - b.order),
    sounds: made('sound'),
    moments,
    built: moments.filter((moment) => recipeOf(moment)),
    versions: made('version'),
    styles: made('style'),
    setups: alive('setup').sort((a, b) => a.order - b.order),
    marks: made('mark'),
    pieces: made('piece'),
    zones: made('zone'),
    passes: made('pass'),
    choices: made('shot'),
    day: made('day')[0] ?? null,
    ticks: made('tick'),
    items: made('item'),
    logs: alive('log').sort((a, b) => a.started - b.started || (a.id < b.id ? -1 : 1)),
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
  const records = await readRecords(store, project);
  return (
    arrange([...records.values()]) ??
    refuse('gone', 'This project is no longer on this device. Open another one.')
  );
}
