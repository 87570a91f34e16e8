import { describe, expect, it } from 'vitest';
import type { GrayImage } from '../../picture/image';
import { seeded } from '../../random';
import { followPatch, type PatchPlace } from './patch';

const size = { width: 480, height: 270 };

/** A textured patch on a textured ground; `place` says where it lies. */
function picture(seed: number, place: Omit<PatchPlace, 'agreement'>, hidden = 0): GrayImage {
  const next = seeded(seed);
  const angle = (place.rotation * Math.PI) / 180;
  const data = new Float32Array(size.width * size.height);
  for (let y = 0, p = 0; y < size.height; y++)
    for (let x = 0; x < size.width; x++, p++) {
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
  return { ...size, data };
}

const moving = (frame: number) => ({
  x: 120 + 2.3 * frame + 6 * Math.sin(frame / 7),
  y: 140 + 40 * Math.sin(frame / 23),
  scale: 1 + 0.006 * frame,
  rotation: 0.5 * frame,
});

describe('following a patch', () => {
  // The patch is drawn, so its place is known exactly.
  it('stays within half a pixel over 100 frames of moving, growing and turning, with noise of 3/255', () => {
    const begin = moving(0);
    const follow = followPatch(picture(1, begin), [begin.x, begin.y], 20);
    let [worst, turn, growth] = [0, 0, 0];
    for (let frame = 1; frame <= 100; frame++) {
      const truth = moving(frame);
      const found = follow(picture(frame + 1, truth));
      if (!found) throw new Error(`Lost in frame ${frame}.`);
      worst = Math.max(worst, Math.hypot(found.x - truth.x, found.y - truth.y));
      turn = Math.max(turn, Math.abs(found.rotation - truth.rotation));
      growth = Math.max(growth, Math.abs(found.scale / truth.scale - 1));
    }
    expect(worst).toBeLessThan(0.5);
    expect(turn).toBeLessThan(0.5);
    expect(growth).toBeLessThan(0.01);
  });

  it('holds on while something passes over a part of it, and in other light', () => {
    const follow = followPatch(picture(1, moving(0)), [moving(0).x, moving(0).y], 20);
    for (let frame = 1; frame <= 24; frame++) {
      const seen = picture(frame + 1, moving(frame), Math.max(0, 0.35 - Math.abs(frame - 12) / 20));
      const dim = { ...seen, data: Float32Array.from(seen.data, (value) => 0.7 * value + 20) };
      const found = follow(dim);
      if (!found) throw new Error(`Lost in frame ${frame}.`);
      expect(Math.hypot(found.x - moving(frame).x, found.y - moving(frame).y)).toBeLessThan(1);
    }
  });

  it('says that it is lost where the patch is gone, and stays lost', () => {
    const follow = followPatch(picture(1, moving(0)), [moving(0).x, moving(0).y], 20);
    expect(follow(picture(2, moving(1)))).not.toBeNull();
    const gone = picture(3, { ...moving(1), x: -200 });
    expect(follow(gone)).toBeNull();
    expect(follow(picture(4, moving(2)))).toBeNull();
  });

  it('follows nothing where there is nothing to tell places apart', () => {
    const flat: GrayImage = { ...size, data: new Float32Array(size.width * size.height).fill(90) };
    expect(followPatch(flat, [200, 100], 20)(flat)).toBeNull();
  });
});
