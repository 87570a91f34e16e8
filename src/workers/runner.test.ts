import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { partKey, takeParts, type TakePart } from '@/core/footage/take-parts';
import { songParts } from '@/core/song/parts';
import { regularGrid } from '@/core/time/grid';
import { keepVersion } from '@/store/commands/keep';
import { removeMoment, setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { askRender, removeRender } from '@/store/commands/renders';
import { findRestAgain, lockPassage, shiftBeats } from '@/store/commands/song';
import { makePlate, removeTake, setTake } from '@/store/commands/takes';
import { change } from '@/store/change';
import type { Measure } from '@/store/db';
import { findingsOf } from '@/store/findings';
import { lacksOf, needsOf } from '@/store/needs';
import { planOf } from '@/store/plan';
import { compared, TestFilm } from '@/store/__tests__/film';
import { answers, decoded, found, full, heard, held, sung97, until, type Calls } from './__tests__/answers';
import type { Workers } from './perform';
import { Runner, type Hold } from './runner';

describe('the runner', () => {
  let film: TestFilm;
  let runner: Runner;
  let stop: () => void = () => undefined;
  const ended = vi.fn();
  /** Works one tab after the other, as the browser's locks do. */
  let turn: Promise<unknown> = Promise.resolve();
  const hold: Hold = (_, __, work) => (turn = turn.then(work));
  const workers = (more: Calls = {}): Workers => {
    const open = () => ({ api: { ...answers, ...more } as never, end: ended });
    return { openMedia: open, openRender: open };
  };
  const start = (more: Calls = {}) => {
    runner = new Runner(film.store, film.project, workers(more), hold);
    stop = runner.start();
  };
  const idle = () =>
    until(async () => {
      expect(runner.current()).toBeNull();
      const left = needsOf(await film.read()).map(({ key }) => key);
      expect(left.filter((key) => !runner.notWrittenDown().some((one) => one.key === key))).toEqual([]);
    });
  const halted = async () => [...(await film.read()).halted.values()];
  /** Files of which every part is measured. */
  const measuredTakes = async () => {
    const { measures, takes } = await film.read();
    return takes
      .map(({ media }) => media)
      .filter((media) => takeParts.every((part) => measures.has(partKey(part, { media }))));
  };
  const fileOf = (id: string) => film.store.originals.add({ id, blob: new Blob([id]) });

  beforeEach(async () => {
    turn = Promise.resolve();
    ended.mockClear();
    film = await TestFilm.begin();
    return () => stop();
  });

  it('does all that is missing, one after the other, until nothing is left, and ends every worker', async () => {
    const moment = await film.wholeClone();
    for (const id of ['song', 'm-plate', 'm-one', 'm-two']) await fileOf(id);
    start();
    await idle();
    const { measures } = await film.read();
    expect([...measures.values()].map(({ value }) => value.method).sort()).toEqual(
      [
        ...['comparison', 'comparison', 'seam-5', ...songParts],
        ...['one', 'two', 'plate'].flatMap(() => takeParts),
      ].sort(),
    );
    expect(ended).toHaveBeenCalledTimes(7);
    await film.store.writeRows('renders', [
      {
        id: 'r',
        project: film.project,
        moment,
        name: 'shot.mov',
        container: 'mov',
        status: 'waiting',
        blob: null,
        created: 1,
      },
    ]);
    await until(async () => expect((await film.store.renders.get('r'))?.status).toBe('done'));
  });

  it('writes a failure down with its reason and goes on with the rest; asked again, it is done', async () => {
    await film.addTake('one', 'left', 1);
    await film.addTake('two', 'right', 2);
    await fileOf('m-two');
    start();
    await idle();
    expect(await halted()).toMatchObject([{ label: 'Measuring one', reason: { code: 'absent' } }]);
    expect(await measuredTakes()).toEqual(['m-two']);
    await fileOf('m-one');
    await runner.again(partKey('pictures', { media: 'm-one' }));
    await idle();
    expect(await measuredTakes()).toEqual(['m-one', 'm-two']);
    expect(await halted()).toEqual([]);
  });

  it('decodes once more for what alone is missing, and throws nothing else away', async () => {
    await film.addTake('one', 'left', 1);
    await fileOf('m-one');
    start();
    await idle();
    stop();
    const [key, others] = [
      partKey('motion', { media: 'm-one' }),
      [partKey('pictures', { media: 'm-one' }), partKey('camera', { media: 'm-one' })],
    ];
    const kept = async () => [
      await film.store.stills.get('m-one'),
      await film.store.proxies.get('m-one'),
      await film.store.curves.bulkGet(others),
      await film.store.measures.bulkGet(others),
    ];
    const before = await kept();
    // What an older version of this analyser found stands under another key.
    const old = await film.store.measures.get(key);
    await film.store.removeRows('measures', film.project, [key]);
    await film.store.writeRows('measures', [{ ...old, key: `old-${key}` } as Measure]);
    const measure = vi.fn(answers.measureTake as (...args: unknown[]) => unknown);
    start({ measureTake: measure });
    await idle();
    expect(measure.mock.calls.map(([, , parts]) => parts)).toEqual([['motion']]);
    expect(await kept()).toEqual(before);
    expect(await measuredTakes()).toEqual(['m-one']);
    expect(await film.store.measures.get(`old-${key}`)).toBeUndefined();
  });

  it('says in plain data what a worker threw', async () => {
    await film.addTake('one', 'left', 1);
    await fileOf('m-one');
    start({ measureTake: () => Promise.reject(new TypeError('decoder')) });
    await idle();
    const [{ reason }] = await halted();
    expect(reason).toMatchObject({ code: 'unexpected', message: expect.stringContaining('decoder') });
  });

  it('cancels what runs: its worker ends, nothing of it is kept, and it waits until somebody asks', async () => {
    await film.addTake('one', 'left', 1);
    await fileOf('m-one');
    const measuring = held<never>();
    start({ measureTake: measuring.called });
    await measuring.begun();
    await runner.cancel();
    await idle();
    expect(ended).toHaveBeenCalled();
    expect(await halted()).toMatchObject([
      { key: partKey('pictures', { media: 'm-one' }), reason: 'cancelled' },
    ]);
    expect((await film.read()).measures.size).toBe(0);
    expect(measuring.called).toHaveBeenCalledTimes(1);
  });

  it('keeps what it ended with until somebody dismisses it, however much, and begins it again only when asked', async () => {
    for (const id of ['one', 'two', 'three', 'four', 'five']) await film.addTake(id, 'left', 1);
    start();
    await idle();
    const keys = (await halted()).map(({ key }) => key);
    expect(keys).toHaveLength(5);
    await runner.dismiss(keys.slice(0, 4));
    expect((await halted()).filter(({ dismissed }) => !dismissed).map(({ key }) => key)).toEqual([keys[4]]);
    for (const id of ['one', 'two', 'three', 'four', 'five']) await fileOf(`m-${id}`);
    await idle();
    expect(await measuredTakes()).toEqual([]);
    await runner.again(keys[0]);
    await idle();
    expect(await measuredTakes()).toHaveLength(1);
  });

  it('stops a render that is removed, and renders as was asked, whatever was changed since', async () => {
    const moment = await film.wholeClone();
    for (const id of ['song', 'm-plate', 'm-one', 'm-two']) await fileOf(id);
    const rendering = held<never>();
    type Task = { delivery: object; bitrate: number; tree: { from: number; until: number } };
    const render = vi
      .fn<(task: Task) => Promise<unknown>>()
      .mockImplementationOnce(rendering.called)
      .mockImplementation(async () => ({ blob: new Blob(['film']), flashes: 5 }));
    start({ renderShot: render });
    await idle();
    const ask = () => askRender(film.store, film.project, moment, 'shot');
    const removed = await ask();
    await rendering.begun();
    await removeRender(film.store, film.project, removed);
    await idle();
    expect(await halted()).toEqual([]);
    stop();
    // Pressed at once after a change of the size, which is not drawn yet.
    const [, asked] = await Promise.all([setProject(film.store, film.project, { width: 960 }), ask()]);
    await setProject(film.store, film.project, { width: 640, height: 360, megabits: 3 });
    await setMoment(film.store, film.project, moment, 'Later', { start: 4, end: 8 });
    start({ renderShot: render });
    await until(async () => expect((await film.store.renders.get(asked))?.status).toBe('done'));
    const [, [task]] = render.mock.calls;
    expect(task).toMatchObject({ delivery: { width: 960, height: 720 }, bitrate: 16e6 });
    expect(task.tree.from).toBe(0);
    const flashing = await film.read();
    expect(findingsOf(flashing, planOf(flashing)).deliver).toContainEqual(
      expect.objectContaining({ code: 'film.flashes', severity: 'stop' }),
    );
    await removeMoment(film.store, film.project, moment);
    expect(lacksOf(await film.read()).filter(({ kind }) => kind === 'render')).toEqual([]);
  });

  it('never cancels the next piece of work in place of one that is over', async () => {
    await film.addTake('one', 'left', 1);
    await film.addTake('two', 'right', 2);
    for (const id of ['m-one', 'm-two']) await fileOf(id);
    const second = held<unknown>();
    const measure = vi
      .fn<() => Promise<unknown>>()
      .mockImplementationOnce(async () => decoded())
      .mockImplementationOnce(second.called);
    start({ measureTake: measure });
    await second.begun();
    await runner.cancel(partKey('pictures', { media: 'm-one' }));
    second.release(decoded());
    await idle();
    expect(await measuredTakes()).toEqual(['m-one', 'm-two']);
    expect(await halted()).toEqual([]);
  });

  it('says that the disk is full, and goes on with what needs no room', async () => {
    await film.addTake('one', 'left', 1);
    await film.addTake('two', 'right', 2);
    for (const id of ['m-one', 'm-two']) await fileOf(id);
    const put = film.store.proxies.put.bind(film.store.proxies);
    vi.spyOn(film.store.proxies, 'put').mockImplementation(((row: { id: string; blob: Blob }) =>
      row.id === 'm-one' ? Promise.reject(full()) : put(row)) as never);
    start();
    await idle();
    expect(await halted()).toMatchObject([
      { key: partKey('pictures', { media: 'm-one' }), reason: { code: 'storage.full' } },
    ]);
    expect(await measuredTakes()).toEqual(['m-two']);
  });

  it('does not spin where a failure cannot even be written down, and shows it all the same', async () => {
    await film.addTake('one', 'left', 1);
    await film.addTake('two', 'right', 2);
    await fileOf('m-two');
    vi.spyOn(film.store.halted, 'bulkPut').mockRejectedValue(full());
    start();
    await idle();
    expect(runner.notWrittenDown()).toMatchObject([
      { key: partKey('pictures', { media: 'm-one' }), reason: { code: 'absent' } },
    ]);
    expect(await measuredTakes()).toEqual(['m-two']);
    await fileOf('m-one');
    await runner.again(partKey('pictures', { media: 'm-one' }));
    await idle();
    expect(await measuredTakes()).toEqual(['m-one', 'm-two']);
  });

  it('sorts takes by where somebody stands, and keeps the slot that a person gave meanwhile', async () => {
    await film.addTake('plate', 'plate', 0);
    await film.addTake('one', null, 1);
    await film.addTake('two', null, 2);
    for (const id of ['m-plate', 'm-one', 'm-two']) await fileOf(id);
    const first = held<unknown>();
    const measure = vi
      .fn<() => Promise<unknown>>()
      .mockImplementationOnce(first.called)
      .mockImplementation(async () => decoded());
    const right = Uint8Array.from({ length: 48 * 27 }, (_, cell) => (cell % 48 > 30 ? 1 : 0));
    start({ measureTake: measure, compareTake: async () => compared({ covered: right }) });
    await first.begun();
    await setTake(film.store, film.project, 'one', 'What a take is', { slot: 'left' });
    first.release(decoded());
    await idle();
    // By where somebody stands each would be the right one.
    expect((await film.read()).takes.map(({ slot }) => slot)).toEqual(['plate', 'left', 'right']);
  });

  it('sorts takes that were measured before there was a plate once somebody says which one it is', async () => {
    for (const [order, id] of ['one', 'two'].entries()) {
      await film.addTake(id, null, order);
      await fileOf(`m-${id}`);
    }
    const left = Uint8Array.from({ length: 48 * 27 }, (_, cell) => (cell % 48 < 20 ? 1 : 0));
    start({ compareTake: async () => compared({ covered: left }) });
    await idle();
    expect((await film.read()).takes.map(({ slot }) => slot)).toEqual([null, null]);
    await setTake(film.store, film.project, 'one', 'What a take is', { slot: 'plate' });
    await until(async () =>
      expect((await film.read()).takes.map(({ slot }) => slot)).toEqual(['plate', 'left']),
    );
  });

  it('puts a plate together once its takes are measured, and measures it like any other', async () => {
    await film.addTake('one', 'left', 1);
    await fileOf('m-one');
    await film.store.stills.put({ id: 'm-one', stills: { pictures: [], views: [] } });
    await makePlate(film.store, film.project, null);
    const buildPlate = vi.fn(async () => ({ film: new Blob(['film']), doubt: 0.02, takes: 1 }));
    start({ buildPlate, probeFile: async () => null });
    await idle();
    const { takes, media } = await film.read();
    const plate = takes.find(({ made }) => made);
    expect(plate?.made).toMatchObject({ from: ['one'], doubt: 0.02, takes: 1 });
    expect(buildPlate).toHaveBeenCalledTimes(1);
    expect(media.get(plate?.media ?? '')?.name).toBe('Plate put together.mp4');
    expect(await measuredTakes()).toEqual(['m-one', plate?.media]);
  });

  it('keeps beats that were set while the song was listened to', async () => {
    await film.addSong({ grid: null });
    await fileOf('song');
    const listening = held<unknown>();
    start({ measureSong: listening.called });
    await listening.begun();
    const grid = regularGrid(150, 0, 60);
    await change(film.store, film.project, 'Tempo', [{ record: 'song-record', set: { grid } }]);
    listening.release(heard());
    await idle();
    expect((await film.read()).song?.grid).toEqual(grid);
  });

  it('keeps beats that were moved while the others were looked for, says so, and looks again when asked', async () => {
    await film.addSong();
    await film.sung();
    await film.store.proxies.put({ id: 'song', blob: new Blob(['wav']) });
    await lockPassage(film.store, film.project, 0, 8);
    await findRestAgain(film.store, film.project);
    const looking = held<unknown>();
    const again = vi
      .fn<() => Promise<unknown>>()
      .mockImplementationOnce(looking.called)
      .mockResolvedValue(sung97);
    start({ findBeatsAgain: again });
    await looking.begun();
    await shiftBeats(film.store, film.project, 0.02);
    const moved = (await film.read()).song?.grid;
    looking.release(sung97);
    await idle();
    expect((await film.read()).song?.grid).toEqual(moved);
    const [{ key, reason }] = await halted();
    expect(reason).toMatchObject({ code: 'beats-changed' });
    await runner.again(key);
    await idle();
    expect((await film.read()).song?.grid?.beats).toEqual(sung97.beats);
    expect((await film.read()).song?.again).toBeNull();
  });

  it('solves a join once more where the moment was changed while it was solved', async () => {
    const moment = await film.wholeClone();
    await film.sung();
    for (const id of ['plate', 'one', 'two']) await film.measured(id);
    for (const id of ['one', 'two']) await film.compared(id);
    const solving = held<unknown>();
    const solve = vi
      .fn<() => Promise<unknown>>()
      .mockImplementationOnce(solving.called)
      .mockResolvedValue({ method: 'seam-5', seam: found });
    start({ solveTask: solve });
    await solving.begun();
    await setMoment(film.store, film.project, moment, 'In', { 'slots.left.at': 1 });
    // The first is never released: nobody waits for what is not asked any more.
    await idle();
    expect(solve).toHaveBeenCalledTimes(2);
    const seams = [...(await film.read()).measures.values()].filter(({ value }) => value.method === 'seam-5');
    expect(seams).toHaveLength(1);
  });

  it('finds the join of a kept version too, and neither takes the place of the other', async () => {
    const moment = await film.wholeClone();
    await film.sung();
    for (const id of ['plate', 'one', 'two']) await film.measured(id);
    for (const id of ['one', 'two']) await film.compared(id);
    const solve = vi.fn<() => Promise<unknown>>().mockResolvedValue({ method: 'seam-5', seam: found });
    await keepVersion(film.store, film.project, moment);
    await setMoment(film.store, film.project, moment, 'In', { 'slots.left.at': 1 });
    start({ solveTask: solve });
    await idle();
    expect(solve).toHaveBeenCalledTimes(2);
    const seams = [...(await film.read()).measures.values()].filter(({ value }) => value.method === 'seam-5');
    expect(seams).toHaveLength(2);
  });

  it('goes on where a take was taken out while it was measured', async () => {
    await film.addTake('one', null, 1);
    await fileOf('m-one');
    const measuring = held<unknown>();
    start({ measureTake: measuring.called });
    await measuring.begun();
    await removeTake(film.store, film.project, 'one');
    measuring.release(decoded());
    await idle();
    expect(await halted()).toEqual([]);
  });

  it('leaves sizes that differ to the finding that says so', async () => {
    await film.addTake('plate', 'plate', 1);
    await film.addTake('one', 'left', 2);
    for (const id of ['m-plate', 'm-one']) await fileOf(id);
    start({ compareTake: () => Promise.reject({ code: 'take.size', message: 'They differ.' }) });
    await idle();
    expect(await halted()).toMatchObject([{ reason: { code: 'take.size', message: '' } }]);
  });

  it('tells how far it is, and nothing more once it is over', async () => {
    await film.addTake('one', 'left', 1);
    await fileOf('m-one');
    const told: (number | null)[] = [];
    let late: (share: number) => void = () => undefined;
    start({
      measureTake: (async (
        _: Blob,
        __: object,
        ___: TakePart[],
        ____: unknown,
        progress: (share: number) => void,
      ) => {
        late = progress;
        progress(1);
        return decoded();
      }) as never,
    });
    runner.subscribe(() => told.push(runner.current()?.share ?? null));
    await idle();
    expect(told).toContain(1);
    late(0.5);
    expect(runner.current()).toBeNull();
  });

  it('works in one tab at a time; the other takes over when it closes', async () => {
    await film.addTake('one', 'left', 1);
    await fileOf('m-one');
    const first = held<never>();
    start({ measureTake: first.called });
    const [stopFirst] = [stop];
    await first.begun();
    start();
    expect((await film.read()).measures.size).toBe(0);
    stopFirst();
    await idle();
    await until(async () => expect(await measuredTakes()).toEqual(['m-one']));
  });
});
