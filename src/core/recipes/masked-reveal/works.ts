import type { Fall, FallTask } from '../../footage/fall';
import { meanStep } from '../../footage/picture-times';
import type { Material, Work } from '../material';
import type { Ruler } from '../recipe';
import type { RevealMoment } from './takes';
import { edgeWorks } from './follow';
import { fallSlot } from './slots';

/** The work that measures what falls. */
const fallWork = 'fall';

/** What was measured of what falls: nothing while nobody looked, null where nothing falls. */
export const fallIn = (solved: Material['solved']): Fall | null | undefined => {
  const answer = solved[fallWork];
  return answer?.method === 'fall-1' ? answer.fall : undefined;
};

/** What a reveal asks to be worked out. */
export const revealWorks = (moment: RevealMoment, ruler: Ruler, material: Material): Work[] => [
  ...fallWorks(moment, material),
  ...edgeWorks(moment, ruler, material),
];

/** What falls, where something has to. */
function fallWorks({ settings }: RevealMoment, { takes }: Material): Work[] {
  const { take, measure } = takes[fallSlot.key] ?? {};
  if (settings.edge !== 'falling' || !take || !measure) return [];
  const { times } = measure;
  const [from, until] = [times.first, times.last + meanStep(times)];
  const task = (): FallTask => ({ is: 'fall', media: take.media, from, until });
  const parts = [take.media, take.matrix, from, until];
  return [{ name: fallWork, title: 'what falls', is: 'fall', parts, task }];
}
