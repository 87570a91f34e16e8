import type { Slot } from '../slots';

/** The one take whose time bends. */
export const passSlot = {
  key: 'pass',
  title: 'pass',
  dye: 'woad',
  open: true,
  follows:
    'To hold a point still, an eye for one, tap it on one picture of “As filmed”: the bench finds it on the others. Where it loses it, tap it there again.',
} as const satisfies Slot;

/** The setting that holds where a pose is in the take. @param pose 1 for the first */
export const instantField = (pose: number): string => `instants.${pose}`;

/** The name of a pose's instant on a beat: the first is where the moment lands. */
export const poseAnchor = (pose: number): string => (pose === 1 ? 'lands' : `pose-${pose}`);
