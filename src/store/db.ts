import Dexie, { type EntityTable, type Table } from 'dexie';
import type { CoreError } from '@/core/error';
import type { Comparison, Probe, SeamMeasure, SongMeasure, Still, TakeMeasure } from '@/core/model/measures';
import type { AnyRecord, RecordKind } from '@/core/model/records';
import type { BeatTrack } from '@/core/song/track';

/** A record with the stamp of the last change of each field. */
export type StoredRecord = AnyRecord & { stamps: Record<string, string> };

/** One field that changed. Deletion is a change of `alive`; nothing is ever removed. */
export type FieldOp = { record: string; kind: RecordKind; field: string; before: unknown; after: unknown };

/** What a person did, in one step. */
export type Command = {
  /** stamp of the hybrid clock; sorts by time */
  id: string;
  project: string;
  label: string;
  ops: FieldOp[];
  /** done by the bench, not the person: undo passes over it */
  automatic?: boolean;
  undoes?: string;
  redoes?: string;
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
  probe: Probe | null;
  problem: CoreError | null;
  created: number;
};

export type MeasureValue =
  | { method: 'take-1'; take: TakeMeasure; poster: Blob; complete: boolean }
  | { method: 'compare-1'; comparison: Comparison }
  | { method: 'song-2'; song: SongMeasure; beats: BeatTrack }
  | { method: 'seam-1'; seam: SeamMeasure };
/** Something measured, under a key that holds everything it depends on. */
export type Measure = { key: string; project: string; subject: string; value: MeasureValue };

/** Work that ended without a result, so that it is not begun again by itself. */
export type Halted = { key: string; project: string; label: string; reason: 'cancelled' | CoreError };

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
};

/** The browser's store. Large bytes lie in tables of their own that no live query reads. */
export class Store extends Dexie {
  declare records: EntityTable<StoredRecord, 'id'>;
  declare commands: EntityTable<Command, 'id'>;
  declare media: EntityTable<Media, 'id'>;
  declare measures: EntityTable<Measure, 'key'>;
  declare halted: EntityTable<Halted, 'key'>;
  declare renders: EntityTable<Render, 'id'>;
  declare originals: Table<{ id: string; blob: Blob }, string>;
  declare proxies: Table<{ id: string; blob: Blob }, string>;
  declare stills: Table<{ id: string; stills: Still[] }, string>;

  constructor(name = 'fickle-ribbon') {
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
  }
}

export const newId = (): string => crypto.randomUUID();
