import { allowed } from '@/core/finding/allowed';
import type { Alignment } from '@/core/footage/align-sound';
import { usualWeights } from '@/core/footage/pairs';
import { partKey, takeParts, type TakePart } from '@/core/footage/take-parts';
import type { Moment, Take } from '@/core/model/records';
import { filmSlot, noSlot, plateSlot } from '@/core/model/slots';
import { remembered } from '@/core/remember';
import { songPartKey, songParts, type SongPart } from '@/core/song/parts';
import {
  candidatesFor,
  isOverPlate,
  laysOverPlate,
  pairsOf,
  recipeOf,
  slotsInUse,
} from '@/core/recipes/built';
import { renderKey } from './commands/renders';
import { takeIn, worksOf, type KeyedWork } from './material';
import { plateFor, plateOfMoment } from './plates';
import {
  apartKey,
  bodiesKey,
  compareKey,
  lipsKey,
  plateKey,
  playbackKey,
  playbackOf,
  type Snapshot,
} from './snapshot';
import { versionsOf } from './versions';

/** A piece of work that is missing, under the key that its result will have. */
export type Need =
  | { kind: 'take'; key: string; label: string; take: Take; parts: TakePart[] }
  | { kind: 'song'; key: string; label: string; media: string; song: string; parts: SongPart[] }
  | { kind: 'again'; key: string; label: string; media: string; song: string }
  | { kind: 'sound'; key: string; label: string; media: string }
  | { kind: 'plate'; key: string; label: string; take: Take; from: Take[] }
  | { kind: 'compare'; key: string; label: string; take: Take; plate: Take }
  | { kind: 'playback'; key: string; label: string; take: Take; song: string }
  | { kind: 'lips'; key: string; label: string; take: Take; song: string; playback: Alignment }
  | { kind: 'bodies'; key: string; label: string; take: Take }
  | { kind: 'apart'; key: string; label: string; take: Take }
  | { kind: 'work'; key: string; label: string; moment: Moment; work: KeyedWork }
  | { kind: 'render'; key: string; label: string; render: string; moment: Moment | null };

/**
 * What is still to be measured, solved or rendered, in the order in which it is wanted. Because this follows
 * from what is stored, work that a reload interrupted goes on by itself.
 */
export const needsOf = remembered((snapshot: Snapshot): readonly Need[] =>
  lacksOf(snapshot).filter(({ key }) => !snapshot.halted.has(key)),
);

/** The same with work that ended without a result, and is not begun again by itself. */
export const lacksOf = remembered((snapshot: Snapshot): readonly Need[] => {
  const { song, takes, sounds, media, measures, built, renders } = snapshot;
  const needs: Need[] = [];
  const want = (need: Need) => {
    if (!measures.has(need.key)) needs.push(need);
  };
  const nameOf = (id: string) => media.get(id)?.name ?? 'file';
  if (song?.media && media.has(song.media)) {
    const file = song.media;
    const parts = songParts.filter((part) => !measures.has(songPartKey(part, file)));
    if (parts.length > 0)
      want({
        kind: 'song',
        key: songPartKey(parts[0], file),
        label: `Finding beats in ${nameOf(file)}`,
        media: file,
        song: song.id,
        parts,
      });
    if (song.again && parts.length === 0) {
      const key = `again:${song.id}:${song.again}`;
      want({ kind: 'again', key, label: 'Finding the other beats again', media: file, song: song.id });
    }
  }
  for (const { media: file } of sounds)
    if (media.has(file))
      want({
        kind: 'sound',
        key: songPartKey('sound', file),
        label: `Decoding ${nameOf(file)}`,
        media: file,
      });
  for (const take of takes) {
    if (!media.has(take.media)) {
      const from = takes.filter(({ id }) => take.made?.from.includes(id));
      const known = from.every((one) => comparedBy.every((part) => measures.has(partKey(part, one))));
      if (take.made && known)
        want({
          kind: 'plate',
          key: plateKey(take),
          label: `Putting ${take.name} together`,
          take,
          from,
        });
      continue;
    }
    const parts = takeParts.filter((part) => !measures.has(partKey(part, take)));
    if (parts.length === 0) continue;
    const key = partKey(parts[0], take);
    want({ kind: 'take', key, label: `Measuring ${take.name}`, take, parts });
  }
  const sounding = song?.media && measures.has(songPartKey('sound', song.media)) ? song.media : null;
  for (const take of sounding ? takes : []) {
    if (!sounding || take.slot === plateSlot || take.slot === noSlot) continue;
    if (!media.get(take.media)?.probe?.audio) continue;
    const key = playbackKey(take, sounding);
    want({ kind: 'playback', key, label: `Looking for the song in ${take.name}`, take, song: sounding });
  }
  for (const take of takes)
    if (take.slot === filmSlot && measures.has(partKey('pictures', take)))
      want({ kind: 'apart', key: apartKey(take), label: `Taking ${take.name} apart`, take });
  for (const [take, plate] of comparedOf(snapshot)) {
    if ([take, plate].some((one) => comparedBy.some((part) => !measures.has(partKey(part, one))))) continue;
    const key = compareKey(take, plate);
    want({
      kind: 'compare',
      key,
      label: `Comparing ${take.name} with the plate`,
      take,
      plate,
    });
  }
  for (const take of lookedAt(snapshot)) {
    const key = bodiesKey(take);
    want({ kind: 'bodies', key, label: `Looking for eyes in ${take.name}`, take });
  }
  for (const moment of built)
    for (const one of [moment, ...versionsOf(snapshot, moment).map(({ as }) => as)])
      for (const work of worksOf(snapshot, one)) {
        const { key, title } = work;
        want({ kind: 'work', key, label: `Finding ${title} of ${moment.name}`, moment: one, work });
      }
  for (const render of renders) {
    const moment = built.find((one) => one.id === render.moment) ?? null;
    if (render.status !== 'waiting' || !(moment || render.asked)) continue;
    want({
      kind: 'render',
      key: renderKey(render.id),
      label: `Rendering ${render.name}`,
      render: render.id,
      moment,
    });
  }
  // Last: it takes the longest, and nothing waits for it.
  for (const take of sounding ? sungIn(snapshot) : []) {
    const playback = playbackOf(snapshot, take);
    if (!sounding || !playback || playback.confidence < allowed.heard || (playback.speed ?? 1) !== 1)
      continue;
    const key = lipsKey(take, sounding, playback);
    want({
      kind: 'lips',
      key,
      label: `Looking at lips in ${take.name}`,
      take,
      song: sounding,
      playback,
    });
  }
  return needs;
});

