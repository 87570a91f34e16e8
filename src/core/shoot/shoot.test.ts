import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { grid, moment, pass, plan, setup } from '../__tests__/plan';
import type { Take } from '../model/records';
import type { Log, Pickup, Strike } from '../model/shoot-records';
import { scheduleOf } from '../plan/order/schedule';
import { planMoments } from '../plan/shots';
import { bestLog, boardOf, nextNumber, takeLabel } from './board';
import { matchLog, type CameraFile, type LogLine } from './match-log';
import { passageOf } from './passage';
import { posedTake } from './posed-take';
import { countAt, slateTimeline, songTimeAt } from './slate';
import { strikeCosts } from './strike';

const base = (id: string) => ({ id, project: 'p', created: 0, changed: 0, alive: true });
let clock = 0;
const log = (shot: string, more: Partial<Log> = {}): Log => ({
  ...base(`log-${clock++}`),
  kind: 'log',
  setup: 'a',
  shot,
  number: 1,
  started: clock * 1000,
  length: 8,
  rating: 'good',
  tags: {},
  variation: '',
  notes: '',
  take: null,
  seen: [],
  ...more,
});

const input = plan({
  moments: [moment('clone', 0, 8, { id: 'm', setup: 'a', settings: { way: 'contact' } as never })],
  setups: [setup('a')],
});
const shots = scheduleOf(input).slots.map(({ shot }) => shot);
const board = (logs: Log[], pickups: Pickup[] = [], strikes: Strike[] = []) =>
  boardOf('a', shots, { logs, pickups, strikes });
const everything = () => [
  ...shots.filter(({ variations }) => !variations).map(({ id }) => log(id)),
  ...['closer', 'further', 'straighter', 'lower'].map((variation) => log('m/right', { variation })),
];

describe('the board', () => {
  it('stands in the planned order and names the next shot', () => {
    const empty = board([]);
    expect(empty.rows.map(({ id }) => id)).toEqual(shots.map(({ id }) => id));
    expect(empty.next?.id).toBe('a/first plate');
    expect(empty.ready).toBe(false);
    expect(board([log('a/first plate')]).next?.id).toBe('m/left');
    expect(board([log('a/first plate', { rating: 'maybe' })]).next?.id).toBe('a/first plate');
  });

  it('asks for a good take of each variation, and of both plates and sounds', () => {
    const logs = everything();
    expect(board(logs).ready).toBe(true);
    for (const { id } of logs) expect(board(logs.filter((one) => one.id !== id)).ready).toBe(false);
    const right = board([
      log('m/right', { variation: 'closer' }),
      log('m/right', { variation: 'over the lamp' }),
    ]).rows.find(({ id }) => id === 'm/right');
    expect(right?.variations.map(({ name, good }) => `${name} ${good}`)).toEqual([
      'closer 1',
      'further 0',
      'straighter 0',
      'lower 0',
      'over the lamp 1',
    ]);
    expect(right).toMatchObject({ begun: true, done: false, good: 2 });
  });

  it('adds pick-ups, and keeps what was filmed of shots that are no longer planned', () => {
    const pickup: Pickup = {
      ...base('one'),
      kind: 'pickup',
      setup: 'a',
      shot: 'm/left',
      moment: 'm',
      title: 'Left again',
      why: 'It moved.',
    };
    const more = board([...everything(), log('gone/left')], [pickup]);
    expect(more.missing.map(({ id }) => id)).toEqual(['pickup/one']);
    expect(more.rows.at(-1)).toMatchObject({ title: 'No longer planned', done: true, good: 1 });
    expect(board([...everything(), log('pickup/one')], [pickup]).ready).toBe(true);
  });

  it('numbers takes on, and tells two phones’ takes of one number apart', () => {
    const [one, two] = [log('m/left', { number: 3, started: 10 }), log('m/left', { number: 3, started: 20 })];
    expect(nextNumber({ logs: [one, two] })).toBe(4);
    expect(nextNumber({ logs: [] })).toBe(1);
    expect([takeLabel(one, [one, two]), takeLabel(two, [one, two])]).toEqual(['3', '3b']);
  });

  it('builds with the last good take that has a file, else the last maybe', () => {
    const logs = [
      log('x', { take: 't1' }),
      log('x', { take: 't2', rating: 'maybe' }),
      log('x', { take: null }),
      log('x', { take: 't3', rating: 'no' }),
    ];
    expect(bestLog({ logs })?.take).toBe('t1');
    expect(bestLog({ logs: logs.slice(1) })?.take).toBe('t2');
    expect(bestLog({ logs: logs.slice(2) })).toBeNull();
  });

  it('stands in again for the pose of the shot itself, else of the newest that shows somebody', () => {
    const takes = ['plate', 'left 1', 'left 2', 'right'].map((id) => ({ id }) as Take);
    const filmed = board([
      log('m/left', { take: 'left 1', started: 10 }),
      log('m/right', { take: 'right', started: 20, variation: 'closer' }),
      log('m/left', { take: 'left 2', started: 15, rating: 'no' }),
      log('a/first plate', { take: 'plate', started: 30 }),
    ]);
    const row = (id: string) => filmed.rows.find((one) => one.id === id) ?? null;
    expect(posedTake(filmed, row('m/left'), takes)?.id).toBe('left 1');
    expect(posedTake(filmed, row('m/right'), takes)?.id).toBe('right');
    expect(posedTake(filmed, row('a/last plate'), takes)?.id).toBe('right');
    // Its file was taken out of the project.
    expect(posedTake(filmed, row('m/right'), takes.slice(0, 3))?.id).toBe('left 1');
    expect(posedTake(board([]), null, takes)).toBeNull();
  });
});

