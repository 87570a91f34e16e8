import { perSecond, type Rate } from '../time/rate';

/** Stops by which the second aperture is darker. @see APEX: 2 log2(N2 / N1) */
export const stopsBetween = (first: number, second: number): number => 2 * Math.log2(second / first);

/** Exposure value at ISO 100. @see ISO 2720: log2(N² / t) */
export const exposureValue = (aperture: number, seconds: number): number =>
  Math.log2(aperture ** 2 / seconds);

/** The light that a setting wants, as an exposure value at ISO 100. */
export const lightWanted = (aperture: number, seconds: number, iso: number): number =>
  exposureValue(aperture, seconds) - Math.log2(iso / 100);

/** The aperture scale in thirds of a stop as lenses are marked, from f/1 to f/32. */
export const apertures: readonly number[] = [
  1, 1.1, 1.2, 1.4, 1.6, 1.8, 2, 2.2, 2.5, 2.8, 3.2, 3.5, 4, 4.5, 5, 5.6, 6.3, 7.1, 8, 9, 10, 11, 13, 14, 16,
  18, 20, 22, 25, 29, 32,
];

/** The first marked f-number that is at least as small an opening as the one wanted; null beyond the scale. */
export const markedAperture = (wanted: number): number | null =>
  apertures.find((one) => one >= wanted * 0.985) ?? null;

/** ISO that pays for some stops less light, in nominal thirds of a stop, rounded to two figures. */
export const isoFor = (iso: number, stops: number): number =>
  Number((iso * 2 ** (Math.round(stops * 3) / 3)).toPrecision(2));

/** Shutter angle in degrees of an exposure at a capture rate. */
export const shutterAngle = (seconds: number, capture: Rate): number => 360 * seconds * perSecond(capture);

/** Exposure in seconds of a shutter angle at a capture rate. */
export const exposureOf = (angle: number, capture: Rate): number => angle / 360 / perSecond(capture);

/** Shutter denominators that cameras offer. */
export const shutters: readonly number[] = [
  24, 25, 30, 40, 48, 50, 60, 80, 96, 100, 120, 125, 160, 180, 200, 240, 250, 320, 400, 500, 640, 800, 1000,
];

/**
 * How much light from mains-powered lamps can differ between exposures, as a share of its mean: 0 is steady.
 * Lamps pulse at twice the mains; what is left over after whole pulses differs from picture to picture.
 * Model: light as 1 − cos, fully modulated, the worst case. @see photographic handbook, flicker-free shutters
 */
export function flickerShare(seconds: number, mains: 50 | 60): number {
  const pulses = seconds * mains * 2;
  return Math.abs(Math.sin(Math.PI * pulses) / (Math.PI * pulses));
}

/** The steady shutter (whole pulses of the mains) nearest to a wanted one, as a denominator. */
export function steadyShutter(seconds: number, mains: 50 | 60): number {
  const steady = [mains / 2, mains, mains * 2];
  const stops = (denominator: number) => Math.abs(Math.log2(seconds * denominator));
  return steady.reduce((best, one) => (stops(one) < stops(best) ? one : best));
}
