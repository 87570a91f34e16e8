import type { Size } from '../geometry/size';

/** The middle of a picture, and how far its corners are from it: pixels. */
export const reachOf = ({ width, height }: Size): [x: number, y: number, furthest: number] => [
  width / 2,
  height / 2,
  Math.hypot(width, height) / 2,
];

const mostSamples = 64;

/** How many samples make up the mean along a line of some pixels: about one a pixel. */
export const samplesAlong = (length: number): number =>
  Math.min(mostSamples, Math.max(1, Math.ceil(Math.abs(length)))) + 1;
