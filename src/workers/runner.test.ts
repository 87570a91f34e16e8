import 'fake-indexeddb/auto';
import { describe, expect, it, vi } from 'vitest';
import { partKey, takeParts, type TakePart } from '@/core/footage/take-parts';
import { regularGrid } from '@/core/time/grid';
import { keepVersion } from '@/store/commands/keep';
import { removeMoment, setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { askRender, removeRender } from '@/store/commands/renders';
import { findRestAgain, lockPassage, shiftBeats } from '@/store/commands/song';
import { removeTake } from '@/store/commands/takes';
import { change } from '@/store/change';
import type { Measure } from '@/store/db';
import { findingsOf } from '@/store/findings';
import { songParts } from '@/core/song/parts';
import { lacksOf } from '@/store/needs';
import { planOf } from '@/store/plan';
import { answers, decoded, found, full, heard, held, sung97, until } from './__tests__/answers';
import { RunnerFilm } from './__tests__/runner-film';

describe('the runner', () => {
  const of = new RunnerFilm();
  const { start, idle, measuredTakes, fileOf } = of;
  const halted = async () => [...(await of.film.read()).halted.values()];

  it('does all that is missing, one after the other, until nothing is left, in one worker', async () => {
    const moment = await of.film.wholeClone();
    for (const id of ['song', 'm-plate', 'm-one', 'm-two']) await fileOf(id);
    start();
    await idle();
    const { measures } = await of.film.read();
    expect([...measures.values()].map(({ value }) => value.method).sort()).toEqual(
      [
        ...['comparison', 'comparison', 'seam-7', ...songParts],
        ...['one', 'two', 'plate'].flatMap(() => takeParts),
      ].sort(),
    );
    expect(of.opened).toHaveBeenCalledTimes(1);
    expect(of.ended).not.toHaveBeenCalled();
    await of.film.store.writeRows('renders', [
      {
        id: 'r',
        project: of.film.project,
        moment,
        name: 'shot.mov',
        container: 'mov',
        status: 'waiting',
        blob: null,
        created: 1,
      },
    ]);
    await until(async () => expect((await of.film.store.renders.get('r'))?.status).toBe('done'));
    // The render has had one of its own, and soon none holds memory any more.
    expect(of.opened).toHaveBeenCalledTimes(2);
    await until(() => expect(of.ended).toHaveBeenCalledTimes(2));
  });

  it('gives the next piece of work another worker where one failed, and none after it was stopped', async () => {
    for (const id of ['one', 'two', 'three']) {
      await of.film.addTake(id, 'left', 1);
      await fileOf(`m-${id}`);
    }
    const measureTake = vi.fn(answers.measureTake).mockRejectedValueOnce(new TypeError('decoder'));
    start({ measureTake: measureTake as never });
    await idle();
    expect(of.opened).toHaveBeenCalledTimes(2);
    expect(of.ended).toHaveBeenCalledTimes(1);
    of.stop();
    expect(of.ended).toHaveBeenCalledTimes(2);
  });

  it('writes a failure down with its reason and goes on with the rest; asked again, it is done', async () => {
    await of.film.addTake('one', 'left', 1);
    await of.film.addTake('two', 'right', 2);
    await fileOf('m-two');
    start();
    await idle();
    expect(await halted()).toMatchObject([{ label: 'Measuring one', reason: { code: 'absent' } }]);
    expect(await measuredTakes()).toEqual(['m-two']);
    await fileOf('m-one');
    await of.runner.again(partKey('pictures', { media: 'm-one' }));
    await idle();
    expect(await measuredTakes()).toEqual(['m-one', 'm-two']);
    expect(await halted()).toEqual([]);
  });

  it('decodes once more for what alone is missing, and throws nothing else away', async () => {
    await of.film.addTake('one', 'left', 1);
    await fileOf('m-one');
    start();
    await idle();
    of.stop();
    const [key, others] = [
      partKey('motion', { media: 'm-one' }),
      [partKey('pictures', { media: 'm-one' }), partKey('camera', { media: 'm-one' })],
    ];
    const kept = async () => [
      await of.film.store.stills.get('m-one'),
      await of.film.store.proxies.get('m-one'),
      await of.film.store.curves.bulkGet(others),
      await of.film.store.measures.bulkGet(others),
    ];
    const before = await kept();
    // What an older version of this analyser found stands under another key.
    const old = await of.film.store.measures.get(key);
    await of.film.store.removeRows('measures', of.film.project, [key]);
    await of.film.store.writeRows('measures', [{ ...old, key: `old-${key}` } as Measure]);
    const measure = vi.fn(answers.measureTake as (...args: unknown[]) => unknown);
    start({ measureTake: measure });
    await idle();
    expect(measure.mock.calls.map(([, , parts]) => parts)).toEqual([['motion']]);
    expect(await kept()).toEqual(before);
    expect(await measuredTakes()).toEqual(['m-one']);
    expect(await of.film.store.measures.get(`old-${key}`)).toBeUndefined();
  });

  it('says in plain data what a worker threw', async () => {
    await of.film.addTake('one', 'left', 1);
    await fileOf('m-one');
    start({ measureTake: () => Promise.reject(new TypeError('decoder')) });
    await idle();
    const [{ reason }] = await halted();
    expect(reason).toMatchObject({ code: 'unexpected', message: expect.stringContaining('decoder') });
  });

  it('cancels what runs: its worker ends, nothing of it is kept, and it waits until somebody asks', async () => {
    await of.film.addTake('one', 'left', 1);
    await fileOf('m-one');
    const measuring = held<never>();
    start({ measureTake: measuring.called });
    await measuring.begun();
    await of.runner.cancel();
    await idle();
    expect(of.ended).toHaveBeenCalled();
    expect(await halted()).toMatchObject([
      { key: partKey('pictures', { media: 'm-one' }), reason: 'cancelled' },
    ]);
    expect((await of.film.read()).measures.size).toBe(0);
    expect(measuring.called).toHaveBeenCalledTimes(1);
  });

  it('keeps what it ended with until somebody dismisses it, however much, and begins it again only when asked', async () => {
    for (const id of ['one', 'two', 'three', 'four', 'five']) await of.film.addTake(id, 'left', 1);
    start();
    await idle();
    const keys = (await halted()).map(({ key }) => key);
    expect(keys).toHaveLength(5);
    await of.runner.dismiss(keys.slice(0, 4));
    expect((await halted()).filter(({ dismissed }) => !dismissed).map(({ key }) => key)).toEqual([keys[4]]);
    for (const id of ['one', 'two', 'three', 'four', 'five']) await fileOf(`m-${id}`);
    await idle();
    expect(await measuredTakes()).toEqual([]);
    await of.runner.again(keys[0]);
    await idle();
    expect(await measuredTakes()).toHaveLength(1);
  });

  it('stops a render that is removed, and renders as was asked, whatever was changed since', async () => {
    const moment = await of.film.wholeClone();
    for (const id of ['song', 'm-plate', 'm-one', 'm-two']) await fileOf(id);
    const rendering = held<never>();
    type Task = { delivery: object; bitrate: number; tree: { from: number; until: number } };
    const render = vi
      .fn<(task: Task) => Promise<unknown>>()
      .mockImplementationOnce(rendering.called)
      .mockImplementation(async () => ({ blob: new Blob(['film']), flashes: 5 }));
    start({ renderShot: render });
    await idle();
    const ask = () => askRender(of.film.store, of.film.project, moment, 'shot');
    const removed = await ask();
    await rendering.begun();
    await removeRender(of.film.store, of.film.project, removed);
    await idle();
    expect(await halted()).toEqual([]);
    of.stop();
    // Pressed at once after a change of the size, which is not drawn yet.
    const [, asked] = await Promise.all([setProject(of.film.store, of.film.project, { width: 960 }), ask()]);
    await setProject(of.film.store, of.film.project, { width: 640, height: 360, megabits: 3 });
    await setMoment(of.film.store, of.film.project, moment, 'Later', { start: 4, end: 8 });
    start({ renderShot: render });
    await until(async () => expect((await of.film.store.renders.get(asked))?.status).toBe('done'));
    const [, [task]] = render.mock.calls;
    expect(task).toMatchObject({ delivery: { width: 960, height: 720 }, bitrate: 16e6 });
    expect(task.tree.from).toBe(0);
    const flashing = await of.film.read();
    expect(findingsOf(flashing, planOf(flashing)).deliver).toContainEqual(
      expect.objectContaining({ code: 'film.flashes', severity: 'stop' }),
    );
    await removeMoment(of.film.store, of.film.project, moment);
    expect(lacksOf(await of.film.read()).filter(({ kind }) => kind === 'render')).toEqual([]);
  });

  it('never cancels the next piece of work in place of one that is over', async () => {
    await of.film.addTake('one', 'left', 1);
    await of.film.addTake('two', 'right', 2);
    for (const id of ['m-one', 'm-two']) await fileOf(id);
    const second = held<unknown>();
    const measure = vi
      .fn<() => Promise<unknown>>()
      .mockImplementationOnce(async () => decoded())
      .mockImplementationOnce(second.called);
    start({ measureTake: measure });
    await second.begun();
    await of.runner.cancel(partKey('pictures', { media: 'm-one' }));
    second.release(decoded());
    await idle();
    expect(await measuredTakes()).toEqual(['m-one', 'm-two']);
    expect(await halted()).toEqual([]);
  });

  it('says that the disk is full, and goes on with what needs no room', async () => {
    await of.film.addTake('one', 'left', 1);
    await of.film.addTake('two', 'right', 2);
    for (const id of ['m-one', 'm-two']) await fileOf(id);
    const put = of.film.store.proxies.put.bind(of.film.store.proxies);
    vi.spyOn(of.film.store.proxies, 'put').mockImplementation(((row: { id: string; blob: Blob }) =>
      row.id === 'm-one' ? Promise.reject(full()) : put(row)) as never);
    start();
    await idle();
    expect(await halted()).toMatchObject([
      { key: partKey('pictures', { media: 'm-one' }), reason: { code: 'storage.full' } },
    ]);
    expect(await measuredTakes()).toEqual(['m-two']);
  });

  it('does not spin where a failure cannot even be written down, and shows it all the same', async () => {
    await of.film.addTake('one', 'left', 1);
    await of.film.addTake('two', 'right', 2);
    await fileOf('m-two');
    vi.spyOn(of.film.store.halted, 'bulkPut').mockRejectedValue(full());
    start();
    await idle();
    expect(of.runner.notWrittenDown()).toMatchObject([
      { key: partKey('pictures', { media: 'm-one' }), reason: { code: 'absent' } },
    ]);
    expect(await measuredTakes()).toEqual(['m-two']);
    await fileOf('m-one');
    await of.runner.again(partKey('pictures', { media: 'm-one' }));
    await idle();
    expect(await measuredTakes()).toEqual(['m-one', 'm-two']);
  });

  it('keeps beats that were set while the song was listened to', async () => {
    await of.film.addSong({ grid: null });
    await fileOf('song');
    const listening = held<unknown>();
    start({ measureSong: listening.called });
    await listening.begun();
    const grid = regularGrid(150, 0, 60);
    await change(of.film.store, of.film.project, 'Tempo', [{ record: 'song-record', set: { grid } }]);
    listening.release(heard());
    await idle();
    expect((await of.film.read()).song?.grid).toEqual(grid);
  });

  it('keeps beats that were moved while the others were looked for, says so, and looks again when asked', async () => {
    await of.film.addSong();
    await of.film.sung();
    await of.film.store.proxies.put({ id: 'song', blob: new Blob(['wav']) });
    await lockPassage(of.film.store, of.film.project, 0, 8);
    await findRestAgain(of.film.store, of.film.project);
    const looking = held<unknown>();
    const again = vi
      .fn<() => Promise<unknown>>()
      .mockImplementationOnce(looking.called)
      .mockResolvedValue(sung97);
    start({ findBeatsAgain: again });
    await looking.begun();
    await shiftBeats(of.film.store, of.film.project, 0.02);
    const moved = (await of.film.read()).song?.grid;
    looking.release(sung97);
    await idle();
    expect((await of.film.read()).song?.grid).toEqual(moved);
    const [{ key, reason }] = await halted();
    expect(reason).toMatchObject({ code: 'beats-changed' });
    await of.runner.again(key);
    await idle();
    expect((await of.film.read()).song?.grid?.beats).toEqual(sung97.beats);
    expect((await of.film.read()).song?.again).toBeNull();
  });

  it('solves a join once more where the moment was changed while it was solved', async () => {
    const moment = await of.film.wholeClone();
    await of.film.sung();
    for (const id of ['plate', 'one', 'two']) await of.film.measured(id);
    for (const id of ['one', 'two']) await of.film.compared(id);
    const solving = held<unknown>();
    const solve = vi
      .fn<() => Promise<unknown>>()
      .mockImplementationOnce(solving.called)
      .mockResolvedValue({ method: 'seam-7', seam: found });
    start({ solveTask: solve });
    await solving.begun();
    await setMoment(of.film.store, of.film.project, moment, 'In', { 'slots.left.at': 1 });
    // The first is never released: nobody waits for what is not asked any more.
    await idle();
    expect(solve).toHaveBeenCalledTimes(2);
    const seams = [...(await of.film.read()).measures.values()].filter(
      ({ value }) => value.method === 'seam-7',
    );
    expect(seams).toHaveLength(1);
  });

  it('finds the join of a kept version too, and neither takes the place of the other', async () => {
    const moment = await of.film.wholeClone();
    await of.film.sung();
    for (const id of ['plate', 'one', 'two']) await of.film.measured(id);
    for (const id of ['one', 'two']) await of.film.compared(id);
    const solve = vi.fn<() => Promise<unknown>>().mockResolvedValue({ method: 'seam-7', seam: found });
    await keepVersion(of.film.store, of.film.project, moment);
    await setMoment(of.film.store, of.film.project, moment, 'In', { 'slots.left.at': 1 });
    start({ solveTask: solve });
    await idle();
    expect(solve).toHaveBeenCalledTimes(2);
    const seams = [...(await of.film.read()).measures.values()].filter(
      ({ value }) => value.method === 'seam-7',
    );
    expect(seams).toHaveLength(2);
  });

  it('goes on where a take was taken out while it was measured', async () => {
    await of.film.addTake('one', null, 1);
    await fileOf('m-one');
    const measuring = held<unknown>();
    start({ measureTake: measuring.called });
    await measuring.begun();
    await removeTake(of.film.store, of.film.project, 'one');
    measuring.release(decoded());
    await idle();
    expect(await halted()).toEqual([]);
  });

  it('tells how far it is, and nothing more once it is over', async () => {
    await of.film.addTake('one', 'left', 1);
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
    of.runner.subscribe(() => told.push(of.runner.current()?.share ?? null));
    await idle();
    expect(told).toContain(1);
    late(0.5);
    expect(of.runner.current()).toBeNull();
  });

  it('works in one tab at a time; the other takes over when it closes', async () => {
    await of.film.addTake('one', 'left', 1);
    await fileOf('m-one');
    const first = held<never>();
    start({ measureTake: first.called });
    const [stopFirst] = [of.stop];
    await first.begun();
    start();
    expect((await of.film.read()).measures.size).toBe(0);
    stopFirst();
    await idle();
    await until(async () => expect(await measuredTakes()).toEqual(['m-one']));
  });
});
