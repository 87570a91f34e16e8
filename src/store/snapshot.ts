import { allowed } from '@/core/finding/allowed';
import type { Alignment } from '@/core/footage/align-sound';
import type { Apart, ShotSheet } from '@/core/footage/cuts/shots';
import type { Lips } from '@/core/footage/lips';
import { partKey, type TakeSource } from '@/core/footage/take-parts';
import type { Comparison, SongMeasure, TakeMeasure } from '@/core/model/measures';
import type { Project, Take } from '@/core/model/records';
import type { Bodies } from '@/core/people/bodies';
import { rememberedWith, sharedList } from '@/core/remember';
import type { FieldRecording } from '@/core/footage/field-recorder';
import type { PartsWanted } from '@/core/footage/parts';
import { alignmentBySlate, slateTimeline } from '@/core/shoot/slate';
import { songPartKey, songParts } from '@/core/song/parts';
import type { BeatTrack } from '@/core/song/track';
import type { Ruler } from '@/core/recipes/recipe';
import { arrange, type Arranged } from './arrange';
import { readRows, type ReadRows } from './read-rows';
import type { Conflict, Halted, Media, Measure, MeasureValue, Render, Store, StoredRecord } from './db';

/** Everything small about a project at one instant; what screens draw and work is found from. */
export type Snapshot = Arranged & {
  /** the newest step of this tab that it holds, as a stamp; '' before the first */
  step: string;
  /** every record, also those that were removed */
  records: ReadonlyMap<string, StoredRecord>;
  conflicts: Conflict[];
  media: ReadonlyMap<string, Media>;
  measures: ReadonlyMap<string, Measure>;
  halted: ReadonlyMap<string, Halted>;
  renders: Render[];
};

/** The last snapshot of a store: what has not changed since is taken over from it, and stays the same object. */
const kept = new WeakMap<Store, { snapshot: Snapshot; read: ReadRows }>();

function sharedArranged(before: Snapshot | undefined, now: Arranged): Arranged {
  const entries = Object.entries(now).map(([name, value]) => {
    const old = before?.[name as keyof Arranged];
    return [name, Array.isArray(value) ? sharedList(old as unknown[] | undefined, value) : value];
  });
  return Object.fromEntries(entries) as Arranged;
}

/**
 * Reads a project; null where it is not there. Whatever is as it was when this store was read the last time is the
 * same object, the whole snapshot as well, so that what follows from it need not be worked out again.
 */
export async function readSnapshot(store: Store, projectId: string): Promise<Snapshot | null> {
  const step = store.latest.get(projectId) ?? '';
  const read = await readRows(store, projectId);
  const last = kept.get(store);
  const before = last?.read.project === projectId ? last : undefined;
  if (before && before.read === read && before.snapshot.step === step) return before.snapshot;
  const same = before?.read.records === read.records;
  const arranged = same ? before.snapshot : arrange([...read.records.values()]);
  if (!arranged) return null;
  const { records, media, measures, halted, renders, conflicts } = read;
  const snapshot: Snapshot = {
    ...sharedArranged(before?.snapshot, arranged),
    step,
    records,
    media,
    measures,
    halted,
    renders: [...renders.values()].sort((a, b) => b.created - a.created),
    conflicts: [...conflicts.values()],
  };
  kept.set(store, { snapshot, read });
  return snapshot;
}

/** The key of a take held against its plate: against all of it as it stands, or picture by picture where its camera moves. */
export const compareKey = (take: TakeSource, plate: TakeSource & Pick<Take, 'moves'>) =>
  plate.moves
    ? `repeat-3(${partKey('pictures', take)},${partKey('pictures', plate)})`
    : `comparison-9(${partKey('camera', take)},${partKey('camera', plate)})`;

type KeptMeasure = TakeMeasure & { poster: Blob; complete: boolean };
const takes = rememberedWith<MeasureValue, KeptMeasure>();

/** What is known of a take; null until its pictures were decoded. */
export function takeMeasure({ measures }: Pick<Snapshot, 'measures'>, take: Take | null): KeptMeasure | null {
  if (!take) return null;
  const value = measures.get(partKey('pictures', take))?.value;
  if (value?.method !== 'pictures') return null;
  const motion = measures.get(partKey('motion', take))?.value;
  const light = measures.get(partKey('light', take))?.value;
  return takes(value, [motion, light], () => ({
    ...value.pictures,
    motion: motion?.method === 'motion' ? motion.small : null,
    light: light?.method === 'light' ? light.small : null,
    poster: value.poster,
    complete: value.complete,
  }));
}

export function comparisonOf(snapshot: Snapshot, take: Take | null, plate: Take | null): Comparison | null {
  if (!take || !plate || take.id === plate.id) return null;
  const value = snapshot.measures.get(compareKey(take, plate))?.value;
  return value?.method === 'comparison' ? value.comparison : null;
}

/** The key of a clean plate that is to be put together. */
export const plateKey = ({ media }: TakeSource) => `plate-1:${media}`;

/** The key of what a film consists of. */
export const apartKey = (take: TakeSource) => `apart-1(${partKey('pictures', take)})`;

/** What a film consists of, and a picture of each shot; null until it was taken apart. */
export function apartOf(
  { measures }: Pick<Snapshot, 'measures'>,
  take: Take,
): { apart: Apart; sheet: ShotSheet; pictures: Blob } | null {
  const value = measures.get(apartKey(take))?.value;
  return value?.method === 'apart' ? value : null;
}

