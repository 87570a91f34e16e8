/** Something worked out from what is pushed, one after the other; a frame belongs to its giver again after `push`. */
export type Pass<Frame, Result> = {
  /** @param time seconds at which the frame begins */
  push(frame: Frame, time: number): void;
  /** the answer; nothing is pushed after it */
  finish(): Result;
};
