import { refuse } from '@/core/error';
import { momentSchema, type Moment } from '@/core/model/records';
import { movePins } from '@/core/model/pins';
import { fillOf, plateSlot, tapsOf, type Tap } from '@/core/model/slots';
import { recipeOf, slotsInUse, usualKind, usualRecipe } from '@/core/recipes/built';
import { calledOf, films, type MomentKind } from '@/core/recipes/films';
import { setupOf } from '@/core/plan/shots';
import { timeOfFrame } from '@/core/time/rate';
import { moveSpan, type SpanPart } from '@/core/time/span';
import type { UsualSound } from '@/core/sounds/sound';
import { change } from '../change';
import { serves } from '../plates';
import { newId, type Store } from '../db';
import { newRecord } from './projects';

/** A moment of any kind over some beats, with its starting values; strikes half-way. */
export const newMoment = (
  project: string,
  kind: MomentKind,
  start: number,
  end: number,
  name = calledOf(kind),
): Moment =>
  momentSchema.parse({
    ...newRecord(project),
    kind: 'moment',
    recipe: kind,
    name,
    start,
    lands: start + Math.max(0.5, Math.floor((end - start) / 2)),
    end,
    settings: films[kind].start,
  }) as Moment;

/**
 * A moment of the usual kind over some beats; it lands a bar in, or half-way where there is less. Its slots are filled
 * with the first takes that were filmed for them.
 * @param chosen takes by slot that are known already
 * @returns its id
 */
export async function createMoment(
  store: Store,
  project: string,
  start: number,
  end: number,
  chosen: Record<string, string> = {},
): Promise<string> {
  const id = newId();
  await change(store, project, 'New moment', (film) => {
    const { takes, song, moments, setups } = film;
    if (!song?.grid) return refuse('no-grid', 'There are no beats yet. Bring in a song, or set its tempo.');
    if (!(end > start)) return refuse('no-length', 'A moment needs at least one beat. Drag over some bars.');
    const setup = setupOf(setups, null);
    const perBar = song.grid.beatsPerBar;
    const first = (slot: string) =>
      takes.find((take) => take.slot === slot && serves(film, take, setup))?.id ?? null;
    const called = calledOf(usualKind);
    const name = moments.length === 0 ? called : `${called} ${moments.length + 1}`;
    const moment = newMoment(project, usualKind, start, end, name);
    const slots = slotsInUse(moment, usualRecipe)
      .filter(({ key }) => key !== plateSlot)
      .map(({ key }) => [key, { take: chosen[key] ?? first(key) }]);
    const lands = end - start > perBar ? start + perBar : moment.lands;
    return [{ create: { ...moment, id, lands, slots: Object.fromEntries(slots) } as Moment }];
  });
  return id;
}

/** Changes fields of a moment; dots lead inwards: `settings.feather`. */
export const setMoment = (
  store: Store,
  project: string,
  moment: string,
  label: string,
  set: Record<string, unknown>,
) => change(store, project, label, [{ record: moment, set }]);

/**
 * Fills slots with other takes; what held for the takes before is dropped.
 * @param takes ids by slot
 * @param begin seconds by slot at which a take begins to show; others stay as they are
 */
export const fillSlots = (
  store: Store,
  project: string,
  id: string,
  label: string,
  takes: Record<string, string>,
  begin: Record<string, number> = {},
) =>
  change(store, project, label, ({ moments }) => {
    const ofTakes = recipeOf(momentOf(moments, id))?.ofTakes ?? {};
    const set = [
      ...Object.entries(takes).map(([slot, take]) => [`slots.${slot}.take`, take]),
      ...Object.entries(begin).map(([slot, seconds]) => [`slots.${slot}.at`, seconds]),
      ...Object.entries(ofTakes).map(([name, value]) => [`settings.${name}`, value]),
    ];
    return [{ record: id, set: Object.fromEntries(set) as Record<string, unknown> }];
  });

/** A moment as it is now. @throws CoreError `gone` */
export function momentOf<Some extends Moment>(moments: readonly Some[], id: string): Some {
  const found = moments.find((one) => one.id === id);
  return found ?? refuse('gone', 'This moment is no longer there. Undo brings it back.');
}

/** All that a moment is pinned to goes along with all of it; one end goes alone. */
const moved = (moment: Moment, part: SpanPart, by: number): Record<string, number> =>
  part === 'body' ? movePins(moment, (position) => position + by) : moveSpan(moment, part, by);

/** Moves a moment, or one of its ends or its beat, by some beats from where it is now. */
export const moveMoment = (store: Store, project: string, id: string, part: SpanPart, by: number) =>
  change(store, project, 'Move on the ribbon', ({ moments }) => [
    { record: id, set: moved(momentOf(moments, id), part, by) },
  ]);

