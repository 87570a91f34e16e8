/** Which way an arrow key steps along a line: −1 left, 1 right; nothing for another key. */
export const stepOfKey = (key: string): number | undefined => ({ ArrowLeft: -1, ArrowRight: 1 })[key];

/** Which way an arrow key moves on a picture, x to the right and y down; nothing for another key. */
export const wayOfKey = (key: string): number[] | undefined =>
  ({ ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] })[key];
