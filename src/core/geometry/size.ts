/** A point in pixels or in shares of the frame, as its user says; y goes down. */
export type Point = [number, number];

/** Width and height in pixels. */
export type Size = { width: number; height: number };

/** A part of a picture in pixels: columns left to right (excluded), rows top to bottom (excluded). */
export type Bounds = { left: number; top: number; right: number; bottom: number };

/** The four corners of a picture, in its pixels. */
export const cornersOf = ({ width, height }: Size): Point[] => [
  [0, 0],
  [width, 0],
  [0, height],
  [width, height],
];

/** Longest side at most `limit` pixels, same shape, even numbers. */
export function fitWithin(size: Size, limit: number): Size {
  const factor = Math.min(1, limit / Math.max(size.width, size.height));
  const even = (value: number) => Math.max(2, Math.round((value * factor) / 2) * 2);
  return { width: even(size.width), height: even(size.height) };
}

/** The same shape with a longest side of `longest` pixels, in whole pixels. */
export function scaledTo(size: Size, longest: number): Size {
  const factor = longest / Math.max(size.width, size.height);
  return { width: Math.round(size.width * factor), height: Math.round(size.height * factor) };
}

/** How far a frame is pushed over a picture of another shape: −100 to 100 % of what there is on that side. */
export type Push = { across: number; down: number };

/** A frame that pictures fill, and how far it is pushed over those of another shape; unset is not at all. */
export type Framed = Size & { push?: Push };

/** What a frame of another shape cuts off a picture that fills it: a share of its width or of its height. */
export function cutOff(picture: Size, frame: Size): { of: 'width' | 'height'; share: number } {
  const [wide, tall] = [frame.width / picture.width, frame.height / picture.height];
  return wide < tall ? { of: 'width', share: 1 - wide / tall } : { of: 'height', share: 1 - tall / wide };
}

/** The part of a picture that a frame shows of the side of which something is cut off: how much, and from where, in shares. */
export function windowIn(
  picture: Size,
  frame: Framed,
): { of: 'width' | 'height'; shown: number; from: number } {
  const { of, share } = cutOff(picture, frame);
  const push = frame.push?.[of === 'width' ? 'across' : 'down'] ?? 0;
  return { of, shown: 1 - share, from: (share / 2) * (1 + push / 100) };
}
