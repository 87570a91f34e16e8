import type { ColourMatch } from '../footage/colour-match';
import type { Placement } from '../geometry/placement';
import type { FoundSection } from '../song/sections';
import type { Size } from '../geometry/size';
import type { YuvImage } from '../picture/planes';

/** What a file said of itself when it was brought in. */
export type Probe = {
  duration: number;
  video: null | {
    codec: string;
    /** as shown, after the container's turn */
    size: Size;
    turned: 0 | 90 | 180 | 270;
    /** mean pictures a second */
    rate: number;
  };
  audio: null | { codec: string; sampleRate: number; channels: number };
};

/** A picture kept from a take, small, with its larger luma for registration. */
export type Still = {
  time: number;
  picture: YuvImage;
  luma: { width: number; height: number; data: Uint8Array };
};

/** What one decoding of a take measured. Placements count in pixels of `analysis`. */
export type TakeMeasure = {
  size: Size;
  analysis: Size;
  /** seconds at which each picture begins to show */
  times: Float64Array;
  /** each picture against the take's own first picture */
  track: Placement[];
  /** share of the frame that changes during the take, and the middle of that change (0..1 across) */
  motion: { share: number; middle: number };
};

/** A measure with the stills that were kept beside it. */
export type MeasuredTake = TakeMeasure & { stills: Still[] };

/** A take held against its plate; pixels of the take's own size. */
export type Comparison = {
  /** each picture of the take against the plate */
  placements: Placement[];
  colour: ColourMatch | null;
  /** share of the picture that fits */
  agreement: number;
  /** cells of a coarse grid in which the take ever differs from the plate */
  covered: Uint8Array;
};

/** What one decoding of a song found. */
export type SongMeasure = {
  duration: number;
  peaks: Float32Array;
  perSecond: number;
  silent: boolean;
  /** root mean square, ten a second */
  levels: Float32Array;
  /** where sections begin, as the sound has it */
  sections: FoundSection[];
};

/** A seam that was solved for a moment; points in shares of the frame. */
export type SeamMeasure = {
  outline: [number, number][];
  /** 95th percentile CIEDE2000 across the join at each sampled frame */
  visible: { frame: number; difference: number }[];
  /** frames (of the moment) in which one performer stands where the other one does at some time */
  crossing: number[];
  /** whether a performer was found at the tap (or alone in the take), outside the outline and inside */
  found: [boolean, boolean];
};
