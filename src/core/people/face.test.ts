import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cutFace, faceBoxOf, faceSide, readFace, type FaceBox, type FaceTold } from './face';
import type { Pose } from './pose';

const size = { width: 640, height: 360 };

/** A pose of which the face alone is seen: eyes and mouth at pixels of the picture. */
const faced = (left: number[], right: number[], mouth: number[]): Pose => {
  const pose = Array.from({ length: 33 }, () => ({ x: 0, y: 0, seen: 0 }));
  const put = (joint: number, [x, y]: number[]) =>
    (pose[joint] = { x: x / size.width, y: y / size.height, seen: 1 });
  put(2, left);
  put(5, right);
  put(9, mouth);
  put(10, mouth);
  return pose;
};

/** What a model would tell of a face that fills 100 pixels of the square round its middle, its mouth open by some pixels. */
const told = (gap: number, eyes = 60, likely = 5): FaceTold => {
  const points = new Float32Array(3 * 468).fill(faceSide / 2);
  points.set([faceSide / 2 - 50, faceSide / 2 - 50], 0);
  points.set([faceSide / 2 + 50, faceSide / 2 + 50], 3);
  points.set([faceSide / 2 - eyes / 2, 80], 3 * 33);
  points.set([faceSide / 2 + eyes / 2, 80], 3 * 263);
  const lips = new Float32Array(160).fill(120);
  for (let lower = 21; lower <= 29; lower++) lips[2 * lower + 1] = 120 + gap;
  return { points, lips, likely };
};

describe('a face', () => {
  it('is looked for round the eyes and the mouth of a body, however it leans', () => {
    fc.assert(
      fc.property(fc.double({ min: -1.2, max: 1.2, noNaN: true }), (lean) => {
        // Eyes 38 pixels apart, the mouth 40 below them.
        const turned = (x: number, y: number) => [
          320 + x * Math.cos(lean) - y * Math.sin(lean),
          180 + x * Math.sin(lean) + y * Math.cos(lean),
        ];
        const box = faceBoxOf(faced(turned(19, 0), turned(-19, 0), turned(0, 40)), size);
        expect(box?.lean).toBeCloseTo(lean, 6);
        expect(box?.side).toBeCloseTo(168, 6);
        const [x, y] = turned(0, 13.2);
        expect(box?.x).toBeCloseTo(x, 6);
        expect(box?.y).toBeCloseTo(y, 6);
      }),
    );
  });

  it('is not looked for where an eye or the mouth is not seen', () => {
    const pose = faced([339, 180], [301, 180], [320, 220]);
    for (const joint of [2, 5, 9]) {
      const other = pose.map((one, index) => (index === joint ? { ...one, seen: 0.2 } : one));
      expect(faceBoxOf(other, size)).toBeNull();
    }
  });

  it('is cut out upright: a picture that is even across it stays so, and outside of it is black', () => {
    // Brightness that rises along the way down a head that leans by 30°.
    const lean = Math.PI / 6;
    const data = new Uint8ClampedArray(4 * size.width * size.height);
    const light = (x: number, y: number) =>
      120 + 0.8 * (-(x - 320) * Math.sin(lean) + (y - 180) * Math.cos(lean));
    for (let pixel = 0; pixel < size.width * size.height; pixel++)
      data.fill(light(pixel % size.width, Math.floor(pixel / size.width)), 4 * pixel, 4 * pixel + 3);
    const { data: cut } = cutFace({ ...size, data }, { x: 320, y: 180, side: 160, lean });
    for (const [column, row] of [
      [10, 30],
      [180, 30],
      [96, 96],
      [20, 150],
    ]) {
      const along = ((row - (faceSide - 1) / 2) * 160) / faceSide;
      expect(Math.abs(cut[4 * (row * faceSide + column)] - (120 + 0.8 * along))).toBeLessThan(1.5);
    }
    const beside = cutFace({ ...size, data }, { x: -400, y: 180, side: 160, lean: 0 });
    expect(beside.data.filter((_, at) => at % 4 < 3).every((value) => value === 0)).toBe(true);
  });

  it('is open by the gap between its lips against the distance of its eyes, and followed where it went', () => {
    const box: FaceBox = { x: 200, y: 100, side: 192, lean: 0 };
    expect(readFace(told(12), box)).toEqual({ next: { x: 200, y: 100, side: 150, lean: 0 }, open: 0.2 });
    expect(readFace(told(0), box)?.open).toBe(0);
    const leaning = readFace(told(12), { ...box, side: 96, lean: 0.3 });
    expect(leaning?.open).toBeCloseTo(0.2, 9);
    expect(leaning?.next).toMatchObject({ side: 75, lean: 0.3 });
  });

  it('is none where the model doubts it, or tells nothing', () => {
    const box: FaceBox = { x: 200, y: 100, side: 192, lean: 0 };
    expect(readFace(told(12, 60, -1), box)).toBeNull();
    expect(readFace(told(12, 60, NaN), box)).toBeNull();
    expect(readFace(told(12, 0), box)).toBeNull();
  });
});
