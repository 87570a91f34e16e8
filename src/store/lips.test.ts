import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Alignment } from '@/core/footage/align-sound';
import type { Lips } from '@/core/footage/lips';
import { fillOf } from '@/core/model/slots';
import { applyFix } from './commands/fix';
import { setMoment } from './commands/moments';
import { findingsOf } from './findings';
import { needsOf } from './needs';
import { planOf } from './plan';
import { lipsKey, playbackKey } from './snapshot';
import { TestFilm } from './__tests__/film';

const heard: Alignment = { offset: 4, drift: 0, confidence: 0.9 };
let film: TestFilm;
let moment: string;

const wanted = async () =>
  needsOf(await film.read()).flatMap((need) => (need.kind === 'lips' ? [need.take.id] : []));
const hear = (id: string, playback: Alignment) =>
  film.keep(playbackKey({ media: `m-${id}` }, 'song'), `m-${id}`, {
    method: 'playback',
    playback,
    beep: null,
  });
const see = (id: string, playback: Alignment, lips: Lips | null) =>
  film.keep(lipsKey({ media: `m-${id}` }, 'song', playback), `m-${id}`, { method: 'lips', lips });
const ofPlayback = async () => {
  const snapshot = await film.read();
  return findingsOf(snapshot, planOf(snapshot)).build.filter(({ code }) => code.startsWith('playback'));
};
const said = async () => (await ofPlayback()).map(({ code }) => code);

beforeEach(async () => {
  film = await TestFilm.begin();
  moment = await film.wholeClone();
  await film.sung();
  for (const id of ['plate', 'one', 'two']) await film.measured(id);
});

describe('lips in takes', () => {
  it('are looked at where the song is heard in what a moment shows as it was filmed, and once for each place of it', async () => {
    expect(await wanted()).toEqual([]);
    await film.addTake('spare', 'left', 4);
    await film.measured('spare');
    for (const id of ['plate', 'one', 'spare']) await hear(id, heard);
    await hear('two', { ...heard, confidence: 0.3 });
    expect(await wanted()).toEqual(['one']);
    await hear('two', { ...heard, speed: 2 });
    expect(await wanted()).toEqual(['one']);
    await hear('two', heard);
    expect(await wanted()).toEqual(['one', 'two']);
    await see('one', heard, null);
    expect(await wanted()).toEqual(['two']);
    await hear('one', { ...heard, offset: 4.5 });
    expect(await wanted()).toEqual(['one', 'two']);
  });

  it('move a take to where they fit by the fix that is offered, and no further', async () => {
    await hear('one', { ...heard, offset: -0.5 });
    await see('one', { ...heard, offset: -0.5 }, { late: 0.2, sure: 1 });
    const [found] = await ofPlayback();
    expect(found.code).toBe('playback.lips-off');
    if (!found.fix) throw new Error('Nothing is offered.');
    await applyFix(film.store, film.project, found.fix);
    const { built } = await film.read();
    // What is heard at half a second of the take is the song's beginning; its lips are a fifth of a second later.
    expect(fillOf(built[0], 'left').at).toBeCloseTo(0.7, 6);
    expect(await said()).toEqual(['playback.lips-on']);
    await setMoment(film.store, film.project, moment, 'By ear', { 'slots.left.at': 0.5 });
    expect(await said()).toEqual(['playback.lips-off']);
  });

  it('that go with the song are said beside it, and nothing of what nobody is sure of', async () => {
    await setMoment(film.store, film.project, moment, 'By ear', { 'slots.left.at': 0.5 });
    await hear('one', { ...heard, offset: -0.5 });
    await see('one', { ...heard, offset: -0.5 }, { late: 0.04, sure: 0.9 });
    expect(await said()).toEqual(['playback.on', 'playback.lips']);
    await see('one', { ...heard, offset: -0.5 }, { late: 0.4, sure: 0.3 });
    expect(await said()).toEqual(['playback.on']);
  });
});
