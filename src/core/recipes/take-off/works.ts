import type { FlightTask } from '../../footage/flight';
import { fillOf, plateSlot } from '../../model/slots';
import { cutoutWork } from '../cutouts';
import type { Material, Work } from '../material';
import type { Ruler } from '../recipe';
import { flightIn, streakAt, type LeapMoment } from './build';
import { raisedWorks } from './raised';
import { wholeLeap } from './settings';
import { cutoutOfSlot, downSlot, flightOfSlot, upSlot } from './slots';

/** seconds of a take in which a jump is looked for */
const looked = 8;

/** When somebody is in the air, where nobody marked it. */
function flightWork(moment: LeapMoment, { takes }: Material, slot: string): Work[] {
  const [plate, chosen] = [takes[plateSlot], takes[slot]];
  if (!plate?.measure || !chosen?.measure || plate.take.media === chosen.take.media) return [];
  const { at } = fillOf(moment, slot);
  const task = (): FlightTask => ({
    is: 'flight',
    media: chosen.take.media,
    from: at,
    until: at + looked,
    plate: { media: plate.take.media, seconds: 0 },
  });
  const parts = [plate, chosen].map(({ take }) => [take.media, take.matrix]);
  return [{ name: flightOfSlot(slot), title: 'the jump', is: 'flight', parts: [...parts, at], task }];
}

/** The works of a leap: its instants, and then the cut-outs of the pictures there. */
export function leapWorks(moment: LeapMoment, ruler: Ruler, material: Material): Work[] {
  const { way, left, met } = wholeLeap(moment.settings);
  if (way === 'raised') {
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
          )
        : []),
    ];
  });
}
