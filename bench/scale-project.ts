import type { Moment, Take } from '@/core/model/records';
import type { Log } from '@/core/model/shoot-records';
import { momentKinds } from '@/core/recipes/films';
import { readArranged } from '@/store/arrange';
import { change, type Edit } from '@/store/change';
import { newMoment } from '@/store/commands/moments';
import { newSetup } from '@/store/commands/plan';
import { newRecord } from '@/store/commands/projects';
import type { Store } from '@/store/db';
import { planOf } from '@/store/plan';
import { readSnapshot } from '@/store/snapshot';
import { keepMeasured, nobody } from './kept-take';
import { layLongSong } from './long-song';

const songSeconds = 360;

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
    await keepMeasured(store, take, index, plates.get(board.setup) ?? media, nobody);
  }
  await change(store, project, 'Filmed', made);
}
