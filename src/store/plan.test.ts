import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { films, momentKinds } from '@/core/recipes/films';
import { regularGrid } from '@/core/time/grid';
import { change, undo } from './change';
import { applyFix } from './commands/fix';
import { createMoment, removeMoment } from './commands/moments';
import {
  addItem,
  addMoment,
  addPass,
  addSetup,
  chooseShot,
  removeSetup,
  setDay,
  setKind,
  setPart,
  tick,
} from './commands/plan';
import { createProject, newRecord } from './commands/projects';
import { Store } from './db';
import { learnOrder, orderKey, planOf } from './plan';
import { readSnapshot, type Snapshot } from './snapshot';

let store: Store;
let project: string;
let number = 0;
const read = async (): Promise<Snapshot> => (await readSnapshot(store, project)) as Snapshot;
const shots = async () => planOf(await read()).schedule.slots.map(({ shot }) => shot.title);

beforeEach(async () => {
  store = new Store(`plan-${number++}`);
  project = await createProject(store, 'Test');
  const grid = regularGrid(120, 0.5, 60);
  await change(store, project, 'Song', [
    { create: { ...newRecord(project), kind: 'song', media: null, grid, confidence: null } },
  ]);
});

describe('the plan in the store', () => {
  it('makes a moment of every kind with its starting values, and another kind of each', async () => {
    for (const kind of momentKinds) await addMoment(store, project, kind, 0, 8);
    const { moments } = await read();
    expect(moments.map(({ recipe }) => recipe).sort()).toEqual([...momentKinds].sort());
    await setKind(store, project, moments[0].id, 'speed-ramp');
    const changed = (await read()).moments.find(({ id }) => id === moments[0].id);
    expect(changed).toMatchObject({
      recipe: 'speed-ramp',
      name: 'Speed ramp',
      settings: films['speed-ramp'].start,
    });
    await undo(store, project);
    expect((await read()).moments.find(({ id }) => id === moments[0].id)).toEqual(
      expect.objectContaining({ recipe: moments[0].recipe, settings: moments[0].settings }),
    );
  });

  it('says what to do while there is nothing, and while there is no setup', async () => {
    const codes = async () => planOf(await read()).findings.map(({ code }) => code);
    expect(await codes()).toEqual(['plan.empty']);
    await createMoment(store, project, 0, 8);
    expect(await codes()).toEqual(['plan.no-setup']);
    await addSetup(store, project);
    expect(await codes()).not.toContain('plan.no-setup');
  });

  it('takes with a moment only the shots that nothing else needs, and undo brings them back', async () => {
    await addSetup(store, project);
    const clone = await createMoment(store, project, 0, 8);
    await addMoment(store, project, 'vanish', 12, 16);
    const all = await shots();
    await removeMoment(store, project, clone);
    const left = await shots();
    expect(all.filter((title) => !left.includes(title))).toEqual(['Left: first role', 'Right: the copy']);
    await undo(store, project);
    expect(await shots()).toEqual(all);
  });

  it('begins a setup with marks, zones and a join that are clear', async () => {
    await createMoment(store, project, 0, 8);
    const setup = await addSetup(store, project);
    const snapshot = await read();
    expect(snapshot.marks.map(({ name }) => name)).toEqual(['Left', 'Right']);
    expect(snapshot.zones.map(({ what }) => what)).toEqual(['copy', 'copy', 'seam']);
    const codes = planOf(snapshot).findings.map(({ code }) => code);
    expect(codes).toEqual(expect.arrayContaining(['plan.sharp', 'zone.clear', 'order.fits', 'caution.open']));
    await addSetup(store, project);
    await setPart(store, project, snapshot.moments[0].id, 'Where', { setup });
    await removeSetup(store, project, setup);
    const after = await read();
    expect(after.setups).toHaveLength(1);
    expect(after.marks).toHaveLength(0);
    expect(after.moments[0].setup).toBeNull();
    await undo(store, project);
    expect((await read()).marks).toHaveLength(2);
  });

  it('carries out what a finding offers', async () => {
    await createMoment(store, project, 0, 8);
    const setup = await addSetup(store, project);
    await setPart(store, project, setup, 'Aperture', { aperture: 1.4, focus: 1 });
    const finding = planOf(await read()).findings.find(({ code }) => code === 'plan.unsharp');
    if (!finding?.fix) throw new Error('There is nothing to mend.');
    await applyFix(store, project, finding.fix);
    expect(planOf(await read()).findings.map(({ code }) => code)).not.toContain('plan.unsharp');
  });

  it('refuses values that cannot be, and keeps what was there', async () => {
    const setup = await addSetup(store, project);
    for (const set of [{ focal: 0 }, { aperture: -2 }, { 'sensor.width': 0 }, { 'walls.left': NaN }])
      await expect(setPart(store, project, setup, 'Lens', set)).rejects.toMatchObject({ code: 'value' });
    await expect(setDay(store, project, { start: '25:00' })).rejects.toMatchObject({ code: 'value' });
    await expect(setDay(store, project, { latitude: 91 })).rejects.toMatchObject({ code: 'value' });
    expect((await read()).setups[0].focal).toBe(24);
    const bare = await createProject(store, 'Without a setup');
    await expect(addPass(store, bare)).rejects.toMatchObject({ code: 'no-setup' });
  });

  it('keeps one day, one tick and one choice each, also after undo', async () => {
    await setDay(store, project, { date: '2026-11-28' });
    await undo(store, project);
    expect((await read()).day).toBeNull();
    await setDay(store, project, { date: '2026-11-29', mains: 60 });
    expect((await read()).day).toMatchObject({ date: '2026-11-29', mains: 60 });
    await tick(store, project, 'out/tripod', true);
    await tick(store, project, 'out/tripod', false);
    await tick(store, project, 'out/tripod', true);
    expect((await read()).ticks.map(({ of, done }) => [of, done])).toEqual([['out/tripod', true]]);
    await chooseShot(store, project, 'a/b', { takes: 4 });
    await chooseShot(store, project, 'a/b', { after: 'first' });
    expect((await read()).choices).toMatchObject([{ shot: 'a/b', takes: 4, after: 'first', minutes: null }]);
  });

  it('lays out passes in order, one more like the last, and things of one’s own', async () => {
    await addSetup(store, project);
    await addPass(store, project);
    expect((await read()).passes.map(({ size }) => size)).toEqual(['wide', 'medium', 'close', 'wide']);
    await addPass(store, project);
    expect((await read()).passes).toHaveLength(5);
    await addItem(store, project, { text: 'thermos' });
    expect((await read()).items.map(({ text }) => text)).toEqual(['thermos']);
  });

  it('takes over a better order that a worker found', async () => {
    await addSetup(store, project);
    await createMoment(store, project, 0, 8);
    const snapshot = await read();
    const { task, order } = planOf(snapshot).schedule;
    if (!order) throw new Error('There is no order.');
    const turned = { ...order, ids: [...order.ids].reverse() };
    learnOrder(orderKey(task), turned);
    expect(planOf(snapshot).schedule.slots.map(({ shot }) => shot.id)).toEqual(turned.ids);
  });
});
