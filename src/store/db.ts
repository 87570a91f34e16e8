import type { Alignment } from '@/core/footage/align-sound';
import type { Lips } from '@/core/footage/lips';
import type { FieldRecording } from '@/core/footage/field-recorder';
import type { PartsWanted } from '@/core/footage/parts';
import type { Apart, ShotSheet } from '@/core/footage/cuts/shots';
import type { JoinsFound, JoinsWanted } from '@/core/footage/found-joins';
import type { Answer } from '@/core/footage/task';
import Dexie, { type EntityTable, type Table } from 'dexie';
import type * as z from 'zod/mini';
import type { CoreError } from '@/core/error';
import type { commandSchema, fieldOpSchema } from '@/core/model/command';
import type { FoundValue } from '@/core/footage/analysers';
import type { Comparison, Probe, SongSections, SongSound, Stills, TakePictures } from '@/core/model/measures';
import type { AnyRecord, Moment, RecordKind } from '@/core/model/records';
import type { Size } from '@/core/geometry/size';
import type { Bodies } from '@/core/people/bodies';
import type { Node } from '@/core/picture/node';
import type { HeldSettings } from '@/core/shoot/held';
import type { BeatTrack } from '@/core/song/track';
import type { Rate } from '@/core/time/rate';
import { HybridClock } from './clock';
import type { PlannedSound } from './sounds';
import { dropOldSongMeasures, dropOldTakeMeasures, liftStore } from './lift-store';

/** A record with the stamp of the last change of each field. */
export type StoredRecord = AnyRecord & { stamps: Record<string, string> };

export type FieldOp = Omit<z.infer<typeof fieldOpSchema>, 'kind'> & { kind: RecordKind };

/** A step, as this store keeps it. */
export type Command = Omit<z.infer<typeof commandSchema>, 'ops'> & {
  ops: FieldOp[];
  /** brought in from another device: undo passes over it here */
  elsewhere?: boolean;
};

/** A file that was brought in. The bytes lie in `originals`. */
export type Media = {
  id: string;
  project: string;
  name: string;
  type: string;
  size: number;
  fingerprint: string;
  place: 'blob';
  /** when its recording began by its camera's clock, milliseconds since 1970; null where the file does not say */
  recorded?: number | null;
  probe: Probe | null;
  problem: CoreError | null;
  created: number;
};

export type MeasureValue =
  | { method: 'pictures'; pictures: TakePictures; poster: Blob; complete: boolean }
  | FoundValue
  | { method: 'comparison'; comparison: Comparison }
  | { method: 'playback'; playback: Alignment; beep: number | null }
  | { method: 'lips'; lips: Lips | null }
  | { method: 'bodies'; bodies: Bodies }
  | { method: 'joins'; asked: AskedJoins; found: JoinsFound; sheet: ShotSheet; pictures: Blob }
  | { method: 'apart'; apart: Apart; sheet: ShotSheet; pictures: Blob }
  | { method: 'recording'; recording: FieldRecording }
  | { method: 'parts'; wanted: PartsWanted }
  | { method: 'sound'; sound: SongSound }
  | { method: 'beats'; beats: BeatTrack }
  | { method: 'sections'; form: SongSections }
  | Answer;

/** Joins that were asked for, between two takes by their ids. */
export type AskedJoins = JoinsWanted & { first: string; second: string };

/**
 * Something measured, small enough for live queries, under a key that holds everything it depends on. What is large of
 * it lies in `curves` under the same key.
 */
export type Measure = { key: string; project: string; subject: string; value: MeasureValue };

/** Work that ended without a result, so that it is not begun again by itself. */
export type Halted = {
  key: string;
  project: string;
  label: string;
  reason: 'cancelled' | CoreError;
  /** somebody has read it, and does not want to see it any more */
  dismissed?: boolean;
};

/** A render that was asked for. */
export type Render = {
  id: string;
  project: string;
  moment: string;
  name: string;
  container: 'mp4' | 'mov' | 'webm';
  status: 'waiting' | 'done';
  blob: Blob | null;
  created: number;
  /** the most flashes that any one second of it holds, once it is done */
  flashes?: number;
  /** what was asked for; what is changed later does not change it. Left out in renders of the first versions */
  asked?: Asked;
};

/** How a render was asked for. */
export type Asked = {
  delivery: Size;
  rate: Rate;
  /** bits a second */
  bitrate: number;
  moment: Moment;
  /** its picture over its frames, end excluded; null where something of it was still being solved */
  picture: { tree: Node; start: number; end: number; sounds?: PlannedSound[] } | null;
};

/** A recording that is being made here; its bytes lie in `chunks` until it is a file of the project. */
export type Recording = {
  id: string;
  project: string;
  log: string;
  type: string;
  name: string;
  /** milliseconds since 1970 */
  started: number;
};

/** A file that is being brought in: until then it is nowhere else. `batch` names those that came together. */
export type Arrival = {
  id: string;
  project: string;
  batch: string;
  name: string;
  type: string;
  size: number;
  fingerprint: string;
};

/** Pictures of a setup's empty set as this device's camera shows it, to watch against. Never leaves the device. */
type SetReference = {
  setup: string;
  project: string;
  camera: string;
  taken: number;
  pictures: { width: number; height: number; data: Uint8ClampedArray }[];
  /** what the camera was held at then, so that it is held at the same again; left out by older versions */
  held?: HeldSettings;
};

