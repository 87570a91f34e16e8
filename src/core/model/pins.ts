/** Where a moment is pinned, in beat positions. */
export type Pinned = {
  start: number;
  lands: number;
  end: number;
  /** further instants, by the names that its kind gives them */
  pins?: Record<string, number>;
};

/** Every beat that a moment is pinned to, by the path of its field. */
export const pinnedAt = ({ start, lands, end, pins = {} }: Pinned): Record<string, number> => ({
  start,
  lands,
  end,
  ...Object.fromEntries(Object.entries(pins).map(([name, position]) => [`pins.${name}`, position])),
});

/** The same fields after all of them were moved. @param move beat position to beat position */
export const movePins = (moment: Pinned, move: (position: number) => number): Record<string, number> =>
  Object.fromEntries(Object.entries(pinnedAt(moment)).map(([field, position]) => [field, move(position)]));
