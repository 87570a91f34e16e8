import { inPlace, packPlacements } from '@/core/geometry/placement';
import { partKey, type TakeSource } from '@/core/footage/take-parts';
import { cameraPath } from '@/core/footage/camera-path';
import { pictureTimes } from '@/core/footage/picture-times';
import type { Comparison, SongMeasure, TakeMeasure } from '@/core/model/measures';
import type { Take } from '@/core/model/records';
import { songPartKey } from '@/core/song/parts';
import { regularGrid } from '@/core/time/grid';
import type { ReadBeats } from '@/core/song/track';
import { change } from '../change';
import { createMoment } from '../commands/moments';
import { createProject, newRecord } from '../commands/projects';
import { Store, type Measure, type Media } from '../db';
import { compareKey, readSnapshot, type Snapshot } from '../snapshot';

const size = { width: 1280, height: 720 };

/** Seconds at which the pictures of every take begin to show: ten seconds, 24 a second. */
export const starts = Float64Array.from({ length: 240 }, (_, index) => index / 24);

export const taken = (more: Partial<TakeMeasure> = {}): TakeMeasure => ({
  size,
  analysis: { width: 640, height: 360 },
  times: pictureTimes(starts),
  colours: { matrix: 'bt709', fullRange: false, assumed: false },
  motion: { share: 0.1, across: 0.5 },
  light: { dark: 0, blown: 0, flicker: 0 },
  ...more,
});

/** A take whose camera goes by some pixels a second as the plate's does, so many seconds later. */
export const repeating = (late: number, perSecond: number): NonNullable<Comparison['repeat']> => {
  const along = (by: number) => ({
    times: starts,
    placements: packPlacements(
      Array.from(starts, (seconds) => ({ ...inPlace, dx: perSecond * (seconds - by) })),
    ),
  });
  return { late, lead: along(0), own: along(late), travels: { lead: 200, own: 200 } };
};

/** A camera that stood off by some pixels all along. */
export const standing = (dx: number) =>
  cameraPath(
    Array.from(starts, () => ({ ...inPlace, dx })),
    starts,
    size,
  );

export const compared = (more: Partial<Comparison> = {}): Comparison => ({
  path: standing(0),
  left: 0,
  colour: null,
  agreement: 1,
  covered: new Uint8Array(4),
  standing: { times: [], packed: [] },
  ...more,
});

export const sung = (more: Partial<SongMeasure> = {}): SongMeasure => ({
  duration: 60,
  peaks: new Float32Array(0),
  perSecond: 100,
  silent: false,
  levels: Float32Array.from({ length: 600 }, (_, index) => (index < 300 ? 0.1 : 0.8)),
  sections: [],
  ...more,
});

let count = 0;

/** A project in a store of its own, filled as films are. */
export class TestFilm {
  private constructor(
    readonly store: Store,
    readonly project: string,
  ) {}

  /** @param store one that there is already; left out, one of its own */
  static async begin(store = new Store(`film-${count++}`)): Promise<TestFilm> {
    return new TestFilm(store, await createProject(store, 'Test'));
  }

  async read(): Promise<Snapshot> {
    return (await readSnapshot(this.store, this.project)) as Snapshot;
  }

  addMedia(id: string, more: Partial<Media> = {}) {
    const row: Media = {
      id,
      project: this.project,
      name: `${id}.mp4`,
      type: 'video/mp4',
      size: 10,
      fingerprint: id,
      place: 'blob',
      probe: null,
      problem: null,
      created: 1,
      ...more,
    };
    return this.store.writeRows('media', [row]);
  }

  /** A take whose medium is called `m-` and its id. */
  async addTake(id: string, slot: Take['slot'], order: number): Promise<void> {
    await this.addMedia(`m-${id}`);
    const take: Take = {
      ...newRecord(this.project, id),
      kind: 'take',
      media: `m-${id}`,
      name: id,
      slot,
      order,
      steady: false,
      match: false,
    };
    await change(this.store, this.project, 'Take', [{ create: take }]);
  }

  /** Keeps an answer. */
  keep(key: string, subject: string, value: Measure['value']): Promise<void> {
    return this.store.writeRows('measures', [{ key, project: this.project, subject, value }]);
  }
  async measured(
    id: string,
    { motion, light, ...pictures } = taken(),
    complete = true,
    source: TakeSource = { media: `m-${id}` },
  ): Promise<void> {
    const { media } = source;
    const poster = new Blob();
    await this.keep(partKey('camera', source), media, { method: 'camera', small: null });
    await this.keep(partKey('white', source), media, { method: 'white', small: { time: null } });
    if (motion) await this.keep(partKey('motion', source), media, { method: 'motion', small: motion });
    if (light) await this.keep(partKey('light', source), media, { method: 'light', small: light });
    await this.keep(partKey('pictures', source), media, {
      method: 'pictures',
      pictures,
      poster,
      complete,
    });
  }
  compared(id: string, more: Partial<Comparison> = {}, source: TakeSource = { media: `m-${id}` }) {
    const value = { method: 'comparison' as const, comparison: compared(more) };
    return this.keep(compareKey(source, { media: 'm-plate', moves: !!more.repeat }), id, value);
  }
  /** @param other another reading of its beats */
  async sung(more: Partial<SongMeasure> = {}, other?: ReadBeats) {
    const grid = regularGrid(120, 0, 60);
    const beats = { ...grid, downbeats: [0], bpm: 120, confidence: 0.9, hits: [], ...(other && { other }) };
    const { levels, sections, ...sound } = sung(more);
    await this.keep(songPartKey('sound', 'song'), 'song', { method: 'sound', sound });
    await this.keep(songPartKey('beats', 'song'), 'song', { method: 'beats', beats });
    await this.keep(songPartKey('sections', 'song'), 'song', {
      method: 'sections',
      form: { levels, sections },
    });
  }

  async addSong(more: object = {}): Promise<void> {
    await this.addMedia('song', { type: 'audio/wav', name: 'song.wav' });
    await change(this.store, this.project, 'Song', [
      {
        create: {
          ...newRecord(this.project, 'song-record'),
          kind: 'song',
          media: 'song',
          grid: regularGrid(120, 0, 60),
          confidence: 0.9,
          ...more,
        },
      },
    ]);
  }

  /** A song, a plate, a left and a right take, and a clone of eight beats. @returns its id */
  async wholeClone(): Promise<string> {
    await this.addSong();
    await this.addTake('plate', 'plate', 1);
    await this.addTake('one', 'left', 2);
    await this.addTake('two', 'right', 3);
    return createMoment(this.store, this.project, 0, 8);
  }
}
