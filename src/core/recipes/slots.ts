import { plateSlot } from '../model/slots';
import type { ShotNeed } from './film';
import type { Dye } from './recipe';

/** A slot as stations name it. */
export type Slot = {
  key: string;
  title: string;
  dye?: Dye;
  /** any take may fill it, whatever it was filmed for */
  open?: true;
  /** somebody in it is kept, and a tap says whom */
  keeps?: true;
  /** a point of it is followed, and taps on several of its pictures say where that is: what that does, in words */
  follows?: string;
};

/** The empty set, which one take serves for all moments of a setup. */
export const plate: Slot = { key: plateSlot, title: 'clean plate' };

/** The slot that takes of a shot are filmed for; null where no picture is made of them. */
export function slotOfShot(shot: Pick<ShotNeed, 'what' | 'key'> | null): string | null {
  if (!shot || shot.what === 'sound') return null;
  return shot.what === 'plate' ? plateSlot : shot.key;
}
