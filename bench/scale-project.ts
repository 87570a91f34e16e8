import type { Moment, Take } from '@/core/model/records';
import { inPlace, packPlacements } from '@/core/geometry/placement';
import { partKey } from '@/core/footage/take-parts';
import { cameraPath } from '@/core/footage/camera-path';
import { pictureTimes } from '@/core/footage/picture-times';
import type { Log } from '@/core/model/shoot-records';
import { seeded as randomOf } from '@/core/random';
import { momentKinds } from '@/core/recipes/films';
import { readArranged } from '@/store/arrange';
import { change, type Edit } from '@/store/change';
import { newMoment } from '@/store/commands/moments';
import { newSetup } from '@/store/commands/plan';
import { newRecord } from '@/store/commands/projects';
import type { MeasureValue, Store } from '@/store/db';
import { planOf } from '@/store/plan';
import { compareKey, readSnapshot } from '@/store/snapshot';
import { layLongSong, mediumOf } from './long-song';

const songSeconds = 360;
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

/**
 * Fills a project as the bench itself would have kept it: setups, moments of every kind in turn, takes that were
 * logged, measured and held against the plates of their setups.
 * @param share of the whole: 1 is 300 takes, 80 moments, 12 setups
 */
export async function fillScale(store: Store, project: string, share = 1): Promise<void> {
  const count = (whole: number) => Math.max(1, Math.round(whole * share));
  const song = await layLongSong(store, project, songSeconds);
  const film = (await readArranged(store, project)).project;
  const setups = Array.from({ length: count(12) }, (_, index) =>
    newSetup(film, index + 1, `Setup ${index + 1}`),
  );
  const moments = Array.from({ length: count(80) }, (_, index): Moment => {
    const kind = momentKinds[index % momentKinds.length];
    const made = newMoment(project, kind, index * 8, index * 8 + 8, `Moment ${index + 1}`);
    return { ...made, setup: setups[index % setups.length].id } as Moment;
  });
  await change(
    store,
    project,
    'Large',
    [song, ...setups, ...moments].map((create): Edit => ({ create })),
  );
  const snapshot = await readSnapshot(store, project);
  if (!snapshot) throw new Error('There is no project.');
  const boards = planOf(snapshot).boards.filter(({ rows }) => rows.length > 0);
  const made: Edit[] = [];
  const plates = new Map<string, string>();
  const size = { width: 1920, height: 1080 };
  for (let index = 0; index < count(300); index++) {
    const board = boards[index % boards.length];
    const { shot, id } = board.rows[Math.floor(index / boards.length) % board.rows.length];
    const media = `media-${index}`;
    const plate = shot?.what === 'plate';
    const take: Take = {
      ...newRecord(project),
      kind: 'take',
      media,
      name: `Take ${index + 1}`,
      slot: plate ? 'plate' : (shot?.key ?? null),
      order: index,
      steady: false,
      match: false,
    };
    const log: Log = {
      ...newRecord(project),
      kind: 'log',
      setup: board.setup,
      shot: id,
      number: 1 + Math.floor(index / boards.length),
      started: index,
      length: 60,
      rating: null,
      tags: {},
      variation: '',
      notes: '',
      take: take.id,
      seen: [],
    };
    made.push({ create: take }, { create: log });
    if (plate && !plates.has(board.setup)) plates.set(board.setup, media);
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
    const track = packPlacements(placements(index));
    await keep(partKey('camera', { media }), media, { method: 'camera', small: null }, track);
    await keep(partKey('motion', { media }), media, { method: 'motion', small: { share: 0.1, across: 0.4 } });
    const light = { dark: 0, blown: 0, flicker: 0 };
    await keep(partKey('light', { media }), media, { method: 'light', small: light });
    await keep(partKey('white', { media }), media, { method: 'white', small: { time: null } });
    const held = plates.get(board.setup);
    if (held && held !== media)
      await keep(compareKey({ media }, { media: held }), take.id, {
        method: 'comparison',
        comparison: {
          path: cameraPath(placements(index + 1000), starts, size),
          colour: null,
          left: 0,
          agreement: 0.9,
          covered: new Uint8Array(1296),
          standing: { times: [0], packed: [new Uint8Array(162)] },
        },
      });
  }
  await change(store, project, 'Filmed', made);
}
