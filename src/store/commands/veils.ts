import { refuse } from '@/core/error';
import { hiddenIn, type Hidden } from '@/core/model/hidden';
import { change } from '../change';
import { newId, type Store } from '../db';

/** Where somebody's head was tapped in a take, in seconds of it and shares of its picture. */
type Tapped = Hidden['taps'][number];

/** Hides somebody in a take, wherever it is shown. @param reach of their head, as a share of the picture's width */
export const hideSomebody = (store: Store, project: string, take: string, tap: Tapped, reach: number) => {
  const hidden: Hidden = { taps: [tap], reach, covers: 'face' };
  return change(store, project, 'Hide somebody', [{ record: take, set: { [`veils.${newId()}`]: hidden } }]);
};

/**
 * Says where somebody who is hidden is on one more picture; what was said of that picture before is gone.
 * @param step seconds from picture to picture
 */
export const tapHidden = (
  store: Store,
  project: string,
  take: string,
  id: string,
  tap: Tapped,
  step: number,
) =>
  change(store, project, 'Say where somebody is', ({ takes }) => {
    const mine = takes.find((one) => one.id === take);
    const found = mine && hiddenIn(mine).find((one) => one.id === id);
    if (!found) return refuse('gone', 'They are no longer hidden. Undo brings that back.');
    const others = found.hidden.taps.filter(({ time }) => Math.abs(time - tap.time) > step / 2);
    return [{ record: take, set: { [`veils.${id}.taps`]: [...others, tap] } }];
  });

/** Changes how much of somebody is hidden. */
export const setHidden = (
  store: Store,
  project: string,
  take: string,
  id: string,
  set: Partial<Pick<Hidden, 'reach' | 'covers'>>,
) =>
  change(store, project, 'How much is hidden', [
    {
      record: take,
      set: Object.fromEntries(Object.entries(set).map(([name, value]) => [`veils.${id}.${name}`, value])),
    },
  ]);

/** Shows somebody again who was hidden. */
export const showAgain = (store: Store, project: string, take: string, id: string) =>
  change(store, project, 'Show somebody again', [{ record: take, set: { [`veils.${id}.taps`]: [] } }]);
