import { rateLabel } from '../../time/rate';
import { sayLength, type Units } from '../../units';
import type { Setup } from '../../model/plan-records';
import type { SetupNumbers } from './numbers';

/** One line to tick before the first take of a setup. */
type SheetLine = { key: string; text: string };

/** Everything that has to be set and left alone, with its numbers. */
export function setupSheet(setup: Setup, numbers: SetupNumbers, units: Units): SheetLine[] {
  const { capture } = setup;
  const { supplies } = numbers;
  const lines: [string, string][] = [
    ['lens', `${setup.focal} mm on ${setup.sensor.width} × ${setup.sensor.height} mm; no zooming`],
    ['height', `Lens ${sayLength(setup.height, units)} above the floor, tilted down ${setup.tilt}°`],
    ['exposure', `Everything manual: f/${setup.aperture}, 1/${setup.shutter} s, ISO ${setup.iso}`],
    ['white', `White balance ${setup.kelvin} K, locked`],
    ['focus', `Focus by hand at ${sayLength(setup.focus, units)}, locked`],
    [
      'format',
      `${capture.width} × ${capture.height} at a fixed ${rateLabel(capture.rate)} a second, H.264, standard range (SDR)`,
    ],
    ['stabiliser', 'Picture stabilisation off'],
    [
      'tripod',
      setup.rig === 'clamp'
        ? 'Clamp tight, cable tied'
        : `${capitals[setup.rig]} marked with tape and weighted`,
    ],
    ...numbers.marks.map(({ mark, tape }): [string, string] => [
      `mark-${mark.id}`,
      `${mark.name}: ${sayLength(tape, units)} from the lens foot, ${sayLength(Math.abs(mark.x), units)} to the ${mark.x < 0 ? 'left' : 'right'}`,
    ]),
    [
      'storage',
      `${supplies.needed.toFixed(1)} GB free on the card for ${Math.ceil(supplies.minutes)} minutes`,
    ],
    ['battery', `Battery for ${Math.ceil(supplies.minutes)} minutes of recording, and a spare`],
    ['nobody', 'Nobody touches camera, tripod, lamps or curtains from now on'],
  ];
  return lines.map(([key, text]) => ({ key: `sheet/${setup.id}/${key}`, text }));
}

const capitals: Record<Exclude<Setup['rig'], 'clamp'>, string> = {
  tripod: 'Tripod',
  slider: 'Slider',
  dolly: 'Dolly',
};
