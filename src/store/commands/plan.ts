import { frameOf } from '@/core/camera/view';
import { refuse } from '@/core/error';
import type { AnyRecord, Project, RecordKind } from '@/core/model/records';
import {
  passSchema,
  usualStature,
  type Day,
  type Item,
  type Mark,
  type Pass,
  type Piece,
  type Setup,
  type ShotChoice,
  type Tick,
  type Zone,
} from '@/core/model/plan-records';
import { viewOf } from '@/core/plan/setup/numbers';
import { usualDay, usualSetup } from '@/core/plan/plan';
import { calledOf, films, type MomentKind } from '@/core/recipes/films';
import { change, type Edit } from '../change';
import type { Store } from '../db';
import { momentOf, newMoment } from './moments';
import { newRecord } from './projects';

/** Fields that a person gives; the rest of a record is made. */
type Given<Made extends AnyRecord> = Omit<Made, 'id' | 'project' | 'created' | 'changed' | 'alive' | 'kind'>;

/** A moment of any kind over some beats. @returns its id */
export async function addMoment(
  store: Store,
  project: string,
  kind: MomentKind,
  start: number,
  end: number,
): Promise<string> {
  const moment = newMoment(project, kind, start, end);
  await change(store, project, 'New moment', ({ song }) =>
    song?.grid
      ? [{ create: moment }]
      : refuse('no-grid', 'There are no beats yet. Bring in a song, or set its tempo.'),
  );
  return moment.id;
}

/** Makes another kind of a moment; its place, story and setups stay. */
export const setKind = (store: Store, project: string, id: string, kind: MomentKind) =>
  change(store, project, 'Another kind', ({ moments }) => {
    const moment = momentOf(moments, id);
    const [was, called] = [calledOf(moment.recipe), calledOf(kind)];
    // A name that nobody gave it: the kind's own, perhaps with a number.
    const named = moment.name.startsWith(was) && /^( \d+)?$/.test(moment.name.slice(was.length));
    return [
      {
        record: id,
        set: {
          recipe: kind,
          settings: films[kind].start,
          ...(named ? { name: called } : {}),
        },
      },
    ];
  });

/** Changes fields of any record of the plan; dots lead inwards. */
export const setPart = (
  store: Store,
  project: string,
  record: string,
  label: string,
  set: Record<string, unknown>,
) => change(store, project, label, [{ record, set }]);

export const removePart = (store: Store, project: string, record: string, label: string) =>
  change(store, project, label, [{ remove: record }]);

/** Records made in one step, a millisecond apart, so that they are listed in this order. */
export const inTurn = <Made extends AnyRecord>(records: readonly Made[]): Made[] =>
  records.map((record, index) => ({ ...record, created: record.created + index }));

/** A setup with values to begin from; it films at least 1920 × 1080, at the film's own rate. */
export const newSetup = (project: Project, order: number, name: string): Setup => ({
  ...newRecord(project.id),
  ...usualSetup,
  kind: 'setup',
  name,
  order,
  capture: {
    width: Math.max(1920, project.width),
    height: Math.max(1080, project.height),
    rate: project.rate,
    megabits: 100,
  },
});

/** Two marks side by side, the zone round each, and a join half-way between: a start for two copies. */
export function newRoles(setup: Setup): (Mark | Zone)[] {
  const marks = ([-1, 1] as const).map((side): Mark => ({
    ...newRecord(setup.project),
    kind: 'mark',
    setup: setup.id,
    name: side < 0 ? 'Left' : 'Right',
    x: side * 0.7,
    y: 2.5,
    stature: usualStature,
  }));
  const view = viewOf(setup);
  const zones = marks.map((mark): Zone => {
    const reach = (side: number, z: number) => frameOf(view, { x: mark.x + side, y: mark.y, z });
    const inside = (value: number) => Number(Math.min(1, Math.max(0, value)).toFixed(3));
    const corner = (side: number, z: number): [number, number] => {
      const at = reach(side, z);
      return [inside(at?.x ?? 0), inside(at?.y ?? 0)];
    };
    return {
      ...newRecord(setup.project),
      kind: 'zone',
      setup: setup.id,
      what: 'copy',
      name: `${mark.name} copy`,
      from: corner(-0.6, 1.9),
      to: corner(0.6, 0),
    };
  });
  const join: Zone = {
    ...newRecord(setup.project),
    kind: 'zone',
    setup: setup.id,
    what: 'seam',
    name: 'Join',
    from: [0.5, 0],
    to: [0.5, 1],
  };
  return inTurn([...marks, ...zones, join]);
}

/** Another setup; the first one brings marks and zones for two copies. @returns its id */
export async function addSetup(store: Store, project: string): Promise<string> {
  let id = '';
  await change(store, project, 'New setup', ({ project, setups }) => {
    const first = setups.length === 0;
    const setup = newSetup(
      project,
      (setups.at(-1)?.order ?? 0) + 1,
      first ? 'First setup' : `Setup ${setups.length + 1}`,
    );
    id = setup.id;
    return [setup, ...(first ? newRoles(setup) : [])].map((create) => ({ create }));
  });
  return id;
}

