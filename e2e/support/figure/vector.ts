/** Metres: to the right of who looks, up, and towards them. */
export type Vector = readonly [number, number, number];

export const plus = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const minus = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const times = (a: Vector, by: number): Vector => [a[0] * by, a[1] * by, a[2] * by];
export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const long = (a: Vector): number => Math.sqrt(dot(a, a));
export const unit = (a: Vector): Vector => times(a, 1 / long(a));
