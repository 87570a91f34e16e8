import { plateSlot } from '../model/slots';
import { cloneSlots, suggestCloneSlot } from './clone/slots';

/** A slot as stations name it. */
export type Slot = { key: string; title: string };

/** How much of the picture changes during a take (0..1), and where across it that is in the mean (0..1). */
export type Motion = { share: number; middle: number };

/** The slots whose takes are laid over a plate: those are held against it. */
export const slotsOverPlate: readonly Slot[] = [{ key: plateSlot, title: 'clean plate' }, ...cloneSlots];

/** True where takes of a slot are held against the plate. */
export const isOverPlate = (slot: string | null): boolean => slotsOverPlate.some(({ key }) => key === slot);

/** The slot that a file's name speaks of; null where it speaks of none. */
export const slotInName = (name: string): string | null =>
  slotsOverPlate.find(({ key }) => new RegExp(`\\b${key}\\b`, 'i').test(name))?.key ?? null;

/** The slot that the movement in a take suggests: where nothing moves it is a plate. */
export const suggestSlot = (motion: Motion): string =>
  motion.share < 0.004 ? plateSlot : suggestCloneSlot(motion);
