/** Why one thing comes before another. */
export type Why =
  | 'plate first'
  | 'plate last'
  | 'needs'
  | 'shared object'
  | 'one take'
  | 'back to front'
  | 'performer first'
  | 'cannot be undone'
  | 'locked';

/** `first` comes before `then`; where `tight`, with nothing between. */
export type Rule = { first: string; then: string; tight: boolean; why: Why };

/**
 * A thing to put in order. Jobs without clothes suit any. A window counts in minutes from the start of the day.
 */
export type Job = {
  id: string;
  setup: string;
  clothes: string;
  minutes: number;
  /** of jobs that may come in any order, the lower first */
  rank: number;
  window?: { from: number; until: number };
};