/** Takes a setup with everything in it away; its moments go to the first that is left. */
export const removeSetup = (store: Store, project: string, setup: string) =>
  change(store, project, 'Remove the setup', ({ marks, pieces, zones, passes, moments }) => {
    const inside = [...marks, ...pieces, ...zones, ...passes].filter((one) => one.setup === setup);
    const loose = moments.filter((moment) => moment.setup === setup || moment.second === setup);
    return [
      ...[setup, ...inside.map(({ id }) => id)].map((remove): Edit => ({ remove })),
      ...loose.map((moment): Edit => ({
        record: moment.id,
        set: {
          ...(moment.setup === setup ? { setup: null } : {}),
          ...(moment.second === setup ? { second: null } : {}),
        },
      })),
    ];
  });

async function add<Made extends AnyRecord>(
  store: Store,
  project: string,
  kind: Made['kind'] & RecordKind,
  label: string,
  given: Given<Made>,
): Promise<string> {
  const record = { ...newRecord(project), kind, ...given } as unknown as Made;
  await change(store, project, label, [{ create: record }]);
  return record.id;
}
export const addMark = (store: Store, project: string, given: Given<Mark>) =>
  add<Mark>(store, project, 'mark', 'New mark', given);
export const addPiece = (store: Store, project: string, given: Given<Piece>) =>
  add<Piece>(store, project, 'piece', 'New piece', given);
export const addZone = (store: Store, project: string, given: Given<Zone>) =>
  add<Zone>(store, project, 'zone', 'New zone', given);
export const addItem = (store: Store, project: string, given: Given<Item>) =>
  add<Item>(store, project, 'item', 'Pack it', given);

/** Performance passes to begin from: a steady wide, a moving medium, a handheld close one, and spare whips. */
export function newPasses(project: string, setup: string): Pass[] {
  const pass = (more: Partial<Pass>): Pass => ({
    ...newRecord(project),
    kind: 'pass',
    setup,
    what: 'pass',
    angle: 'front',
    size: 'wide',
    steadiness: 'steady',
    from: null,
    until: null,
    times: 2,
    ...more,
  });
  return inTurn([
    pass({}),
    pass({ size: 'medium', steadiness: 'moving', angle: 'side' }),
    pass({ size: 'close', steadiness: 'handheld' }),
    pass({ what: 'whip', steadiness: 'moving', times: 3 }),
  ]);
}

/** One more pass like the last, or the usual ones where there is none. */
export const addPass = (store: Store, project: string) =>
  change(store, project, 'New pass', ({ setups, passes }) => {
    const last = passes.at(-1);
    if (last) return [{ create: passSchema.parse({ ...last, ...newRecord(project) }) }];
    const setup = setups[0]?.id;
    if (!setup) return refuse('no-setup', 'Add a setup first: passes are filmed somewhere.');
    return newPasses(project, setup).map((create) => ({ create }));
  });

/** Writes a record that there is one of: made where it is missing, else changed. Two devices make the same one. */
const put = <Made extends AnyRecord>(
  store: Store,
  project: string,
  label: string,
  made: Made,
  set: Partial<Given<Made>>,
) =>
  change(store, project, label, async (): Promise<Edit[]> => {
    const there = await store.records.get(made.id);
    return [there ? { record: made.id, set: { ...set, alive: true } } : { create: { ...made, ...set } }];
  });

/** The day as it would begin: today, from the evening on, where the device says it is. */
export function newDay(project: string, date: string, zone: string): Day {
  return {
    ...newRecord(project, `day:${project}`),
    kind: 'day',
    date,
    start: '15:00',
    end: '23:00',
    zone,
    latitude: null,
    longitude: null,
    ...usualDay,
  };
}

export function setDay(store: Store, project: string, set: Partial<Given<Day>>) {
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const today = new Date().toISOString().slice(0, 10);
  return put<Day>(store, project, 'The day', newDay(project, today, zone), set);
}

export function tick(store: Store, project: string, of: string, done: boolean) {
  const made: Tick = { ...newRecord(project, `tick:${project}:${of}`), kind: 'tick', of, done };
  return put<Tick>(store, project, done ? 'Tick' : 'Untick', made, { done });
}

export function chooseShot(
  store: Store,
  project: string,
  shot: string,
  set: Partial<Pick<ShotChoice, 'after' | 'takes' | 'minutes'>>,
) {
  const made: ShotChoice = {
    ...newRecord(project, `shot:${project}:${shot}`),
    kind: 'shot',
    shot,
    after: null,
    takes: null,
    minutes: null,
  };
  return put<ShotChoice>(store, project, 'after' in set ? 'Lock the place' : 'The shot', made, set);
}

/** Lets every locked place go, in one step. */
export const freePlaces = (store: Store, project: string) =>
  change(store, project, 'Free the places', ({ choices }) =>
    choices.map(({ id }) => ({ record: id, set: { after: null } })),
  );
