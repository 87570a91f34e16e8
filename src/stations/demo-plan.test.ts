import 'fake-indexeddb/auto';
import { expect, it } from 'vitest';
import { invertAffine, mapPoint } from '@/core/geometry/affine';
import type { Point } from '@/core/geometry/size';
import { describeFrame, type DrawItem } from '@/core/picture/draw-list';
import type { Rings } from '@/core/picture/node';
import { createMoment } from '@/store/commands/moments';
import { framesOf, pictureOf } from '@/store/material';
import { taken, TestFilm } from '@/store/__tests__/film';
import { layDemoPlan, momentFiles } from './demo-plan';

const size = { width: 1280, height: 720 };
/** Points along the frame's own edge, half a pixel inside. */
const rim: Point[] = Array.from({ length: 41 }, (_, step) => step / 40).flatMap((share): Point[] => {
  const [x, y] = [0.5 + share * (size.width - 1), 0.5 + share * (size.height - 1)];
  return [
    [x, 0.5],
    [x, size.height - 0.5],
    [0.5, y],
    [size.width - 0.5, y],
  ];
});

/** Even-odd rule, by counting crossings to the right. */
const isInside = (rings: Rings, [x, y]: Point): boolean =>
  rings.reduce((inside, ring) => {
    ring.forEach(([ax, ay], index) => {
      const [bx, by] = ring[(index + 1) % ring.length];
      if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
    });
    return inside;
  }, false);

/** True where a layer shows something of its file at a point. */
function shows({ edges, matrix, mask, size: own }: DrawItem, at: Point): boolean {
  const [x, y] = mapPoint(invertAffine(matrix), at);
  const there = edges !== 'empty' || (x >= 0 && y >= 0 && x <= own.width && y <= own.height);
  return there && (!mask || isInside(mask.rings, at) !== mask.inverted);
}

it('shows no edge along the frame in any frame or sub-frame of any moment of the demo', async () => {
  const film = await TestFilm.begin();
  await film.addSong();
  const files = ['bench-left-1.mp4', 'bench-right-1.mp4', ...momentFiles];
  await film.addTake('plate', 'plate', 0);
  for (const [index, name] of files.entries()) {
    await film.addTake(name, null, index + 1);
    await film.addMedia(`m-${name}`, { name });
    await film.measured(name);
  }
  await film.measured('plate', taken());
  const first = await createMoment(film.store, film.project, 32, 44, {
    left: 'bench-left-1.mp4',
    right: 'bench-right-1.mp4',
  });
  await layDemoPlan(film.store, await film.read(), first);
  const snapshot = await film.read();
  expect(snapshot.built).toHaveLength(8);
  for (const moment of snapshot.built) {
    const [built, frames] = [pictureOf(snapshot, moment), framesOf(snapshot, moment)];
    if (!built || !frames) throw new Error(`${moment.name} is not built.`);
    // Panels come one after the other; before the last one the frame is not full yet.
    const from = moment.recipe === 'split-screen' ? frames.lands : frames.start;
    for (let frame = from; frame < frames.end; frame++) {
      // A whole picture whose own edge comes into sight cannot be described.
      const lists = describeFrame(built.tree, frame);
      expect(lists, `${moment.name}, frame ${frame}`).not.toBeNull();
      for (const list of lists ?? []) {
        const bare = rim.filter((point) => !list.some((item) => shows(item, point)));
        // Four panels leave their gutters.
        const gutters = moment.recipe === 'split-screen' ? 8 : 0;
        expect(bare.length, `${moment.name}, frame ${frame}`).toBeLessThanOrEqual(gutters);
      }
    }
  }
});
