import { expose, transfer } from 'comlink';
import { inPlace } from '@/core/geometry/placement';
import { disturb, type PracticeFault } from '@/core/practice/faults';
import { PracticeSet, type PracticeRole } from '@/core/practice/practice-set';
import { plainErrors } from './plain-errors';

/** What the practice camera sees at an instant; seconds since each fault was switched on. */
type PracticeView = {
  role: PracticeRole;
  take: number;
  time: number;
  faults: Partial<Record<PracticeFault, number>>;
  /** seconds of a push that the camera makes; null while it is locked */
  push: number | null;
};

const set = new PracticeSet();
let index = 0;

/** The camera travels sideways by this many stage units a second. */
const travel = 7;

async function frame({ role, take, time, faults, push }: PracticeView): Promise<ImageBitmap> {
  const place = push === null ? inPlace : { ...inPlace, dx: 9 - travel * Math.min(2.6, push) };
  const picture = set.frame(role, take, time, index++, disturb(faults), place);
  const bitmap = await createImageBitmap(
    new ImageData(picture.data as Uint8ClampedArray<ArrayBuffer>, picture.width, picture.height),
  );
  return transfer(bitmap, [bitmap]);
}

const api = plainErrors({ frame });
export type PracticeApi = typeof api;
expose(api);
