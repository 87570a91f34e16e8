import { refuse } from '@/core/error';
import { emptyClone } from '@/core/model/clone';
import { momentSchema, type CloneMoment, type Moment, type Take } from '@/core/model/records';
import { timeOfFrame } from '@/core/time/rate';
import { change } from '../change';
import { newId, type Store } from '../db';
import type { Snapshot } from '../snapshot';
import { newRecord } from './projects';

/** A clone over some beats; the copy appears a bar in, or half-way where there is less. Returns its id. */
export async function createClone(
  store: Store,
  snapshot: Snapshot,
  start: number,
  end: number,
  pair?: { left: Take; right: Take },
): Promise<string> {
  const { takes, song, project, moments } = snapshot;
  if (!song?.grid) return refuse('no-grid', 'There are no beats yet. Bring in a song, or set its tempo.');
  if (!(end > start)) return refuse('no-length', 'A moment needs at least one beat. Drag over some bars.');
  const first = (role: Take['role']) => takes.find((take) => take.role === role)?.id ?? null;
  const perBar = song.grid.beatsPerBar;
  const moment: CloneMoment = {
    ...newRecord(project.id, newId()),
    kind: 'moment',
    recipe: 'clone',
    name: moments.length === 0 ? 'Meets herself' : `Meets herself ${moments.length + 1}`,
    start,
    lands: end - start > perBar ? start + perBar : start + Math.max(0.5, Math.floor((end - start) / 2)),
    end,
    settings: {
      ...emptyClone,
      plate: first('plate'),
      left: pair?.left.id ?? first('left'),
      right: pair?.right.id ?? first('right'),
    },
  };
  await change(store, project.id, 'New moment', [{ create: moment }]);
  return moment.id;
}

/** Changes fields of a moment; dots lead inwards: `settings.feather`. */
export const setMoment = (
  store: Store,
  project: string,
  moment: string,
  label: string,
  set: Record<string, unknown>,
) => change(store, project, label, [{ record: moment, set }]);

/** The same moment again, from where it ends. @returns its id */
export async function copyMoment(store: Store, { project, moments }: Snapshot, id: string): Promise<string> {
  const moment = moments.find((one) => one.id === id);
  if (!moment) return refuse('gone', 'This moment is no longer there. Undo brings it back.');
  const by = moment.end - moment.start;
  const copy = momentSchema.parse({
    ...moment,
    ...newRecord(project.id),
    start: moment.start + by,
    lands: moment.lands + by,
    end: moment.end + by,
  }) as Moment;
  await change(store, project.id, 'Copy the moment', [{ create: copy }]);
  return copy.id;
}

export const removeMoment = (store: Store, project: string, moment: string) =>
  change(store, project, 'Remove the moment', [{ remove: moment }]);

/** Starts a take earlier by some frames, as far as it has them. */
export async function startEarlier(
  store: Store,
  snapshot: Snapshot,
  args: { moment: string; role: 'left' | 'right'; frames: number },
) {
  const moment = snapshot.clones.find((one) => one.id === args.moment);
  if (!moment) return refuse('gone', 'This moment is no longer there. Undo brings it back.');
  const field = `${args.role}In` as const;
  const now = moment.settings[field];
  if (now <= 0)
    return refuse(
      'too-short',
      'This take has nothing earlier. End the moment sooner, or choose a longer take.',
    );
  const value = Math.max(0, now - timeOfFrame(snapshot.project.rate, args.frames));
  return setMoment(store, snapshot.project.id, moment.id, 'Start earlier', { [`settings.${field}`]: value });
}
