import { plateSlot } from '../model/slots';
import type { ShotNeed } from './film';
import type { Dye } from './recipe';
import { cloneSlots, suggestCloneSlot } from './clone/slots';

/** A slot as stations name it. */
export type Slot = { key: string; title: string; dye?: Dye };

/** How much of the picture changes during a take (0..1), and where across it that is in the mean (0..1). */
export type Motion = { share: number; middle: number };

/** The empty set, which one take serves for all moments of a setup. */
export const plate: Slot = { key: plateSlot, title: 'clean plate' };

/** The slots whose takes are laid over a plate: those are held against it. */
export const slotsOverPlate: readonly Slot[] = [plate, ...cloneSlots];

/** True where takes of a slot are held against the plate. */
export const isOverPlate = (slot: string | null): boolean => slotsOverPlate.some(({ key }) => key === slot);

/** The slot that takes of a shot are filmed for; null where no picture is made of them. */
export function slotOfShot(shot: Pick<ShotNeed, 'what' | 'key'> | null): string | null {
  if (!shot || shot.what === 'sound') return null;
  return shot.what === 'plate' ? plateSlot : shot.key;
}

/** The slot that a file's name speaks of; null where it speaks of none. */
export const slotInName = (name: string): string | null =>
  slotsOverPlate.find(({ key }) => new RegExp(`\\b${key}\\b`, 'i').test(name))?.key ?? null;

/** The slot that the movement in a take suggests: where nothing moves it is a plate. */
export const suggestSlot = (motion: Motion): string =>
  motion.share < 0.004 ? plateSlot : suggestCloneSlot(motion);
