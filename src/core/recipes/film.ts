import type * as z from 'zod/mini';
import type { CautionKind } from '../safety/cautions';
import type { Draw } from '../camera/reserve';

/** What must not differ between shots that are joined. */
export type Same =
  | 'camera'
  | 'lens'
  | 'exposure'
  | 'light'
  | 'clothes'
  | 'feet'
  | 'eye height'
  | 'objects'
  | 'direction'
  | 'speed of the move'
  | 'size in the frame';

/** A shot that a moment needs. Keys are unique within the moment. */
export type ShotNeed = {
  key: string;
  what: 'plate' | 'patch' | 'action' | 'still' | 'sound' | 'pass';
  title: string;
  /** how to film it, in one plain sentence */
  note: string;
  /** seconds to record, handles on both sides included */
  seconds: number;
  /** slowest speed it will be shown at; 1 is as filmed */
  speed: number;
  /** takes to expect until one is good */
  takes: number;
  same: Same[];
  /** one such shot serves every moment of the setup */
  share?: 'first plate' | 'last plate';
  /** keys of shots that come before this one */
  after?: string[];
  /** key of the shot that this one follows with nothing between */
  straightAfter?: string;
  /** what was done cannot be set back soon: comes last */
  undoable?: false;
  /** objects arrive: the furthest from the camera first, 0 upwards */
  depth?: number;
  /** moves set dressing: comes after the performer's takes */
  dressing?: true;
  clothes?: string;
  /** each of these is filmed, so that some pair fits */
  variations?: readonly string[];
  /** filmed in the moment's second place */
  second?: true;
};

/** All that one moment asks of the set, and what it will cost afterwards. */
export type Filming = {
  shots: ShotNeed[];
  untouched: string[];
  joins: string[];
  kit: string[];
  props: string[];
  cautions: CautionKind[];
  /** 0 none to 3 high: how likely a take fails, how much is to be cleaned up */
  risk: number;
  mess: number;
  /** what eats picture in this moment */
  draws: Draw[];
  /** frames with a moving mask, and frames whose matte is mended by hand, as shares of the moment */
  mask: number;
  mend: number;
  /** what on the set would make that cheaper */
  saving: string;
  /** energy of the picture, 0 still to 1 wild */
  energy: number;
  /** two performers touch or hand something over: eyes at one height, feet at one distance */
  touching?: true;
  /** pixels a second that the fastest part moves at, as a share of the width; 0 where nothing races */
  travel: number;
};

/** What a kind of moment is planned from: its length in the film, and the spare length on both sides of a shot. */
export type Footing = { seconds: number; frames: number; handle: number };

/** How a quantity of the sentence is edited. */
export type Field =
  | {
      kind: 'number';
      label: string;
      min: number;
      max: number;
      step: number;
      unit: 'frames' | '%' | '°' | 'm' | 'px' | '';
      /** what is said in place of 0 */
      none?: string;
    }
  | { kind: 'choice'; label: string; options: readonly { value: string; text: string }[] }
  /** seconds of the take in a slot */
  | { kind: 'instant'; label: string; slot: string };

/** How a kind of moment is filmed: known for every kind, also for those that cannot be built yet. */
export interface FilmRecipe<Settings> {
  kind: string;
  title: string;
  /** what a new one is called, where that is not its title */
  called?: string;
  settings: z.ZodMiniType<Settings>;
  start: Settings;
  fields: Record<string, Field>;
  sayFilm(settings: Settings): (string | { field: string })[];
  film(settings: Settings, footing: Footing): Filming;
}

/** Kinds that choose among listed values, as a field. */
export const choice = (label: string, options: Record<string, string>): Field => ({
  kind: 'choice',
  label,
  options: Object.entries(options).map(([value, text]) => ({ value, text })),
});

export const number = (
  label: string,
  unit: Extract<Field, { kind: 'number' }>['unit'],
  min: number,
  max: number,
  step = 1,
  none?: string,
): Field => ({ kind: 'number', label, unit, min, max, step, ...(none ? { none } : {}) });
