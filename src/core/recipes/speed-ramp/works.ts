import type { Tears, TearsTask } from '../../footage/tears';
import { pointReach, type TrackTask } from '../../footage/track/track';
import type { Material, Work } from '../material';
import type { Ruler } from '../recipe';
import { rampBlend, rampTime, type RampMoment } from './build';
import { tapsInPicture, trackWork } from './follow';
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
  ...trackWorks(moment, ruler, material),
];

/** Where the tapped point is on every picture that shows; nothing where none was tapped. */
function trackWorks(moment: RampMoment, ruler: Ruler, material: Material): Work[] {
  const { take, measure } = material.takes[passSlot.key] ?? {};
  const time = rampTime(moment, ruler);
  const taps = tapsInPicture(moment, material, ruler.project);
  if (!take || !measure || !time || taps.length === 0) return [];
  const seconds = [...time.map.knots.map(({ source }) => source), ...taps.map((tap) => tap.time)];
  // A picture more on either side, and whole tenths, so that a beat moved a little asks for nothing new.
  const from = Math.max(measure.times.first, Math.floor(10 * Math.min(...seconds) - 1) / 10);
  const until = Math.min(measure.times.last + 0.05, Math.ceil(10 * Math.max(...seconds) + 1) / 10);
  const task = (): TrackTask => ({ is: 'track', media: take.media, from, until, taps, reach: pointReach });
  const parts = [take.media, take.matrix, from, until, taps];
  return [{ name: trackWork, title: 'the followed point', is: 'track', parts, task }];
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
