import { sayLength, type Units } from '../units';
import type { Quantity } from './finding';

/** So many frames, for reading. */
export const sayFrames = (count: number): string => `${count} ${count === 1 ? 'frame' : 'frames'}`;

/** A number with its unit, for reading; of light and time without its sign, since sentences say which way it is. */
export function sayQuantity({ value, unit }: Quantity, units: Units = 'metric'): string {
  const size = Math.abs(value);
  switch (unit) {
    case 'px':
      return `${value.toFixed(size < 0.095 ? 2 : 1)} px`;
    case 'stops':
      return `${size.toFixed(2)} stop (× ${(2 ** size).toFixed(2)})`;
    case 'deltaE':
      return `ΔE ${value.toFixed(1)}`;
    case 'share':
      return `${Math.round(value * 100)} %`;
    case 'seconds':
      return size < 0.1 ? `${Math.round(size * 1000)} ms` : `${size.toFixed(2)} s`;
    case 'frames':
      return sayFrames(value);
    case 'perSecond':
      return `${value.toFixed(2)} pictures a second`;
    case 'metres':
      return sayLength(value, units);
    case 'fNumber':
      return `f/${Number(value.toPrecision(2))}`;
    case 'minutes':
      return value < 90
        ? `${Math.round(value)} min`
        : `${Math.floor(value / 60)} h ${Math.round(value % 60)} min`;
    case 'degrees':
      return `${Math.round(value)}°`;
    case 'gigabytes':
      return `${value.toFixed(1)} GB`;
    case 'speed':
      return `${Number((value * 100).toPrecision(3))} %`;
    case 'scale':
      return `${(value * 100).toFixed(0)} %`;
    case 'count':
      return `${value}`;
  }
}