/** A field that two devices changed differently; the later change holds until somebody chooses. */
export type Conflict = {
  id: string;
  project: string;
  record: string;
  field: string;
  here: unknown;
  there: unknown;
  /** which of the two is in force */
  holds: 'here' | 'there';
  /** labels of the steps that made the change */
  labels: { here: string; there: string };
  /** stamp of the later one of them: what changed the field after that has settled it; left out by older versions */
  since?: string;
};

/** Tables that every screen follows: what was not written since it was read is not read again. */
export type NotedRows = {
  records: StoredRecord;
  media: Media;
  measures: Measure;
  halted: Halted;
  renders: Render;
  conflicts: Conflict;
};
export type NotedTable = keyof NotedRows;
type Write = { id: string; table: NotedTable; key: string; project: string; number: number };

export const keyOfRow = (row: NotedRows[NotedTable]): string => ('key' in row ? row.key : row.id);

/** The browser's store. Large bytes lie in tables of their own that no live query reads. */
export class Store extends Dexie {
  declare records: EntityTable<StoredRecord, 'id'>;
  /** when each row of some tables was last written or removed here: numbers that rise with every writing */
  declare writes: EntityTable<Write, 'id'>;
  declare commands: EntityTable<Command, 'id'>;
  declare media: EntityTable<Media, 'id'>;
  declare measures: EntityTable<Measure, 'key'>;
  declare halted: EntityTable<Halted, 'key'>;
  declare renders: EntityTable<Render, 'id'>;
  declare recordings: EntityTable<Recording, 'id'>;
  declare arrivals: EntityTable<Arrival, 'id'>;
  declare references: EntityTable<SetReference, 'setup'>;
  declare conflicts: EntityTable<Conflict, 'id'>;
  declare chunks: Table<{ recording: string; index: number; blob: Blob }, [string, number]>;
  declare originals: Table<{ id: string; blob: Blob }, string>;
  declare proxies: Table<{ id: string; blob: Blob }, string>;
  declare stills: Table<{ id: string; stills: Stills }, string>;
  declare curves: Table<{ key: string; project: string; values: Float32Array | Float64Array }, string>;

  /** the newest step that this tab made in each project, by the project's id */
  readonly latest = new Map<string, string>();
  private gesture: string | null = null;

  /** @param clock stamps this store's changes; one for each device */
  constructor(
    name = 'fickle-ribbon',
    readonly clock = new HybridClock(newNode()),
  ) {
    super(name);
    this.version(1).stores({
      records: 'id, kind, project',
      commands: 'id, project',
      media: 'id, project, fingerprint',
      measures: 'key, project, subject',
      halted: 'key, project',
      renders: 'id, project, status',
      originals: 'id',
      proxies: 'id',
      stills: 'id',
    });
    this.version(2).stores({
      recordings: 'id, project',
      chunks: '[recording+index], recording',
      references: 'setup, project',
      conflicts: 'id, project',
    });
    this.version(3).upgrade((transaction) => liftStore(transaction, 1));
    this.version(4)
      .stores({ curves: 'key, project', writes: 'id, number, [project+number]' })
      .upgrade(dropOldTakeMeasures);
    this.version(5).upgrade((transaction) => liftStore(transaction, 2));
    this.version(6).stores({ arrivals: 'id, project, batch' }).upgrade(dropOldSongMeasures);
  }

  /** A table of those that every screen follows. */
  readonly tableOf = <Name extends NotedTable>(name: Name) =>
    this[name] as unknown as Table<NotedRows[Name], string>;

  /**
   * Writes rows, and notes that they were written, so that whoever read the others need not read them again. A
   * transaction that calls this holds the table and `writes`.
   */
  writeRows<Name extends NotedTable>(name: Name, rows: readonly NotedRows[Name][]): Promise<void> {
    const table = this.tableOf(name);
    return this.transaction('rw', table, this.writes, async () => {
      await table.bulkPut(rows);
      await this.note(
        name,
        rows.map((row) => ({ key: keyOfRow(row), project: row.project })),
      );
    });
  }

  /** Removes rows of one project, and notes that they are gone. */
  removeRows(name: NotedTable, project: string, keys: readonly string[]): Promise<void> {
    const table = this.tableOf(name);
    return this.transaction('rw', table, this.writes, async () => {
      await table.bulkDelete([...keys]);
      await this.note(
        name,
        keys.map((key) => ({ key, project })),
      );
    });
  }

  private async note(table: NotedTable, rows: readonly { key: string; project: string }[]): Promise<void> {
    const last = (await this.writes.orderBy('number').last())?.number ?? 0;
    await this.writes.bulkPut(
      rows.map(({ key, project }, index) => ({
        id: `${table} ${key}`,
        table,
        key,
        project,
        number: last + 1 + index,
      })),
    );
  }

  /** Runs what one gesture does, such as a held key or a turned wheel: undo takes all of it back together. */
  within<Result>(gesture: string, work: () => Result): Result {
    const before = this.gesture;
    this.gesture = gesture;
    try {
      return work();
    } finally {
      this.gesture = before;
    }
  }

  /** The gesture that what is called right now belongs to. */
  readonly gestureNow = (): string | null => this.gesture;
}

const newNode = () => Math.random().toString(36).slice(2, 8).padEnd(6, '0');

export const newId = (): string => crypto.randomUUID();