describe('striking', () => {
  const moments = planMoments(input);
  it('costs nothing where nothing is missing', () => {
    expect(strikeCosts(board(everything()), moments)).toEqual([]);
  });

  it('names the moment that is given up, once, with what it lacks and what was filmed for nothing', () => {
    const costs = strikeCosts(board([log('a/first plate'), log('m/left')]), moments);
    const given = costs.filter(({ code }) => code === 'strike.moment');
    expect(given).toHaveLength(1);
    expect(given[0]).toMatchObject({
      severity: 'stop',
      where: { moment: 'm' },
      measured: { value: 4, unit: 'seconds' },
      facts: { takes: 1, lacks: 'Right: the copy' },
    });
    expect(costs.map(({ code }) => code)).toEqual(
      ['strike.drift', 'strike.sound', 'strike.moment'].sort(
        (a, b) => costs.findIndex(({ code }) => code === a) - costs.findIndex(({ code }) => code === b),
      ),
    );
  });

  it('tells a variation or a maybe from a moment that is lost', () => {
    const logs = everything().filter(({ variation }) => variation !== 'lower');
    expect(strikeCosts(board(logs), moments)).toMatchObject([
      { code: 'strike.variation', facts: { names: 'lower' } },
    ]);
    const unsure = everything().map((one) =>
      one.shot === 'm/left' ? { ...one, rating: 'maybe' as const } : one,
    );
    expect(strikeCosts(board(unsure), moments)).toMatchObject([{ code: 'strike.maybe' }]);
    const noPlates = everything().filter(({ shot }) => !shot.includes('plate'));
    expect(strikeCosts(board(noPlates), moments).map(({ code }) => code)).toEqual([
      'strike.plate',
      'strike.plate',
    ]);
  });
});

describe('the slate', () => {
  const capture = { num: 60000, den: 1001 };
  it('counts a bar in, a known number of frames after its white picture', () => {
    // 120 beats a minute: four counts of half a second.
    const line = slateTimeline(grid, { from: 32, until: 40 }, 1, capture);
    expect(line.song - line.sync).toBeCloseTo(3, 9);
    expect(line.frames).toBe(180);
    expect(line.counts).toHaveLength(4);
    expect(line.end - line.song).toBeCloseTo(4, 9);
    expect(songTimeAt(line, line.song + 1)).toBeCloseTo(17, 9);
    expect([0.5, line.song - 1.9, line.song - 0.1, line.song].map((time) => countAt(line, time))).toEqual([
      null,
      1,
      4,
      null,
    ]);
  });

  it('plays faster for slowed footage, and counts only what can be spoken', () => {
    // 60000/1001 played at 24000/1001 is 40 %, so playback is 250 % (arithmetic).
    const line = slateTimeline(grid, { from: 32, until: 40 }, 2.5, capture);
    expect(line.end - line.song).toBeCloseTo(4 / 2.5, 9);
    const gaps = line.counts.slice(1).map(({ time }, at) => time - line.counts[at].time);
    expect(Math.min(...gaps)).toBeGreaterThanOrEqual(0.38);
  });
});

