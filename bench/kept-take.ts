import { inPlace, packPlacements } from '@/core/geometry/placement';
import { cameraPath } from '@/core/footage/camera-path';
import { pictureTimes } from '@/core/footage/picture-times';
import { coveredCells, packCells, type Standing } from '@/core/footage/presence';
import { partKey } from '@/core/footage/take-parts';
import type { Take } from '@/core/model/records';
import { seeded as randomOf } from '@/core/random';
import type { MeasureValue, Store } from '@/store/db';
import { compareKey } from '@/store/snapshot';
import { mediumOf } from './long-song';

const rate = 24000 / 1001;
const pictures = Math.round(60 * rate);
const starts = Float64Array.from({ length: pictures }, (_, at) => at / rate);
const poster = new Blob([new Uint8Array(9000)], { type: 'image/jpeg' });

/** A minute of a locked camera, a few noisy pictures of it moved. */
const placements = (seed: number) => {
  const next = randomOf(seed);
  return Array.from({ length: pictures }, (_, index) => ({
    ...inPlace,
    dx: 0.05 * next() + (index > 900 && index < 960 ? 2 : 0),
    dy: 0.05 * next(),
    agreement: 0.9,
  }));
};

const cells = coveredCells.width * coveredCells.height;

export const nobody: Standing = { times: [0], packed: [packCells(new Uint8Array(cells))] };

/** Somebody who walks through the picture from one share of its width to another, looked at twice a second. */
export const walker = (from: number, to: number, looks = 40): Standing => ({
  times: Array.from({ length: looks }, (_, look) => look / 2),
  packed: Array.from({ length: looks }, (_, look) => {
    const { width, height } = coveredCells;
    const there = new Uint8Array(cells);
    const left = Math.round((width - 8) * (from + ((to - from) * look) / (looks - 1)));
    for (let y = 8; y < height; y++) there.fill(1, y * width + left, y * width + left + 8);
    return packCells(there);
  }),
});

/**
 * Keeps a take's medium and what was measured of it, as the bench itself would have kept it.
 * @param seed of what its camera did
 * @param plate the medium of the plate that it was held against, or its own
 */
export async function keepMeasured(
  store: Store,
  { id, media, project }: Take,
  seed: number,
  plate: string,
  standing: Standing,
): Promise<void> {
  const size = { width: 1920, height: 1080 };
  await store.writeRows('media', [mediumOf(project, media, false)]);
  const keep = async (
    key: string,
    subject: string,
    value: MeasureValue,
    values?: Float32Array | Float64Array,
  ) => {
    await store.writeRows('measures', [{ key, project, subject, value }]);
    if (values) await store.curves.put({ key, project, values });
  };
  await keep(
    partKey('pictures', { media }),
    media,
    {
      method: 'pictures',
      complete: true,
      poster,
      pictures: {
        size,
        analysis: { width: 640, height: 360 },
        times: pictureTimes(starts),
        colours: { matrix: 'bt709', fullRange: false, assumed: false },
      },
    },
    starts,
  );
  const track = packPlacements(placements(seed));
  await keep(partKey('camera', { media }), media, { method: 'camera', small: null }, track);
  await keep(partKey('motion', { media }), media, { method: 'motion', small: { share: 0.1, across: 0.4 } });
  const light = { dark: 0, blown: 0, flicker: 0 };
  await keep(partKey('light', { media }), media, { method: 'light', small: light });
  await keep(partKey('white', { media }), media, { method: 'white', small: { time: null } });
  if (plate === media) return;
  await keep(compareKey({ media }, { media: plate }), id, {
    method: 'comparison',
    comparison: {
      path: cameraPath(placements(seed + 1000), starts, size),
      colour: null,
      left: 0,
      agreement: 0.9,
      covered: new Uint8Array(cells),
      standing,
    },
  });
}
