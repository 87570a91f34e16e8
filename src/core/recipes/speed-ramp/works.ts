import type { Tears, TearsTask } from '../../footage/tears';
import { followWork } from '../follow-point';
import type { Material, Work } from '../material';
import type { Ruler } from '../recipe';
import { rampBlend, rampTime, type RampMoment } from './build';
import { wholeRamp } from './settings';
import { passSlot } from './slots';

/** The work that looks for frames which tear where they are made of two pictures. */
const tearsWork = 'tears';

/** The frames that tear; none while nobody looked. */
export const tearsIn = (solved: Material['solved']): Tears => {
  const answer = solved[tearsWork];
  return answer?.method === 'tears-1' ? answer.tears : [];
};

/** What a ramp asks to be worked out. */
export const rampWorks = (moment: RampMoment, ruler: Ruler, material: Material): Work[] => [
  ...tearWorks(moment, ruler, material),
  ...followWorks(moment, ruler, material),
];

function followWorks(moment: RampMoment, ruler: Ruler, material: Material): Work[] {
  const time = rampTime(moment, ruler);
  const shown = time?.map.knots.map(({ source }) => source);
  return shown ? followWork(moment, material, passSlot.key, ruler.project, shown) : [];
}

/** Whether pictures that are made along what moves tear; nothing where none is made. */
function tearWorks(moment: RampMoment, ruler: Ruler, material: Material): Work[] {
  const { take } = material.takes[passSlot.key] ?? {};
  const made = wholeRamp(moment.settings).lacking === 'moves' ? rampBlend(moment, ruler, material) : null;
  if (!made || !take) return [];
  const { pairs } = made;
  const task = (): TearsTask => ({ is: 'tears', media: take.media, pairs });
  const parts = [take.media, take.matrix, pairs];
  return [{ name: tearsWork, title: 'the pictures between', is: 'tears', parts, task }];
}
