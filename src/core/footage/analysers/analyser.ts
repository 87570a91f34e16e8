import type { Size } from '../../geometry/size';
import type { Pass } from '../../pass';

/** What is known of a take when its pictures begin to come. */
export type TakeShape = {
  /** of the luma that analysers are given */
  analysis: Size;
  /** whether its codes reach from 0 to 255, else from 16 to 235 */
  fullRange: boolean;
};

/** What an analyser found: a little that screens read, and what is too large for that. */
export type Found<Small> = { small: Small; curve: Float32Array<ArrayBuffer> | null };

/**
 * Something that is measured from the pictures of a take. A new one, or a new version (`take-parts`), costs each take one more
 * decoding, together with whatever else is missing then; what others found stays.
 */
export type Analyser<Small> = {
  /** starts a take; it is pushed the luma of each picture, of the shape's size */
  begin(shape: TakeShape): Pass<Uint8Array, Found<Small>>;
};
