/** What benchmarks and outside checks call, with the shapes that docs/architecture.md lists. */
export { trackBeats } from './song/track';
export { prepareReference } from './footage/reference';
export { registerFrame } from './footage/register';
export { matchColour } from './footage/colour-match';
export { solveSeam } from './footage/seam/seam';
export { plateMatte } from './footage/cutout';
export { keyMatte, withoutSpill } from './footage/key';
export { solveRamp } from './motion/ramp';
export { curveOf, influencesOf } from './motion/influence';
export { sourceAt, speedAt, type TimeMap } from './motion/time-map';
export { coverScale } from './motion/edge-cover';
export { describeFrame } from './picture/draw-list';
export { paintFrame } from './picture/reference/paint';
export { ciede2000 } from './picture/colour';
export type { GrayImage, RgbaImage } from './picture/image';
export type { Finding } from './finding/finding';
export type { CoreError } from './error';
