import { describe, expect, it } from 'vitest';
import { shot, texture } from '@/core/__tests__/scene';
import { cameraAt } from '@/core/footage/camera-path';
import {
  between,
  chain,
  cornerMove,
  inPlace,
  packPlacements,
  type Placement,
} from '@/core/geometry/placement';
import type { MeasuredTake } from '@/core/model/measures';
import { gaussianBlur } from '@/core/picture/gaussian';
import type { GrayImage } from '@/core/picture/image';
import { blankYuv } from '@/core/picture/planes';
import { compareTake } from './compare-take';

const size = { width: 480, height: 270 };
const times = Float64Array.from({ length: 50 }, (_, index) => index / 25);
const scene = texture(12, size);

/** A take whose camera stood as told against the plate, one placement for each of its pictures. */
function filmed(stood: (index: number) => Placement): MeasuredTake {
  const track = Array.from(times, (_, index) => between(stood(0), stood(index)));
  return {
    size,
    analysis: size,
    times,
    track: packPlacements(track),
    stills: {
      pictures: [0, 25, 49].map((index) => ({
        time: times[index],
        picture: blankYuv({ width: 160, height: 90 }),
      })),
      views: [0, 25, 49].map((index) => ({
        time: times[index],
        luma: {
          ...size,
          data: Uint8Array.from(shot(scene, size, stood(index), { noise: 2, seed: index }).data),
        },
      })),
    },
  };
}
const plate = filmed(() => inPlace);

describe('a take held against its plate', () => {
  // Differences of placements were 0.78 px wrong at 45 px and one degree.
  it('composes what it measured, however far and turned the camera stood', () => {
    const base = { dx: 45, dy: -20, rotation: 1, scale: 1, agreement: 1 };
    const wander = (index: number) => ({ ...inPlace, dx: index / 5, dy: index / 8, rotation: -index / 60 });
    const stood = (index: number) => chain(base, wander(index));
    const { path, left } = compareTake(filmed(stood), plate);
    const camera = cameraAt(path);
    times.forEach((time, index) =>
      expect(cornerMove(between(stood(index), camera(time)), size)).toBeLessThan(0.25),
    );
    expect(left).toBeLessThan(0.3);
  });

  it('tells a zoom of two per cent, and leaves nothing of it', () => {
    const stood = (index: number) => ({ ...inPlace, scale: 1 + (0.02 * index) / 49 });
    const { path, left } = compareTake(filmed(stood), plate);
    expect(path.furthest.placement.scale).toBeCloseTo(1.02, 3);
    expect(path.furthest.move).toBeGreaterThan(5);
    expect(left).toBeLessThan(0.3);
  });

  it('says what is left where the camera shook more than is told', () => {
    const shaken = filmed(() => inPlace);
    // A view that lies elsewhere than the track says, as after a knock that nobody saw.
    shaken.stills.views[1].luma.data = Uint8Array.from(
      shot(scene, size, { ...inPlace, dx: 3 }, { noise: 2 }).data,
    );
    expect(compareTake(shaken, plate).left).toBeGreaterThan(2.5);
  });

  it('says how much softer its middle and its end are than the plate, or sharper', () => {
    const still = filmed(() => inPlace);
    const soft = (image: GrayImage) => ({
      ...image,
      data: Uint8Array.from(gaussianBlur(image, 1.5).data),
    });
    expect(compareTake(still, plate).softer?.map(({ by }) => Math.abs(by) < 0.5)).toEqual([true, true]);
    const hunted = filmed(() => inPlace);
    hunted.stills.views[2].luma = soft(hunted.stills.views[2].luma);
    const [middle, end] = compareTake(hunted, plate).softer ?? [];
    expect(Math.abs(middle.by)).toBeLessThan(0.5);
    expect(end.time).toBe(times[49]);
    expect(Math.abs(end.by - 1.5)).toBeLessThan(0.4);
    const blurred = filmed(() => inPlace);
    blurred.stills.views[1].luma = soft(blurred.stills.views[1].luma);
    for (const { by } of compareTake(still, blurred).softer ?? [])
      expect(Math.abs(by + 1.5)).toBeLessThan(0.4);
  });

  it('leaves pictures in which the set is covered out of its light', () => {
    const lit = (code: number) => {
      const picture = blankYuv({ width: 160, height: 90 });
      picture.y.forEach((_, at) => (picture.y[at] = code + (at % 7) * 6));
      return picture;
    };
    const take = (agreement: (index: number) => number, codes: number[]) => {
      const made = filmed(() => inPlace);
      made.track = packPlacements(Array.from(times, (_, at) => ({ ...inPlace, agreement: agreement(at) })));
      made.stills.pictures.forEach((still, at) => (still.picture = lit(codes[at])));
      return made;
    };
    const empty = take(() => 1, [90, 90, 90]);
    const dusty = (index: number) => (index >= 20 && index < 30 ? 0.3 : 1);
    const stops = (agreement: (index: number) => number) => {
      const { colour } = compareTake(take(agreement, [90, 170, 90]), empty);
      return [colour?.stops ?? NaN, colour?.drift ?? NaN].map(Math.abs);
    };
    expect(Math.max(...stops(dusty))).toBeLessThan(0.02);
    // Where the set shows in none of them, they are all there is.
    expect(Math.max(...stops(() => 0.3))).toBeGreaterThan(0.3);
  });

  it('gives no time to a move that was there from the first picture, also where the camera came back', () => {
    const off = (index: number) => ({ ...inPlace, dx: index < 30 ? 5 : 0 });
    expect(compareTake(filmed(off), plate).path.leaves).toBeNull();
    const later = (index: number) => ({ ...inPlace, dx: index < 30 ? 0 : 5 });
    expect(compareTake(filmed(later), plate).path.leaves).toBeCloseTo(times[30], 9);
  });
});
