import { inPlace, placementMatrix, type Placement } from '../geometry/placement';
import { seeded } from '../random';
import { Canvas } from './canvas';
import { swing } from './faults';

/** Something that went wrong on the set; times in seconds of the take. */
export type Fault =
  | { kind: 'bump'; at: number; dx: number; dy: number; rotation: number }
  | { kind: 'light'; stops: number; warmth: number };

export const filmSize = { width: 1280, height: 720 };
export const filmRate = { num: 24000, den: 1001 };

/**
 * How the camera stands at a time: a knocked tripod swings for a moment and comes to rest elsewhere.
 * @param time seconds of the take
 */
export function cameraAt(faults: readonly Fault[], time: number): Placement {
  const bump = faults.find((fault) => fault.kind === 'bump');
  if (!bump || time < bump.at) return inPlace;
  const since = time - bump.at;
  const share = swing(since);
  return {
    dx: bump.dx * share,
    dy: bump.dy * share,
    rotation: bump.rotation * share,
    scale: 1,
    agreement: 1,
  };
}

/** A canvas as a camera sees it that stands so. @param from canvas whose pixels it begins with */
export const canvasAt = (placement: Placement, from?: Canvas): Canvas =>
  new Canvas(filmSize.width, filmSize.height, placementMatrix(placement, filmSize), from?.data.slice());

let noiseTable: Float32Array | null = null;
/** The sensor's noise, made with the first picture: it takes longer than a page may be held up on its way in. */
function noise(): Float32Array {
  const next = seeded(77);
  return (noiseTable ??= Float32Array.from(
    { length: 1 << 20 },
    () => (next() + next() + next() + next() - 2) * 1.7,
  ));
}

/** Exposes a canvas: light faults in linear light, sensor noise that grows in the dark, 8 bits. */
export function expose(canvas: Canvas, faults: readonly Fault[], frame: number, seed: number): Uint8Array {
  const light = faults.find((fault) => fault.kind === 'light');
  const gain = light ? 2 ** light.stops : 1;
  const gains = light ? [gain * (1 + light.warmth), gain, gain * (1 - light.warmth)] : null;
  const out = new Uint8Array(canvas.data.length);
  const table = noise();
  let place = Math.floor(seeded(seed * 7919 + frame)() * table.length);
  for (let at = 0; at < out.length; at++) {
    let value = canvas.data[at];
    if (gains) value = 255 * ((value / 255) ** 2.2 * gains[at % 3]) ** (1 / 2.2);
    value += table[place] * (2.6 - value / 170);
    place = (place + 1) & (table.length - 1);
    out[at] = value < 0 ? 0 : value > 255 ? 255 : value + 0.5;
  }
  return out;
}
