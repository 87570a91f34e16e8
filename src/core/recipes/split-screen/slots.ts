import type { Slot } from '../slots';

const ordinals = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth'];

/** One for each panel. Any take may fill it. */
export const panelSlots: readonly Slot[] = ordinals.map((ordinal, index) => ({
  key: `panel-${index + 1}`,
  title: `${ordinal} panel`,
  dye: index % 2 ? 'woad' : 'cochineal',
  open: true,
  follows:
    'Tap somebody, or something, in a panel: the panel keeps it in its middle, as far as its take reaches. Where the bench loses it, tap it there again.',
}));

/** The setting of how far a panel's picture is pushed aside. @param panel 1 for the first */
export const pushedField = (panel: number): string => `pushed.${panel}`;
