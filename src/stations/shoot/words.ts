import type { Rating } from '@/core/model/shoot-records';

export const ratingWords: Record<Rating, { text: string; dye: string }> = {
  good: { text: 'Good', dye: 'var(--verdigris)' },
  maybe: { text: 'Maybe', dye: 'var(--saffron)' },
  no: { text: 'No', dye: 'var(--madder)' },
};

/** "0:07" for whole seconds. */
export const sayLengthOfTake = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

/** "18:42" of this device's own day. */
export const sayTimeOfDay = (instant: number): string =>
  new Date(instant).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false });

export type ShootPart = 'board' | 'camera' | 'practice' | 'carry';
export const shootParts: { id: ShootPart; text: string }[] = [
  { id: 'board', text: 'Board' },
  { id: 'camera', text: 'Camera' },
  { id: 'practice', text: 'Practice' },
  { id: 'carry', text: 'Carry' },
];
