import { refuse } from '../error';

/** A lens as it is set. Millimetres, except the focus distance in metres. */
export type Lens = { focal: number; aperture: number; focus: number; circle: number };

function checked(lens: Lens): Lens {
  if (!(lens.focal > 0)) refuse('lens', 'Give the focal length in millimetres, more than 0.');
  if (!(lens.aperture > 0)) refuse('lens', 'Give the f-number, more than 0.');
  if (!(lens.circle > 0)) refuse('lens', 'Give the sensor a size, more than 0.');
  if (!(lens.focus * 1000 > lens.focal))
    refuse('lens', 'The focus must lie further away than the focal length.');
  return lens;
}

/**
 * Hyperfocal distance f²/(N c) + f, in metres.
 * @throws CoreError `lens` for values that are not above zero
 * @see any photographic handbook, thin lens
 */
export function hyperfocal({ focal, aperture, circle }: Omit<Lens, 'focus'>): number {
  checked({ focal, aperture, circle, focus: Infinity });
  return (focal ** 2 / (aperture * circle) + focal) / 1000;
}

/**
 * From where to where the picture is sharp, in metres; `far` is Infinity beyond the hyperfocal distance.
 * @throws CoreError `lens` for values that are not above zero
 * @see any photographic handbook, thin lens
 */
export function depthOfField(lens: Lens): { near: number; far: number } {
  const { focal, aperture, circle } = checked(lens);
  const focus = lens.focus * 1000;
  const reach = focal ** 2 / (aperture * circle);
  const near = (focus * reach) / (reach + (focus - focal));
  const rest = reach - (focus - focal);
  return { near: near / 1000, far: rest > 0 ? (focus * reach) / rest / 1000 : Infinity };
}

/**
 * The widest opening that holds two distances sharp, and where to focus for it. Metres in and out.
 * From the same two formulas as {@link depthOfField}, solved for focus and f-number.
 * @throws CoreError `lens` for values that are not above zero
 */
export function apertureFor(
  { focal, circle }: Pick<Lens, 'focal' | 'circle'>,
  near: number,
  far: number,
): { aperture: number; focus: number } {
  checked({ focal, circle, aperture: 1, focus: near });
  const focus = 2 / (1 / near + 1 / far);
  const reach = (2 * (focus * 1000 - focal)) / (focus * (1 / near - 1 / far));
  return { aperture: far > near ? focal ** 2 / (circle * reach) : 0, focus };
}

/** Metres that the frame shows across at a distance. @see thin lens far from the lens: sensor × distance / focal */
export const widthInFrame = (sensorWidth: number, focal: number, distance: number): number =>
  (sensorWidth * distance) / focal;

/** The whole angle of view across, in degrees. */
export const angleOfView = (sensorWidth: number, focal: number): number =>
  (2 * Math.atan(sensorWidth / (2 * focal)) * 180) / Math.PI;

/**
 * How far a second camera stands so that a performer has the same size as before the first.
 * @param first, second sensor width and focal length in millimetres; `distance` in metres
 */
export const matchedDistance = (
  first: { sensorWidth: number; focal: number; distance: number },
  second: { sensorWidth: number; focal: number },
): number =>
  (widthInFrame(first.sensorWidth, first.focal, first.distance) * second.focal) / second.sensorWidth;