const shifted = (pins: Record<string, number>, by: number) =>
  Object.fromEntries(Object.entries(pins).map(([name, position]) => [name, position + by]));

/** The same moment again, from where it ends. @returns its id */
export async function copyMoment(store: Store, project: string, id: string): Promise<string> {
  const copy = newId();
  await change(store, project, 'Copy the moment', ({ moments }) => {
    const moment = momentOf(moments, id);
    const by = moment.end - moment.start;
    const create = momentSchema.parse({
      ...moment,
      ...newRecord(project, copy),
      ...moveSpan(moment, 'body', by),
      ...(moment.pins ? { pins: shifted(moment.pins, by) } : {}),
    }) as Moment;
    return [{ create }];
  });
  return copy;
}

export const removeMoment = (store: Store, project: string, moment: string) =>
  change(store, project, 'Remove the moment', [{ remove: moment }]);

/** Starts a take earlier by some frames, as far as it has them. */
export const startEarlier = (
  store: Store,
  project: string,
  args: { moment: string; slot: string; frames: number },
) =>
  change(store, project, 'Start earlier', ({ moments, project: { rate } }) => {
    const moment = momentOf(moments, args.moment);
    const now = fillOf(moment, args.slot).at;
    if (now <= 0)
      return refuse(
        'too-short',
        'This take has nothing earlier. End the moment sooner, or choose a longer take.',
      );
    const value = Math.max(0, now - timeOfFrame(rate, args.frames));
    return [{ record: moment.id, set: { [`slots.${args.slot}.at`]: value } }];
  });

/** How near, in shares of the frame, a tap lies to one that was set before to take it back. */
const nearTap = 0.05;

/**
 * Keeps one more performer of the take in a slot; a tap on one that was tapped takes that back.
 * An outline drawn by hand stays: what it does to whom is kept is judged anew.
 */
export const keepPerformer = (
  store: Store,
  project: string,
  moment: string,
  slot: string,
  { time, at }: Pick<Tap, 'time' | 'at'>,
) =>
  change(store, project, 'Keep this performer', ({ moments }) => {
    const mine = moments.find((one) => one.id === moment);
    if (!mine) return [];
    const fill = fillOf(mine, slot);
    const taps = tapsOf(fill);
    const far = taps.filter((tap) => Math.hypot(tap.at[0] - at[0], tap.at[1] - at[1]) > nearTap);
    const next = far.length < taps.length ? far : [...taps, { time, at, take: fill.take ?? undefined }];
    return [{ record: moment, set: { [`slots.${slot}.taps`]: next } }];
  });

/**
 * Says where the followed point is on one picture of the take in a slot; what was said of that picture before is gone.
 * @param step seconds from picture to picture
 */
export const followPoint = (
  store: Store,
  project: string,
  moment: string,
  slot: string,
  { time, at, step }: Pick<Tap, 'time' | 'at'> & { step: number },
) =>
  change(store, project, 'Say where the followed point is', ({ moments }) => {
    const mine = moments.find((one) => one.id === moment);
    if (!mine) return [];
    const fill = fillOf(mine, slot);
    const others = tapsOf(fill).filter((tap) => Math.abs(tap.time - time) > step / 2);
    const next = [...others, { time, at, take: fill.take ?? undefined }];
    return [{ record: moment, set: { [`slots.${slot}.taps`]: next } }];
  });

/** Follows nothing any more. */
export const followNothing = (store: Store, project: string, moment: string, slot: string) =>
  change(store, project, 'Follow nothing', [{ record: moment, set: { [`slots.${slot}.taps`]: [] } }]);

/** Keeps whom the bench finds in the take of a slot, whoever was tapped. */
export const keepWhoeverIsFound = (store: Store, project: string, moment: string, slot: string) =>
  change(store, project, 'Keep whom the bench finds', [
    { record: moment, set: { [`slots.${slot}.taps`]: [] } },
  ]);

/** Lays the usual sounds at the instants of a moment that have none yet. */
export const layUsualSounds = (
  store: Store,
  project: string,
  moment: string,
  events: readonly { anchor: string; usual: UsualSound | null; settings: { sound: string | null } }[],
) =>
  change(store, project, 'Lay the usual sounds', [
    {
      record: moment,
      set: Object.fromEntries(
        events.flatMap(({ anchor, usual, settings }) =>
          usual && settings.sound === null ? [[`sounds.${anchor}.sound`, usual.sound]] : [],
        ),
      ),
    },
  ]);
