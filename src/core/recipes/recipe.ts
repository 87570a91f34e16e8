import type { FilmRecipe } from './film';
import type { Finding } from '../finding/finding';
import type { Layer } from '../picture/layers';
import type { Project } from '../model/records';
import type { BeatGrid } from '../time/grid';

/** What turns beats into frames: the grid of the song and the delivery. */
export type Ruler = { grid: BeatGrid; project: Project };

/** An instant of a moment that sits on a beat. */
export type Anchor = { name: 'start' | 'lands' | 'end'; position: number; frame: number };

/** A sentence in parts: words, and quantities that are edited in place. */
export type SentencePart = string | { field: string; role?: 'left' | 'right' };
export type Sentence = SentencePart[];

/** One instruction in plain words, with the numbers that any editor needs. */
export type Step = { title: string; text: string; rows: KeyframeRow[] };

/** One line of a keyframe sheet; `frame` counts in the film. Positions in delivery pixels. */
export type KeyframeRow = {
  frame: number;
  layer: string;
  what: string;
  value: number | null;
  unit: 'px' | '%' | '°' | '';
  /** what 100 % of `value` in pixels is, for the value in per cent */
  of?: number;
  then: 'holds' | 'moves evenly' | 'eases' | 'stays';
};

/**
 * A kind of moment that is filmed and built: screens and exports use only these parts. Kinds that are only planned
 * so far have the parts of {@link FilmRecipe} alone.
 */
export interface Recipe<MomentRecord, Material, Settings> extends FilmRecipe<Settings> {
  anchors(moment: MomentRecord, ruler: Ruler): Anchor[];
  say(moment: MomentRecord): Sentence;
  build(moment: MomentRecord, ruler: Ruler, material: Material): Layer[];
  examine(moment: MomentRecord, ruler: Ruler, material: Material): Finding[];
  explain(moment: MomentRecord, ruler: Ruler, material: Material, layers: Layer[]): Step[];
}
