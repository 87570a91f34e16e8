import { getPosition, getTimes } from 'suncalc';
import { refuse } from '../error';

/** Where: degrees north and east. */
type Spot = { latitude: number; longitude: number };

function checked({ latitude, longitude }: Spot): void {
  if (!(Math.abs(latitude) <= 90) || !(Math.abs(longitude) <= 180))
    refuse('place', 'Give the latitude from −90 to 90 and the longitude from −180 to 180 degrees.');
}

/**
 * Light on level ground under a clear sky in lux, sun and sky together; 0 below the horizon.
 * IES clear-sky formulas (from memory): sun 127 500 e^(−0.21 / sin h) sin h, sky 800 + 15 500 √sin h.
 */
export function clearSkyLight(altitude: number): number {
  const height = Math.sin((altitude * Math.PI) / 180);
  if (height <= 0) return 0;
  return 127500 * Math.exp(-0.21 / height) * height + 800 + 15500 * Math.sqrt(height);
}

/** How far the light may go before takes stop matching. */
type LightChange = { stops: number; degrees: number };

const minute = 60_000;
/** Degrees from one compass direction to another, 0 to 180. */
const apart = (a: number, b: number) => Math.abs(((a - b + 540) % 360) - 180);

/** Sun at an instant: altitude and direction in degrees (north 0, east 90), light in lux. */
export function sunAt({ latitude, longitude }: Spot, time: number) {
  checked({ latitude, longitude });
  const { altitude, azimuth } = getPosition(new Date(time), latitude, longitude);
  return { altitude, azimuth, light: clearSkyLight(altitude) };
}

/** Altitude of the sun's middle in degrees at which it rises and sets: its upper edge, refraction taken in. USNO. */
export const risen = -0.833;

/**
 * Sunrise, highest point and sunset in milliseconds; null where there is none.
 * @param time noon by the clocks of the place: near midnight the day meant would be another's
 */
export function sunDay({ latitude, longitude }: Spot, time: number) {
  checked({ latitude, longitude });
  const { sunrise, sunset, solarNoon } = getTimes(new Date(time), latitude, longitude);
  // At the poles the package's times are not a number rather than missing.
  const stamp = (date: Date | null) => (date && Number.isFinite(date.getTime()) ? date.getTime() : null);
  return { sunrise: stamp(sunrise), noon: stamp(solarNoon), sunset: stamp(sunset) };
}

/**
 * Until when sunlight stays within a change of brightness and of direction, from a start on.
 * @returns milliseconds, searched by the minute up to 12 hours; the start itself where the sun is down
 */
export function lightHolds(spot: Spot, start: number, allowed: LightChange): number {
  const first = sunAt(spot, start);
  if (first.light <= 0) return start;
  for (let by = 1; by <= 720; by++) {
    const now = sunAt(spot, start + by * minute);
    const stops = now.light > 0 ? Math.abs(Math.log2(now.light / first.light)) : Infinity;
    const tilted = Math.abs(now.altitude - first.altitude);
    if (stops > allowed.stops || Math.max(apart(now.azimuth, first.azimuth), tilted) > allowed.degrees)
      return start + (by - 1) * minute;
  }
  return start + 720 * minute;
}

/**
 * The stretch of a day in which the light holds longest, and how long each quarter of an hour would hold.
 * @param from, until milliseconds
 */
export function calmestLight(spot: Spot, from: number, until: number, allowed: LightChange) {
  const starts: { start: number; minutes: number; altitude: number }[] = [];
  for (let start = from; start < until; start += 15 * minute) {
    const minutes = (lightHolds(spot, start, allowed) - start) / minute;
    starts.push({ start, minutes, altitude: sunAt(spot, start).altitude });
  }
  const best = starts.reduce<(typeof starts)[number] | null>(
    (most, one) => (one.minutes > (most?.minutes ?? 0) ? one : most),
    null,
  );
  return { starts, best };
}
