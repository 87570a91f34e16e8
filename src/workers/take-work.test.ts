import 'fake-indexeddb/auto';
import { describe, expect, it, vi } from 'vitest';
import type { Comparison } from '@/core/model/measures';
import { makePlate, setTake } from '@/store/commands/takes';
import { comparisonOf } from '@/store/snapshot';
import { compared, repeating } from '@/store/__tests__/film';
import { decoded, held, until } from './__tests__/answers';
import { RunnerFilm } from './__tests__/runner-film';

describe('the work on takes', () => {
  const of = new RunnerFilm();
  const { start, idle, measuredTakes, fileOf } = of;

  it('sorts takes by where somebody stands, and keeps the slot that a person gave meanwhile', async () => {
    await of.film.addTake('plate', 'plate', 0);
    await of.film.addTake('one', null, 1);
    await of.film.addTake('two', null, 2);
    for (const id of ['m-plate', 'm-one', 'm-two']) await fileOf(id);
    const first = held<unknown>();
    const measure = vi
      .fn<() => Promise<unknown>>()
      .mockImplementationOnce(first.called)
      .mockImplementation(async () => decoded());
    const right = Uint8Array.from({ length: 48 * 27 }, (_, cell) => (cell % 48 > 30 ? 1 : 0));
    start({ measureTake: measure, compareTake: async () => compared({ covered: right }) });
    await first.begun();
    await setTake(of.film.store, of.film.project, 'one', 'What a take is', { slot: 'left' });
    first.release(decoded());
    await idle();
    // By where somebody stands each would be the right one.
    expect((await of.film.read()).takes.map(({ slot }) => slot)).toEqual(['plate', 'left', 'right']);
  });

  it('sorts takes that were measured before there was a plate once somebody says which one it is', async () => {
    for (const [order, id] of ['one', 'two'].entries()) {
      await of.film.addTake(id, null, order);
      await fileOf(`m-${id}`);
    }
    const left = Uint8Array.from({ length: 48 * 27 }, (_, cell) => (cell % 48 < 20 ? 1 : 0));
    start({ compareTake: async () => compared({ covered: left }) });
    await idle();
    expect((await of.film.read()).takes.map(({ slot }) => slot)).toEqual([null, null]);
    await setTake(of.film.store, of.film.project, 'one', 'What a take is', { slot: 'plate' });
    await until(async () =>
      expect((await of.film.read()).takes.map(({ slot }) => slot)).toEqual(['plate', 'left']),
    );
  });

  it('holds a take against a plate whose camera moves from both files, and another one as before', async () => {
    for (const [order, id] of ['plate', 'one'].entries()) {
      await of.film.addTake(id, id === 'plate' ? 'plate' : 'left', order);
      await fileOf(`m-${id}`);
    }
    const against = vi.fn(async () => compared());
    const passes = vi.fn<(takes: readonly { media: string }[]) => Promise<Comparison>>(async () =>
      compared({ repeat: repeating(0.2, 10) }),
    );
    start({ compareTake: against, compareRepeat: passes });
    await idle();
    expect([against.mock.calls.length, passes.mock.calls.length]).toEqual([1, 0]);
    await setTake(of.film.store, of.film.project, 'plate', 'Moves', { moves: true });
    await until(() => expect(passes).toHaveBeenCalledTimes(1));
    expect(passes.mock.calls[0][0].map(({ media }) => media)).toEqual(['m-one', 'm-plate']);
    await idle();
    const told = async () => {
      const snapshot = await of.film.read();
      const [plate, one] = snapshot.takes;
      return comparisonOf(snapshot, one, plate)?.repeat?.late;
    };
    await until(async () => expect(await told()).toBe(0.2));
    await setTake(of.film.store, of.film.project, 'plate', 'Stands', { moves: false });
    expect(await told()).toBeUndefined();
  });

  it('puts a plate together once its takes are measured, and measures it like any other', async () => {
    await of.film.addTake('one', 'left', 1);
    await fileOf('m-one');
    await of.film.store.stills.put({ id: 'm-one', stills: { pictures: [], views: [] } });
    await makePlate(of.film.store, of.film.project, null);
    const buildPlate = vi.fn(async () => ({ film: new Blob(['film']), doubt: 0.02, takes: 1 }));
    start({ buildPlate, probeFile: async () => null });
    await idle();
    const { takes, media } = await of.film.read();
    const plate = takes.find(({ made }) => made);
    expect(plate?.made).toMatchObject({ from: ['one'], doubt: 0.02, takes: 1 });
    expect(buildPlate).toHaveBeenCalledTimes(1);
    expect(media.get(plate?.media ?? '')?.name).toBe('Plate put together.mp4');
    expect(await measuredTakes()).toEqual(['m-one', plate?.media]);
  });

  it('leaves sizes that differ to the finding that says so', async () => {
    await of.film.addTake('plate', 'plate', 1);
    await of.film.addTake('one', 'left', 2);
    for (const id of ['m-plate', 'm-one']) await fileOf(id);
    start({ compareTake: () => Promise.reject({ code: 'take.size', message: 'They differ.' }) });
    await idle();
    expect([...(await of.film.read()).halted.values()]).toMatchObject([
      { reason: { code: 'take.size', message: '' } },
    ]);
  });
});
