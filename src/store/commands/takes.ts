import type { YuvMatrix } from '@/core/picture/planes';
import { refuse } from '@/core/error';
import { plateSlot } from '@/core/model/slots';
import { change } from '../change';
import { newId, type Store } from '../db';
import { partsOfPlate } from '../plates';
import { newRecord } from './projects';

export const setTake = (
  store: Store,
  project: string,
  take: string,
  label: string,
  set: {
    slot?: string;
    steady?: boolean;
    match?: boolean;
    smooth?: number;
    moves?: boolean;
    name?: string;
    matrix?: YuvMatrix;
  },
) => change(store, project, label, [{ record: take, set }]);

/** Says of several takes at once what they are. */
export const setTakes = (store: Store, project: string, takes: readonly string[], slot: string) =>
  change(
    store,
    project,
    'What takes are',
    takes.map((record) => ({ record, set: { slot } })),
  );

/** Notes something of a shot of a film that is taken apart. @param frame its first one */
export const noteShot = (store: Store, project: string, take: string, frame: number, text: string) =>
  change(store, project, 'Note a shot', [{ record: take, set: { [`notes.${frame}`]: text } }]);

/** Takes a clip, or a sound of one's own, out of the project; undo brings it back. */
export const removeTake = (store: Store, project: string, take: string) =>
  change(store, project, 'Take out of the project', [{ remove: take }]);

/** Brings a take back that was taken out. */
export const restoreTake = (store: Store, project: string, take: string) =>
  change(store, project, 'Bring back', [{ record: take, set: { alive: true } }]);

/** Asks for a clean plate out of the takes of a setup; the bench makes it. @param setup null for takes that nobody logged */
export const makePlate = (store: Store, project: string, setup: string | null) =>
  change(store, project, 'Put a plate together', (film) => {
    const from = partsOfPlate(film, setup).map(({ id }) => id);
    if (from.length === 0)
      return refuse('no-takes', 'There is no take that a clean plate could be put together from.');
    const take = {
      ...newRecord(project),
      kind: 'take' as const,
      media: newId(),
      name: 'Plate put together',
      slot: plateSlot,
      order: Math.max(...film.takes.map(({ order }) => order)) + 1,
      steady: false,
      match: false,
      made: { from, setup },
    };
    return [{ create: take }];
  });
