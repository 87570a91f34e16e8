import type { Answer, Task } from '../footage/task';
import type { Comparison, TakeMeasure } from '../model/measures';
import type { Take } from '../model/records';
import type { Bodies } from '../people/bodies';

/** A chosen take with what is known of it; `measure` is null until it was measured. */
export type ChosenTake = {
  take: Take;
  measure: TakeMeasure | null;
  comparison: Comparison | null;
  /** who was found in it; left out where nobody was looked for */
  bodies?: Bodies;
};

/** A take of which the pictures are known. */
export type MeasuredTake = ChosenTake & { measure: TakeMeasure };

/** The measured takes of a moment, each once. */
export function measuredIn(takes: Material['takes']): MeasuredTake[] {
  const found = Object.values(takes).filter((one): one is MeasuredTake => !!one?.measure);
  return [...new Map(found.map((one) => [one.take.id, one])).values()];
}

/** What a moment is built from, by the keys of its slots and works. Anything may still be missing. */
export type Material = {
  takes: Readonly<Record<string, ChosenTake | null>>;
  solved: Readonly<Record<string, Answer | null>>;
};

/** Something that has to be solved before a moment is whole. */
export type Work = {
  /** unique within the moment */
  name: string;
  /** what it is for people: "the join" */
  title: string;
  /** everything that the answer depends on, as text; another key is another answer */
  parts: unknown[];
  is: Task['is'];
  /** what it is solved from */
  task: () => Task;
};
