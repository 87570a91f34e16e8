import type { GrayImage } from '../picture/image';
import { seeded } from '../random';

export const patchSize = { width: 480, height: 270 };

/** Where a patch lies: its middle in pixels, its size and its turn in degrees. */
type Place = { x: number; y: number; scale: number; rotation: number };

/** A textured patch on a textured ground, with noise of 3/255. @param hidden share of it that something lies over */
export function patchPicture(seed: number, place: Place, hidden = 0): GrayImage {
  const next = seeded(seed);
  const angle = (place.rotation * Math.PI) / 180;
  const data = new Float32Array(patchSize.width * patchSize.height);
  for (let y = 0, p = 0; y < patchSize.height; y++)
    for (let x = 0; x < patchSize.width; x++, p++) {
      const [dx, dy] = [x + 0.5 - place.x, y + 0.5 - place.y];
      const u = (Math.cos(angle) * dx + Math.sin(angle) * dy) / place.scale;
      const v = (Math.cos(angle) * dy - Math.sin(angle) * dx) / place.scale;
      const isOn = Math.max(Math.abs(u), Math.abs(v)) < 26;
      const own = 120 + 45 * Math.sin(u / 3.1 + 0.4) * Math.cos(v / 4.3) + 30 * Math.sin((u - 2 * v) / 6);
      const ground = 110 + 30 * Math.sin(x / 9) * Math.cos(y / 7) + 20 * Math.sin((x + y) / 17);
      const isHidden = isOn && u < -26 + 52 * hidden;
      const noise = 3 * Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
      data[p] = (isHidden ? 40 : isOn ? own : ground) + noise;
    }
  return { ...patchSize, data };
}

/** A way that a patch goes, growing and turning. */
export const moving = (frame: number): Place => ({
  x: 120 + 2.3 * frame + 6 * Math.sin(frame / 7),
  y: 140 + 40 * Math.sin(frame / 23),
  scale: 1 + 0.006 * frame,
  rotation: 0.5 * frame,
});
