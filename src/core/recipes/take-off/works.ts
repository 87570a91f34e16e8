import type { FlightTask } from '../../footage/flight';
import { fillOf, plateSlot } from '../../model/slots';
import { cutoutBy, cutoutWork } from '../cutouts';
import type { ChosenTake, Material, Work } from '../material';
import type { Ruler } from '../recipe';
import { flightIn, streakAt, type LeapMoment } from './build';
import { raisedWorks } from './raised';
import { wholeLeap } from './settings';
import { cutoutOfSlot, downSlot, flightOfSlot, upSlot } from './slots';

/** seconds of a take in which a jump is looked for */
const looked = 8;

const titleOf = (plate: ChosenTake | null): string =>
  plate ? 'the jump' : 'the jump by the person’s feet (21 MB are fetched the first time)';

/** When somebody is in the air, where nobody marked it. */
function flightWork(moment: LeapMoment, { takes }: Material, slot: string): Work[] {
  const [plate, chosen] = [takes[plateSlot] ?? null, takes[slot]];
  if (!chosen?.measure || (plate && !plate.measure) || plate?.take.media === chosen.take.media) return [];
  const { at } = fillOf(moment, slot);
  const task = (): FlightTask => ({
    is: 'flight',
    media: chosen.take.media,
    from: at,
    until: at + looked,
    plate: plate && { media: plate.take.media, seconds: 0 },
  });
  const parts = [plate, chosen].map((one) => (one ? [one.take.media, one.take.matrix] : ['person']));
  return [{ name: flightOfSlot(slot), title: titleOf(plate), is: 'flight', parts: [...parts, at], task }];
}

/** The works of a leap: its instants, and then the cut-outs of the pictures there. */
export function leapWorks(moment: LeapMoment, ruler: Ruler, material: Material): Work[] {
  const { way, left, met } = wholeLeap(moment.settings);
  if (way === 'raised') {
    // The jumper is laid over the empty set: without one there is nothing to work out.
    if (!material.takes[plateSlot]) return [];
    const flight = flightWork(moment, material, upSlot.key);
    return [...flight, ...raisedWorks(moment, ruler, material)];
  }
  const asked = [
    ...(way === 'landing' ? [] : [{ slot: upSlot.key, marked: left }]),
    ...(way === 'take-off' ? [] : [{ slot: downSlot.key, marked: met }]),
  ];
  return asked.flatMap(({ slot, marked }) => {
    const flight = marked === null ? flightWork(moment, material, slot) : [];
    const known = flight.length === 0 || flightIn(material, slot) !== undefined;
    return [
      ...flight,
      ...(known
        ? cutoutWork(
            cutoutOfSlot(slot),
            material,
            material.takes[slot] ?? null,
            streakAt(moment, ruler, material, slot),
            cutoutBy('plate', material),
          )
        : []),
    ];
  });
}
