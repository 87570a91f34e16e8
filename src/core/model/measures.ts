import type { TakeMatch } from '../footage/colour-match';
import type { Nearness } from '../footage/contact';
import type { Light } from '../footage/analysers/light';
import type { Motion } from '../footage/analysers/motion';
import type { CameraPath } from '../footage/camera-path';
import type { Standing } from '../footage/presence';
import type { Repeat } from '../footage/repeats/repeat-track';
import type { PictureTimes } from '../footage/picture-times';
import type { FoundSection } from '../song/sections';
import type { Point, Size } from '../geometry/size';
import type { YuvImage, YuvKind } from '../picture/planes';

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

/** What a take is compared by without decoding it again; times in seconds of the take. */
export type Stills = {
  /** small pictures at even distances, for light and for who stands where */
  pictures: { time: number; picture: YuvImage }[];
  /** a few of larger luma, from the first to the last, for where the camera stood */
  views: { time: number; luma: { width: number; height: number; data: Uint8Array } }[];
};

/** What decoding a take told of its pictures. */
export type TakePictures = {
  size: Size;
  /** size of the pictures that analysers and comparisons work on */
  analysis: Size;
  times: PictureTimes;
  colours: ReadColours;
};

/** How the colours of a file's pictures are read. */
export type ReadColours = YuvKind & {
  /** true where the file does not say it */
  assumed: boolean;
};

/** What is known of a take: its pictures, and how they move and how light they are once that was found. */
export type TakeMeasure = TakePictures & { motion: Motion | null; light: Light | null };

/** What a take is compared by: its pictures with everything large that was kept of them. */
export type MeasuredTake = {
  size: Size;
  analysis: Size;
  /** seconds at which each picture begins to show */
  times: Float64Array;
  /** each picture against the take's first one, packed, in pixels of `analysis` */
  track: Float32Array;
  stills: Stills;
};

/** Somebody of one side whom a division of the frame cuts, or leaves out. */
export type SideLoss = {
  side: 0 | 1;
  /** true for whom a tap keeps, or the bench where nobody said */
  kept: boolean;
  /** true for who never shows at all */
  whole: boolean;
  /** the largest share that does not show in a frame, 0..1 */
  share: number;
  /** the frames of the film in which something of them does not show: how many, the first, the last */
  frames: { count: number; first: number; last: number };
  /** where they stand when most of them is lost, in shares of the frame */
  at: Point;
};

/** A take held against its plate. */
export type Comparison = {
  path: CameraPath;
  /** pixels that a corner still lies off once the path is undone: measured again on the kept pictures */
  left: number;
  colour: TakeMatch | null;
  /** share of the picture that fits */
  agreement: number;
  /** cells of a coarse grid in which the take ever differs from the plate */
  covered: Uint8Array;
  /** the same at the seconds of its kept pictures */
  standing: Standing;
  /**
   * by how many pixels of its picture the plate is sharper than it at some seconds, as a Gaussian's deviation; below
   * zero the plate is the softer one
   */
  softer?: { time: number; by: number }[];
  /** of a take that repeats its plate's move: where its pictures lie; `path` then says how they lie beside the plate's */
  repeat?: Repeat;
};

/** What decoding a song gives. */
export type SongSound = {
  /** seconds */
  duration: number;
  /** loudest sample of each stretch, 0..1 */
  peaks: Float32Array;
  perSecond: number;
  silent: boolean;
};

/** What is found of a song's form. */
export type SongSections = {
  /** root mean square, ten a second */
  levels: Float32Array;
  /** where sections begin, as the sound has it */
  sections: FoundSection[];
};

export type SongMeasure = SongSound & SongSections;

/** The outline of a seam from a frame of the film on; rings as in {@link SeamMeasure}. */
export type SeamMove = { frame: number; rings: Point[][] };

/** Shadows that fall on the set in a side's take, and what the join does to them. */
export type SideShadow = {
  /** over how much of the frame's width they fade out at their edge; null where none meets the light */
  edge: number | null;
  /** largest share of the frame that they cover */
  covers: number;
  /** the way in which they fall from whoever throws them; null where it is not known who does */
  falls: 'left' | 'right' | 'up' | 'down' | null;
  /** the share of them that does not show in each frame that was looked at and has any */
  lost: { frame: number; share: number }[];
};

/** A seam that was solved for a moment; points in shares of the frame. */
export type SeamMeasure = {
  /** where the second side shows, the largest piece first; inside an odd number of rings; shares of the frame */
  rings: Point[][];
  /** where another outline holds for a while, from a frame of the film on; as few as keep the join hidden; none where it stays */
  moves: SeamMove[];
  /** share of the frame that each side shows */
  shares: [number, number];
  /**
   * where a side was moved back and the plate fills the edge it left: 95th percentile CIEDE2000 along that border, at
   * its worst; null where there is none
   */
  borders: [number | null, number | null];
  /** who is cut by the join or does not show, outside the outline (0) and inside (1) */
  losses: SideLoss[];
  /** the shadows of either side on the set, where any fall */
  shadows: [SideShadow | null, SideShadow | null];
  /** 95th percentile CIEDE2000 across the join at each sampled frame */
  visible: { frame: number; difference: number }[];
  /** frames of the film in which one performer stands where the other one does, and the join cannot part them */
  crossing: number[];
  /** where those who are kept come nearest to one another, and on which frame of the film; null where one is not found */
  contact: (Nearness & { frame: number }) | null;
  /** whether a performer was found at the tap (or alone in the take), outside the outline and inside */
  found: [boolean, boolean];
};
