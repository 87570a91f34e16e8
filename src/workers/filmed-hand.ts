import { refuse } from '@/core/error';
import { partKey } from '@/core/footage/take-parts';
import { unpackPlacements } from '@/core/geometry/placement';
import { filmedSway } from '@/core/motion/filmed-sway';
import type { Moment, Take } from '@/core/model/records';
import { setMoment } from '@/store/commands/moments';
import type { Store } from '@/store/db';
import { curveOf, startsOf } from './sources';

/**
 * Lets a moment sway as the hand did that filmed a take, as strongly as it did.
 * @throws CoreError `hand.unmeasured` while the take is not measured, `hand.stands` where its camera stood
 */
export async function swayAsFilmed(store: Store, moment: Moment, take: Take): Promise<void> {
  const [curve, starts, measure] = await Promise.all([
    curveOf(store, partKey('camera', take)),
    startsOf(store, take),
    store.measures.get(partKey('pictures', take)),
  ]);
  const pictures = measure?.value.method === 'pictures' ? measure.value.pictures : null;
  if (!curve || !starts || !pictures)
    return refuse('hand.unmeasured', `${take.name} is not measured yet. Try again once it is.`);
  const placements = unpackPlacements(Float32Array.from(curve));
  const found = filmedSway(placements, starts.subarray(0, placements.length), pictures.analysis);
  if (!found)
    return refuse(
      'hand.stands',
      `The camera stood in ${take.name}, or it is too short: there is no sway to take. Choose a take that was filmed from the hand, two seconds at least.`,
    );
  await setMoment(store, moment.project, moment.id, 'Sway as it was filmed', {
    'handheld.filmed': { ...found.sway, name: take.name },
    'handheld.strength': Math.min(10, Math.round(found.strength * 100) / 100),
  });
}
