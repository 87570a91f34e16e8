import type { PairWeights } from '../footage/pairs';
import type { TrackPoint } from '../footage/track/track';
import type { FilmRecipe } from './film';
import type { Finding } from '../finding/finding';
import type { Words } from '../finding/words';
import type { Framed, Point } from '../geometry/size';
import type { Bezier } from '../motion/easing';
import type { Node } from '../picture/node';
import type { Moment, Project } from '../model/records';
import type { BeatGrid } from '../time/grid';
import type { Material, Work } from './material';
import type { UsualSound } from '../sounds/sound';
import type { Slot } from './slots';

/** What turns beats into frames: the grid of the song and the delivery. */
export type Ruler = {
  grid: BeatGrid;
  /** the delivery, and how far its frame is pushed over what was filmed in another shape */
  project: Project & Framed;
};

/** An instant of a moment that sits on a beat. */
export type Anchor = {
  /** unique within the moment; every kind has `start`, `lands` and `end` */
  name: string;
  /** the field of the moment that holds it: one of the three, or `pins.` and a name */
  field: string;
  title: string;
  /** beats */
  position: number;
  frame: number;
  /** beats between which it can be set, and by how many at a time */
  limits: [number, number];
  step: number;
  /** what happens there, where that is worth a marker */
  marks?: string;
};

/** What can be looked at: the whole picture, or the node of one slot by itself, or against another's. */
export type View = {
  id: string;
  title: string;
  alone?: string;
  /** at the speed that it was filmed at */
  asFilmed?: true;
  /** where it lies in the frame by itself, without what moves it */
  unmoved?: true;
  against?: string;
  /** shows the outline so that it can be taken hold of; that of one slot, where several have their own */
  outline?: true | string;
};

/** An outline of which the first ring is taken hold of on the stage; points in shares of the frame. */
export type Outline = {
  title: string;
  /** the setting that a drawn one is kept in; null there stands for the solved one */
  setting: string;
  rings: Point[][];
  state: 'drawn' | 'solved' | 'guessed';
  /** what its being solved again is called, where a drawn one stands for something else */
  again?: string;
  /** what the setting is once the first ring is drawn so; left out, the ring itself */
  drawn?: (ring: Point[]) => unknown;
  /** the frames on which it has a shape of its own, where it moves */
  keys?: number[];
  /** what the setting is without the shape of this frame, where it has one and others */
  without?: unknown;
  /** where it is put right by strokes and not drawn: what the setting is with one more; points and width in shares of the frame */
  mend?: (stroke: { keep: boolean; points: readonly Point[]; wide: number }) => unknown;
};

/** Who or what lands on the beat, and where it stands; point in shares of the frame. */
export type Landing = { who: string; at: Point };

/** Dyes that tell two performers and what belongs to them apart. */
export type Dye = 'cochineal' | 'woad';

/** A quantity of a sentence: a setting, an instant on a beat, or the take in a slot or where that begins. */
export type SaidPart = (
  | { field: string; /** in force while nobody has said one */ value?: number }
  | { anchor: string }
  | { slot: string; part: 'take' | 'start' }
) & {
  dye?: Dye;
};

/** A sentence in parts: words, and quantities that are edited in place. */
type SentencePart = string | SaidPart;
export type Sentence = SentencePart[];

/** One instruction in plain words, with the numbers that any editor needs. */
export type Step = { title: string; text: string; rows: KeyframeRow[] };

/** One line of a keyframe sheet; `frame` counts in the film. Positions in delivery pixels. */
export type KeyframeRow = {
  frame: number;
  layer: string;
  what: string;
  value: number | null;
  unit: 'px' | '%' | '°' | 's' | '';
  /** what 100 % of `value` in pixels is, for the value in per cent */
  of?: number;
  then: 'holds' | 'moves evenly' | 'eases' | 'stays';
  /** how it eases to the next */
  curve?: Bezier;
};

/** The slots of two takes that are joined, and the parts that can count for how well they fit. */
export type Pairs = { slots: readonly [Slot, Slot]; by: readonly (keyof PairWeights)[] };

/**
 * A kind of moment that is filmed and built: screens and exports use only these parts. Kinds that are only planned
 * so far have the parts of {@link FilmRecipe} alone.
 */
export interface Recipe<Some extends Moment = Moment> extends FilmRecipe<Some['settings']> {
  /** the shots that the picture is made of; where one is the plate, the others are laid over it */
  slots: readonly Slot[];
  /** its takes fill parts of the frame, so that what the film's shape cuts off them says nothing */
  framesItself?: true;
  /** it holds pictures beside others that run */
  holds?: true;
  /** its takes run on as they were filmed, so that those filmed to the song can run with it */
  runsOn?: true;
  /** the slot of the take whose camera the others follow, where they repeat a move; left out, its camera has to stand */
  leads?(moment: Some): string;
  /** the slots of two takes of which the second takes the first one's place on the moment's beat */
  inTurn?: readonly [first: string, second: string];
  /**
   * The two slots whose takes are joined, each of one with each of the other, and what counts for such a pair; null
   * where a moment has but one of them
   */
  pairs?(moment: Some | null): Pairs | null;
  /** those that one moment uses, where its settings say so; else it uses all */
  slotsIn?(moment: Some): readonly Slot[];
  /** the slot of a take in which somebody stands that far across, 0..1 */
  suggests(standing: { across: number }): string;
  anchors(moment: Some, ruler: Ruler): Anchor[];
  /** what usually sounds at an instant, by its name; null where nothing does */
  sounds(anchor: string, moment: Some): UsualSound | null;
  /** the beat position from which the take in a slot shows */
  showsFrom(moment: Some, slot: string): number;
  /** settings that hold for the chosen takes only, as they are before anything is chosen */
  ofTakes: Partial<Some['settings']>;
  say(moment: Some, ruler: Ruler, material: Material): Sentence;
  views: readonly View[];
  /**
   * @param frame the one that is looked at
   * @param slot the one whose outline is meant, where several have their own
   */
  outline(moment: Some, material: Material, ruler: Ruler, frame: number, slot?: string): Outline | null;
  landing(moment: Some, ruler: Ruler, material: Material): Landing | null;
  /** where the point is that was tapped to be followed, as far as that is known; in order of time, shares of the frame */
  followed?(moment: Some, ruler: Ruler, material: Material, slot: string): readonly TrackPoint[];
  /** the slot whose performer stands at a point of the whole picture; null where a tap chooses nobody */
  slotAt(at: Point): string | null;
  /** what has to be solved, as far as there is something to solve it from */
  works(moment: Some, ruler: Ruler, material: Material): Work[];
  /** the picture; whatever is missing is left out, and it never fails */
  build(moment: Some, ruler: Ruler, material: Material): Node;
  examine(moment: Some, ruler: Ruler, material: Material): Finding[];
  /** its findings in words */
  words: Words;
  explain(moment: Some, ruler: Ruler, material: Material, tree: Node): Step[];
}
