import { describe, expect, it } from 'vitest';
import { moving, patchPicture as picture, patchSize as size } from '../../__tests__/moving-patch';
import type { GrayImage } from '../../picture/image';
import { followPatch } from './patch';

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