/** The takes that show as they were filmed in some moment, but for plates: those whose lips can be off. */
function sungIn(snapshot: Snapshot): Take[] {
  const { built, takes, measures } = snapshot;
  const shown = new Set(
    built.flatMap((moment) => {
      const recipe = recipeOf(moment);
      if (!recipe?.runsOn) return [];
      return slotsInUse(moment, recipe).flatMap(({ key }) =>
        key === plateSlot ? [] : (takeIn(snapshot, moment, key)?.id ?? []),
      );
    }),
  );
  return takes.filter(
    (take) => shown.has(take.id) && !take.sketch && measures.has(partKey('pictures', take)),
  );
}

/** The takes whose people are held against each other: those of paired slots, once their eyes count for a pair. */
function lookedAt({ project, takes, built, measures }: Snapshot): Take[] {
  if (!((project.pairWeights?.eyes ?? usualWeights.eyes) > 0)) return [];
  const pairs = (built.length > 0 ? built : [null]).map(pairsOf);
  const paired = new Set(
    pairs.flatMap((pair) =>
      pair?.by.includes('eyes')
        ? [
            ...candidatesFor(takes, pair.slots[0], pair.slots[1]),
            ...candidatesFor(takes, pair.slots[1], pair.slots[0]),
          ]
        : [],
    ),
  );
  return takes.filter((take) => paired.has(take) && measures.has(partKey('pictures', take)));
}

/** What has to be known of two takes before they can be compared. */
const comparedBy: readonly TakePart[] = ['pictures', 'camera'];

/** Each take with the plate of its setup, also those of which nobody knows yet what they are, and with the plate of every moment that it is chosen for. */
function comparedOf(snapshot: Snapshot): [Take, Take][] {
  const { takes, built } = snapshot;
  const pairs = new Map<string, [Take, Take]>();
  const add = (take: Take | null, plate: Take | null) => {
    if (take && plate && take.id !== plate.id) pairs.set(`${take.id} ${plate.id}`, [take, plate]);
  };
  // What nobody has said of a take follows from how it lies against the plate.
  for (const take of takes)
    if (take.slot === null || isOverPlate(take.slot)) add(take, plateFor(snapshot, take));
  for (const moment of built) {
    const recipe = recipeOf(moment);
    if (!recipe || !laysOverPlate(recipe)) continue;
    for (const { key } of slotsInUse(moment, recipe))
      add(takeIn(snapshot, moment, key), plateOfMoment(snapshot, moment));
  }
  return [...pairs.values()];
}
