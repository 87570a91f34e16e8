import type { Finding } from '../finding/finding';
import { disturb, practiceSeam, type PracticeFault } from '../practice/faults';
import { PracticeSet } from '../practice/practice-set';
import type { RoundTake } from '../practice/round';
import { LiveWatch, type WatchFrame } from '../watch/alarms';
import { readPicture } from '../watch/reading';
import { watchReference } from '../watch/reference';

const delivery = { width: 1280, height: 720 };
/** The join and the copies' zones of the training round. */
const frame: WatchFrame = {
  seams: [{ name: 'the join', from: [practiceSeam, 0], to: [practiceSeam, 1] }],
  copies: [
    { name: 'Left', from: [0.2, 0.35], to: [0.5, 1] },
    { name: 'Right', from: [0.5, 0.35], to: [0.8, 1] },
  ],
};

/** What the watch has to say of each fault; any of them tells it. */
export const tells: Record<PracticeFault, readonly string[]> = {
  bump: ['watch.moved'],
  knock: ['watch.moved', 'watch.view'],
  'auto exposure': ['watch.light'],
  'light drifts': ['watch.light'],
  'focus breathes': ['watch.soft', 'watch.moved'],
  'cloth moved': ['watch.changed'],
  'over the seam': ['watch.crossing', 'watch.shadow'],
  'hard shadow': ['watch.shadow', 'watch.crossing'],
};

/** Films takes of the training round without waiting, and watches them as the round does. */
export class Rehearsal {
  private readonly set: PracticeSet;
  private readonly plate: ReturnType<typeof watchReference>;
  private index = 0;

  constructor(seed: number) {
    this.set = new PracticeSet({ width: 640, height: 360 }, seed);
    this.plate = watchReference(
      [0, 1, 2, 3].map(() => this.set.frame('nobody', 0, 0, this.index++, disturb({}))),
    );
  }

  /**
   * Watches one take from `from` until something is told, or it is over: after six seconds and ten looks, as in a
   * round.
   * @param apart seconds between two checks
   */
  take({ fault, at, role, take }: RoundTake, from: number, apart: number) {
    const watch = new LiveWatch(frame, delivery);
    for (let time = from, looks = 0; time < 6 || looks < 10; time += apart, looks++) {
      const wrong = fault && time >= at ? disturb({ [fault]: time - at }) : disturb({});
      const picture = this.set.frame(role, take, time, this.index++, wrong);
      const told: Finding[] = watch.push(readPicture(this.plate, picture, delivery), time);
      if (told.length > 0) return { codes: told.map(({ code }) => code), after: time - at };
    }
    return { codes: [] as string[], after: Infinity };
  }
}