describe('the passage of a shot', () => {
  const slowed = (slow: number) =>
    plan({
      moments: [
        moment('clone', 0, 8, { id: 'm' }),
        moment('speed-ramp', 8, 16, { id: 'r', settings: { slow, fast: 300, poses: 3 } as never }),
      ],
      passes: [pass('p'), pass('q', { from: 4, until: 12 })],
    });
  const all = slowed(40);
  const at = (id: string, of = all) => {
    const shot = scheduleOf(of).slots.find((slot) => slot.shot.id === id)?.shot ?? null;
    return passageOf(shot, of, 120);
  };

  it('is its moment’s bars, or those of its performance; plates and sounds need silence', () => {
    expect(at('m/left')).toEqual({ from: 0, until: 8, speed: 1 });
    expect(at('p')).toEqual({ from: 0, until: 120, speed: 1 });
    expect(at('q')).toEqual({ from: 4, until: 12, speed: 1 });
    expect(at('a/first plate')).toBeNull();
    expect(at('nothing')).toBeNull();
  });

  // What is slowed to half was sung at twice the speed, however many pictures a second were filmed (arithmetic).
  it.each([
    [40, 2.5],
    [50, 2],
    [100, 1],
  ])('is played as much faster as the footage is slowed: %d %% at %d', (slow, speed) => {
    const all = slowed(slow);
    const ramp = scheduleOf(all).slots.find(({ shot }) => shot.moments.includes('r'));
    expect(at(ramp?.shot.id ?? '', all)?.speed).toBeCloseTo(speed, 9);
    expect(at('m/left', all)?.speed).toBe(1);
  });
});

describe('files and log lines', () => {
  const day: LogLine[] = [12, 30, 9, 9, 44, 20].map((length, at) => ({
    id: `l${at}`,
    started: 1000 + at * 130 + (at > 3 ? 700 : 0),
    length,
  }));
  const files = (offset: (at: number) => number, skip: number[] = []): CameraFile[] =>
    day.flatMap(({ started, length }, at) =>
      skip.includes(at) ? [] : [{ id: `f${at}`, started: started + offset(at), length: length + 2.5 }],
    );
  const named = (found: ReturnType<typeof matchLog>) => found.map(({ file, log }) => `${file}=${log}`);

  it('finds the clock of the camera by itself, hours off, with lines and files missing', () => {
    const found = matchLog(
      files(() => 7203.4, [2]),
      day,
    );
    expect(named(found)).toEqual(['f0=l0', 'f1=l1', 'f3=l3', 'f4=l4', 'f5=l5']);
    expect(found[0].offset).toBeCloseTo(7203.4, 0);
  });

  it('follows a clock that jumps in the middle of the day', () => {
    expect(
      named(
        matchLog(
          files((at) => (at < 3 ? 40 : -3560)),
          day,
        ),
      ),
    ).toEqual(day.map((_, at) => `f${at}=l${at}`));
  });

  it('leaves one strange clip alone, and answers for nothing', () => {
    expect(matchLog([{ id: 'x', started: 90_000, length: 14 }], day)).toEqual([]);
    expect(matchLog([], day)).toEqual([]);
    expect(
      matchLog(
        files(() => 0),
        [],
      ),
    ).toEqual([]);
  });

  it('never uses a file or a line twice, for any clips and lines', () => {
    const clips = fc.array(
      fc.record({
        started: fc.double({ min: 0, max: 5000, noNaN: true }),
        length: fc.double({ min: 0, max: 60, noNaN: true }),
      }),
      { maxLength: 14 },
    );
    fc.assert(
      fc.property(clips, clips, (a, b) => {
        const found = matchLog(
          a.map((one, at) => ({ id: `f${at}`, ...one })),
          b.map((one, at) => ({ id: `l${at}`, ...one })),
        );
        expect(new Set(found.map(({ file }) => file)).size).toBe(found.length);
        expect(new Set(found.map(({ log }) => log)).size).toBe(found.length);
      }),
      { numRuns: 200 },
    );
  });
});
