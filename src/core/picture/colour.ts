import { refuse } from '../error';

/** Display-coded value 0..255 to linear light 0..1. @see IEC 61966-2-1 */
export function toLinear(code: number): number {
  const value = code / 255;
  return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
}

const linearTable = Float32Array.from({ length: 256 }, (_, code) => toLinear(code));

const cube = (t: number) => (t > 216 / 24389 ? Math.cbrt(t) : ((24389 / 27) * t + 16) / 116);

/** CIELAB (D65) of whole sRGB codes 0..255. @see IEC 61966-2-1 and CIE 15 */
export function labOf(red: number, green: number, blue: number): [number, number, number] {
  const [r, g, b] = [linearTable[red], linearTable[green], linearTable[blue]];
  const x = cube((0.4123908 * r + 0.3575843 * g + 0.1804808 * b) / 0.9504559);
  const y = cube(0.212639 * r + 0.7151687 * g + 0.0721923 * b);
  const z = cube((0.0193308 * r + 0.1191948 * g + 0.9505322 * b) / 1.0890578);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

const rad = Math.PI / 180;
const hue = (a: number, b: number) => (a === 0 && b === 0 ? 0 : (Math.atan2(b, a) / rad + 360) % 360);

/**
 * CIEDE2000 difference of two CIELAB colours.
 * @see CIE 142; Sharma, Wu & Dalal 2005
 */
export function ciede2000(one: readonly number[], two: readonly number[]): number {
  const [l1, a1, b1] = one;
  const [l2, a2, b2] = two;
  if (![...one, ...two].every(Number.isFinite)) refuse('colour', 'A colour needs three finite numbers.');
  const mean7 = ((Math.hypot(a1, b1) + Math.hypot(a2, b2)) / 2) ** 7;
  const g = 0.5 * (1 - Math.sqrt(mean7 / (mean7 + 25 ** 7)));
  const [p1, p2] = [a1 * (1 + g), a2 * (1 + g)];
  const [c1, c2] = [Math.hypot(p1, b1), Math.hypot(p2, b2)];
  const [h1, h2] = [hue(p1, b1), hue(p2, b2)];
  const grey = c1 * c2 === 0;
  let turn = grey ? 0 : h2 - h1;
  if (turn > 180) turn -= 360;
  if (turn < -180) turn += 360;
  const dl = l2 - l1;
  const dc = c2 - c1;
  const dh = 2 * Math.sqrt(c1 * c2) * Math.sin((turn / 2) * rad);
  const l = (l1 + l2) / 2;
  const c = (c1 + c2) / 2;
  let h = h1 + h2;
  if (!grey) {
    if (Math.abs(h1 - h2) > 180) h += h < 360 ? 360 : -360;
    h /= 2;
  }
  const t =
    1 -
    0.17 * Math.cos((h - 30) * rad) +
    0.24 * Math.cos(2 * h * rad) +
    0.32 * Math.cos((3 * h + 6) * rad) -
    0.2 * Math.cos((4 * h - 63) * rad);
  const sl = 1 + (0.015 * (l - 50) ** 2) / Math.sqrt(20 + (l - 50) ** 2);
  const sc = 1 + 0.045 * c;
  const sh = 1 + 0.015 * c * t;
  const rc = 2 * Math.sqrt(c ** 7 / (c ** 7 + 25 ** 7));
  const rt = -rc * Math.sin(60 * Math.exp(-(((h - 275) / 25) ** 2)) * rad);
  return Math.sqrt((dl / sl) ** 2 + (dc / sc) ** 2 + (dh / sh) ** 2 + rt * (dc / sc) * (dh / sh));
}
