import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/size';
import type { Head } from '../people/head';
import type { GrayImage } from '../picture/image';
import { seeded } from '../random';
import { followVeil, type HeadFinder } from './veil';

const size = { width: 320, height: 180 };
const [count, perSecond, reach] = [75, 25, 0.06];
const times = Array.from({ length: count }, (_, index) => 2 + index / perSecond);

type Face = {
  at: (index: number) => Point;
  /** how it looks: a face that turns round looks like another */
  look?: (index: number) => number;
  isHidden?: (index: number) => boolean;
};

/** Faces that go along a wall, pixels about 16 to each side. */
function film(...faces: Face[]): GrayImage[] {
  const next = seeded(7);
  return times.map((_, index) => {
    const data = new Float32Array(size.width * size.height);
    for (let y = 0, p = 0; y < size.height; y++)
      for (let x = 0; x < size.width; x++, p++) {
        let value = 90 + 20 * Math.sin(x / 7) * Math.cos(y / 9);
        for (const { at, look = () => 0, isHidden = () => false } of faces) {
          const [cx, cy] = at(index);
          const [dx, dy] = [x + 0.5 - cx, y + 0.5 - cy];
          if (isHidden(index) || Math.hypot(dx, dy) > 16) continue;
          const turned = look(index);
          value =
            150 + 50 * Math.sin(dx / (2.6 + turned) + turned) * Math.cos(dy / (3.4 + 2 * turned) - turned);
        }
        data[p] = value + 3 * (next() - 0.5);
      }
    return { ...size, data };
  });
}
const walk = (index: number): Point => [60 + 2.4 * index, 90 + 10 * Math.sin(index / 6)];
const shares = ([x, y]: Point): Point => [x / size.width, y / size.height];
const headAt = (at: Point, wide = reach): Head => ({ at: shares(at), reach: wide });

/** What finds, in every tenth picture, the heads that are there. */
const finder = (heads: (index: number) => Head[]): HeadFinder => ({
  indices: Array.from({ length: Math.ceil(count / 10) }, (_, index) => 10 * index),
  heads: (index) => Promise.resolve(heads(index)),
});
const tapped = (index: number, at = walk(index)) => [{ time: times[index], at: shares(at) }];
const offAt = (place: { time: number; at: Point }) => {
  const [x, y] = walk(times.indexOf(place.time));
  return Math.hypot(place.at[0] * size.width - x, place.at[1] * size.height - y);
};

describe('following somebody who is hidden', () => {
  it('goes from one tap to both ends, by what they look like alone', async () => {
    const track = await followVeil(film({ at: walk }), times, tapped(30), reach, null);
    expect(track.places).toHaveLength(count);
    expect(Math.max(...track.places.map(offAt))).toBeLessThan(1);
    expect(track).toMatchObject({ lost: [], looks: null, met: 0, beside: [], again: [] });
    for (const place of track.places) expect(place.reach).toBeCloseTo(reach, 2);
  });

  it('goes on behind what hides them and with another look, by the heads that are found', async () => {
    const turning: Face = {
      at: walk,
      look: (index) => (index > 36 ? 1.7 : 0),
      isHidden: (index) => index > 32 && index < 39,
    };
    const alone = await followVeil(film(turning), times, tapped(5), reach, null);
    const found = await followVeil(
      film(turning),
      times,
      tapped(10),
      reach,
      finder((index) => (turning.isHidden?.(index) ? [] : [headAt(walk(index))])),
    );
    expect(alone.lost).toHaveLength(1);
    expect(found.lost).toEqual([]);
    // Whoever is found again may be another one: that is said.
    expect(found.again).toEqual([times[40]]);
    expect(found.looks).toBeGreaterThan(5);
    expect(found.met).toBeGreaterThan(5);
    expect(Math.max(...found.places.map(offAt))).toBeLessThan(2);
  });

  it('says from when on somebody is lost who did not leave the picture, and nothing where they left', async () => {
    const gone = { at: walk, isHidden: (index: number) => index > 40 };
    const lost = await followVeil(
      film(gone),
      times,
      tapped(5),
      reach,
      finder(() => []),
    );
    expect(lost.lost).toHaveLength(1);
    expect(Math.abs(lost.lost[0] - times[40])).toBeLessThan(0.1);
    const leaving = { at: (index: number): Point => [200 + 3 * index, 90] };
    const left = await followVeil(
      film(leaving),
      times,
      [{ time: times[0], at: shares([200, 90]) }],
      reach,
      null,
    );
    expect(left.places.length).toBeLessThan(60);
    expect(left.lost).toEqual([]);
  });

  it('keeps to the one who was tapped where another one is found closer by, and says that a face lies beside', async () => {
    const second = (index: number): Point => [walk(index)[0] + 34, walk(index)[1]];
    const track = await followVeil(
      film({ at: walk }, { at: second, look: () => 0.8 }),
      times,
      tapped(30),
      reach,
      // The one who is hidden looks away: only the other one is found.
      finder((index) => [headAt(second(index))]),
    );
    expect(Math.max(...track.places.map(offAt))).toBeLessThan(1);
    expect(track.met).toBe(0);
    expect(track.beside.length).toBeGreaterThan(5);
  });

  it('stays as much larger than the head as it was made by hand, while that grows', async () => {
    const track = await followVeil(
      film({ at: walk }),
      times,
      tapped(0),
      1.5 * reach,
      finder((index) => [headAt(walk(index), reach * (1 + index / count))]),
    );
    const last = track.places[track.places.length - 1];
    expect(last.reach / reach).toBeGreaterThan(1.5 * 1.7);
    expect(last.reach / reach).toBeLessThan(1.5 * 2.1);
  });

  it('takes nobody along who passes where nobody was tapped, or comes by', async () => {
    const board: Face = { at: () => [200, 90], look: () => 0.6 };
    const past = (index: number): Point => [120 + 2.4 * index, 92];
    const track = await followVeil(
      film({ at: past }, board),
      times,
      [{ time: times[0], at: shares([200, 90]) }],
      reach,
      finder((index) => [headAt(past(index))]),
    );
    for (const { at } of track.places) expect(Math.abs(at[0] * size.width - 200)).toBeLessThan(2);
    const found = await followVeil(
      film({ at: past }, board),
      times,
      [{ time: times[0], at: shares([200, 90]) }],
      reach,
      finder((index) => [headAt(past(index)), headAt([200, 90])]),
    );
    for (const { at } of found.places) expect(Math.abs(at[0] * size.width - 200)).toBeLessThan(4);
    expect(found.beside.length).toBeGreaterThan(0);
  });

  it('says nothing of no pictures, and of nobody', async () => {
    const nothing = { places: [], lost: [], looks: null, met: 0, beside: [], again: [] };
    expect(await followVeil([], [], tapped(0), reach, null)).toEqual(nothing);
    expect(await followVeil(film({ at: walk }), times, [], reach, null)).toEqual(nothing);
  });
});
