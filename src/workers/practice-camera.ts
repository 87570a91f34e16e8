import type { PracticeFault } from '@/core/practice/faults';
import type { PracticeRole } from '@/core/practice/practice-set';
import type { OpenCamera } from '@/media/camera';
import { openPractice } from './clients';

/** What stands in front of the practice camera and what goes wrong there. */
export type PracticeControls = {
  stage: (role: PracticeRole, take?: number) => void;
  role: () => PracticeRole;
  /** switches a fault on or off */
  set: (fault: PracticeFault, on: boolean) => void;
  faults: () => PracticeFault[];
  /** makes the camera travel from its start; false locks it there */
  push: (on: boolean) => void;
};

const size = { width: 640, height: 360 };
const perSecond = 12;

/**
 * The demo's film set as a live camera. It ends in the same kind of stream as a real one, so that everything
 * behind it is the same.
 */
export async function openPracticeCamera(): Promise<OpenCamera & PracticeControls> {
  const { api, end } = openPractice();
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [size.width, size.height];
  const context = canvas.getContext('2d');
  const on = new Map<PracticeFault, number>();
  let [role, take, since, pushed]: [PracticeRole, number, number, number | null] = ['nobody', 0, 0, null];
  let open = true;
  const now = () => performance.now() / 1000;
  let taken = now();
  const film = async () => {
    const begun = now();
    const faults = Object.fromEntries([...on].map(([fault, at]) => [fault, begun - at]));
    const push = pushed === null ? null : begun - pushed;
    const bitmap = await api.frame({ role, take, time: begun - since, faults, push });
    if (open) {
      context?.drawImage(bitmap, 0, 0);
      taken = begun;
    }
    bitmap.close();
    return begun;
  };
  const run = async () => {
    while (open) {
      const begun = await film();
      const rest = 1 / perSecond - (now() - begun);
      await new Promise((resolve) => setTimeout(resolve, Math.max(4, rest * 1000)));
    }
  };
  // A camera that is on shows something: before its first picture nothing could be watched or recorded.
  await film();
  const stream = canvas.captureStream(perSecond);
  void run().catch(() => undefined);
  return {
    stream,
    name: 'Practice camera',
    picture: async () => {
      const time = taken;
      return { bitmap: await createImageBitmap(canvas), time };
    },
    hold: async () => {
      const free = on.has('auto exposure');
      return { exposure: !free, focus: !on.has('focus breathes'), white: true };
    },
    settings: () => ({}),
    close: () => {
      open = false;
      end();
      stream.getTracks().forEach((track) => track.stop());
    },
    stage: (next, which = 0) => {
      [role, take, since] = [next, which, now()];
    },
    role: () => role,
    set: (fault, wanted) => {
      if (wanted) on.set(fault, now());
      else on.delete(fault);
    },
    faults: () => [...on.keys()],
    push: (moving) => {
      pushed = moving ? now() : null;
    },
  };
}
