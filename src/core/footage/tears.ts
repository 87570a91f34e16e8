/** Frames that are made of two pictures along what moves, each at a second of the take between them. */
export type TearsTask = { is: 'tears'; media: string; pairs: { frame: number; seconds: number }[] };

/** What tears: the share of each frame of which the two pictures do not show the same thing, where it is more than a little. */
export type Tears = { frame: number; share: number }[];

/** share of a frame that may tear before it is seen. From memory, no published source */
export const mostTorn = 0.06;
