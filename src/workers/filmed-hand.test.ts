import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { partKey } from '@/core/footage/take-parts';
import { inPlace, packPlacements } from '@/core/geometry/placement';
import { swayOf } from '@/core/motion/sway';
import { undo } from '@/store/change';
import { createMoment } from '@/store/commands/moments';
import { starts, TestFilm } from '@/store/__tests__/film';
import { swayAsFilmed } from './filmed-hand';

describe('the sway of a hand that filmed a take', () => {
  let film: TestFilm;
  const read = async () => {
    const { takes, moments } = await film.read();
    return { take: takes[0], moment: moments[0] };
  };
  /** Keeps how the take's camera stood, in pixels of 640 across. */
  const filmedBy = async (strength: number) => {
    const sway = swayOf(strength, 0.7, 5);
    const placements = [...starts].map((time) => {
      const { x, y, rotation } = sway(time);
      return { ...inPlace, dx: x, dy: y, rotation };
    });
    const keep = (key: string, values: Float32Array | Float64Array) =>
      film.store.curves.put({ key, project: film.project, values });
    await keep(partKey('camera', { media: 'm-walk' }), packPlacements(placements));
    await keep(partKey('pictures', { media: 'm-walk' }), starts);
    await film.measured('walk');
  };

  beforeEach(async () => {
    film = await TestFilm.begin();
    await film.addSong();
    await film.addTake('walk', null, 1);
    await createMoment(film.store, film.project, 0, 8);
  });

  it('becomes that of a moment, as strong as it was, and undo takes it back', async () => {
    await filmedBy(6.4);
    const { take, moment } = await read();
    await swayAsFilmed(film.store, moment, take);
    const { handheld } = (await read()).moment;
    expect(handheld?.filmed?.name).toBe('walk');
    // 6.4 of 640 pixels are one per cent.
    expect(handheld?.strength).toBeGreaterThan(0.85);
    expect(handheld?.strength).toBeLessThan(1.25);
    await undo(film.store, film.project);
    expect((await read()).moment.handheld?.filmed ?? null).toBeNull();
  });

  it('is refused while the take is not measured, and where its camera stood', async () => {
    const { take, moment } = await read();
    const refused = (code: string) =>
      expect(swayAsFilmed(film.store, moment, take)).rejects.toMatchObject({ code });
    await refused('hand.unmeasured');
    await filmedBy(0.01);
    await refused('hand.stands');
    expect((await read()).moment.handheld?.filmed ?? null).toBeNull();
  });
});