/** The key of the joins that were found last; one project keeps no others. */
export const joinsKey = (project: string) => `joins-1:${project}`;

/** The joins that were found last; null where none were looked for. */
export function lastJoins({ measures, project }: Pick<Snapshot, 'measures' | 'project'>) {
  const value = measures.get(joinsKey(project.id))?.value;
  return value?.method === 'joins' ? value : null;
}

/** The key of who stands in a take. */
export const bodiesKey = (take: TakeSource) => `bodies-1(${partKey('pictures', take)})`;

/** Who stands in a take; null where nobody was looked for yet. */
export function bodiesIn({ measures }: Pick<Snapshot, 'measures'>, take: Take | null): Bodies | null {
  const value = take ? measures.get(bodiesKey(take))?.value : null;
  return value?.method === 'bodies' ? value.bodies : null;
}

/** The key of where a song is heard in a take. @param song its sound */
export const playbackKey = (take: TakeSource, song: string) =>
  `playback-3(${take.media},${songPartKey('sound', song)})`;

/**
 * Where the project's song lies in a take: as it is heard, else as the slate says that was logged with it, by its beep or,
 * where that is not heard either, by its white picture; null where none of them is known.
 */
export function playbackOf(
  {
    measures,
    media,
    song,
    logs,
    project,
  }: Pick<Snapshot, 'measures' | 'media' | 'song' | 'logs' | 'project'>,
  take: Take | null,
): Alignment | null {
  if (!take || !song) return null;
  const sound = song.media ? measures.get(playbackKey(take, song.media))?.value : null;
  const heard = sound?.method === 'playback' ? sound : null;
  // Sound says it closer than a picture does, and may not have been listened to yet.
  if (!heard && song.media && media.get(take.media)?.probe?.audio) return null;
  const playback = heard?.playback ?? null;
  const passage = logs.find((log) => log.take === take.id)?.passage;
  if ((playback && playback.confidence >= allowed.heard) || !passage || !song.grid) return playback;
  const { from, speed } = passage;
  const timeline = slateTimeline(song.grid, { from, until: from + 1 }, speed, project.rate);
  if (heard && heard.beep !== null) return alignmentBySlate(timeline, heard.beep, 'beep');
  const seen = measures.get(partKey('white', take))?.value;
  const time = seen?.method === 'white' ? seen.small.time : null;
  return time === null ? playback : alignmentBySlate(timeline, time, 'white');
}

/** The key of how lips in a take go with a song. @param playback where the take lies on it */
export const lipsKey = (take: TakeSource, song: string, { offset, drift, speed = 1 }: Alignment) =>
  `lips-1(${partKey('pictures', take)},${songPartKey('sound', song)},${offset.toFixed(3)},${drift.toFixed(0)},${speed})`;

/** How lips in a take go with the project's song, where it is known how the take lies on that; null where it is not, or no lips are seen. */
export function lipsIn(snapshot: Parameters<typeof playbackOf>[0], take: Take | null): Lips | null {
  const { measures, song } = snapshot;
  const playback = playbackOf(snapshot, take);
  if (!take || !playback || !song?.media) return null;
  const value = measures.get(lipsKey(take, song.media, playback))?.value;
  return value?.method === 'lips' ? value.lips : null;
}

/** The key of how a long take is to be divided. */
export const partsKey = ({ media }: TakeSource) => `parts-1:${media}`;

/** How a long take is to be divided; null where nobody has said. */
export function partsWanted({ measures }: Pick<Snapshot, 'measures'>, take: Take): PartsWanted | null {
  const value = measures.get(partsKey(take))?.value;
  return value?.method === 'parts' ? value.wanted : null;
}

/** The key of what a recorder beside the camera has heard. @param file it is known by its name and size again */
export const recordingKey = (project: string, { name, size }: { name: string; size: number }) =>
  `recording-1:${project}:${size}:${name}`;

/** What recorders beside the camera have heard, by their keys. */
export const recordingsOf = ({ measures }: Pick<Snapshot, 'measures'>): [string, FieldRecording][] =>
  [...measures.values()].flatMap(({ key, value }) =>
    value.method === 'recording' ? [[key, value.recording] as [string, FieldRecording]] : [],
  );

/** Everything that is measured of a song. */
export type HeardSong = { song: SongMeasure; beats: BeatTrack };
const heard = rememberedWith<MeasureValue, HeardSong>();

/** A song's measure from its parts, as {@link songParts} names them; null until each was measured. */
export function heardOf(parts: readonly (MeasureValue | undefined)[]): HeardSong | null {
  const [sound, beats, sections] = parts;
  if (sound?.method !== 'sound' || beats?.method !== 'beats' || sections?.method !== 'sections') return null;
  return heard(sound, [beats, sections], () => ({
    song: { ...sound.sound, ...sections.form },
    beats: beats.beats,
  }));
}

export function songMeasure({ song, measures }: Pick<Snapshot, 'song' | 'measures'>): HeardSong | null {
  const media = song?.media;
  return media ? heardOf(songParts.map((part) => measures.get(songPartKey(part, media))?.value)) : null;
}

const rulers = rememberedWith<Project, Ruler>();

/** Turns beats into frames; null until there is a grid. */
export const rulerOf = ({ project, song }: Snapshot): Ruler | null => {
  const grid = song?.grid;
  return grid ? rulers(project, [grid], () => ({ grid, project })) : null;
};
