import { inPlace } from '../../geometry/placement';
import { cameraPath } from '../../footage/camera-path';
import { pictureTimes } from '../../footage/picture-times';
import type { Standing } from '../../footage/presence';
import type { Size } from '../../geometry/size';
import type { TakeMeasure } from '../../model/measures';
import type { Project, Take } from '../../model/records';
import type { Rate } from '../../time/rate';
import type { ChosenTake } from '../material';

/** Fields that every record has. */
export const base = { project: 'p', created: 0, changed: 0, alive: true };

export const projectOf = (size: Size, rate: Rate): Project => ({
  ...base,
  id: 'p',
  kind: 'project',
  name: 'Film',
  ...size,
  rate,
  container: 'mov',
  megabits: 16,
});

/** Seconds at which pictures begin to show, one for each frame of a rate. */
export const startsOf = (rate: Rate, count: number): Float64Array =>
  Float64Array.from({ length: count }, (_, index) => (index * rate.den) / rate.num);

/** A measured take whose medium is called `media-` and its id. @param pictures how many, one for each delivery frame */
export function chosenTake(
  id: string,
  size: Size,
  rate: Rate,
  pictures: number,
  set: Partial<Take> = {},
): ChosenTake {
  const measure: TakeMeasure = {
    size,
    analysis: { width: 640, height: 360 },
    times: pictureTimes(startsOf(rate, pictures)),
    colours: { matrix: 'bt709', fullRange: false, assumed: false },
    motion: { share: 0.1, across: 0.5 },
    light: { dark: 0, blown: 0, flicker: 0 },
  };
  const take: Take = {
    ...base,
    id,
    kind: 'take',
    media: `media-${id}`,
    name: id,
    slot: null,
    order: 1,
    steady: false,
    match: false,
    ...set,
  };
  return { take, measure, comparison: null };
}

/** A take in which nobody was looked for. */
export const nobody: Standing = { times: [], packed: [] };

/** The same held against its plate, by which its camera lay off by so many pixels in each of its pictures. */
export function heldTake(
  id: string,
  size: Size,
  rate: Rate,
  pictures: number,
  set: Partial<Take> = {},
  shift: (picture: number) => number = () => 0,
): ChosenTake {
  const placements = Array.from({ length: pictures }, (_, index) => ({ ...inPlace, dx: shift(index) }));
  const path = cameraPath(placements, startsOf(rate, pictures), size);
  const rest = { colour: null, left: 0, agreement: 1, covered: new Uint8Array(), standing: nobody };
  return { ...chosenTake(id, size, rate, pictures, set), comparison: { path, ...rest } };
}
