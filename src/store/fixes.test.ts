import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import type { TakeMatch } from '@/core/footage/colour-match';
import type { SideShadow } from '@/core/model/measures';
import type { Take } from '@/core/model/records';
import type { Finding, FixCommand } from '@/core/finding/finding';
import type { MomentKind } from '@/core/recipes/films';
import { fixNames, sayFinding } from '@/core/finding/say';
import { regularGrid } from '@/core/time/grid';
import { applyFix } from './commands/fix';
import { createMoment, setMoment } from './commands/moments';
import { addMoment, addSetup, setDay, setPart } from './commands/plan';
import { setProject } from './commands/projects';
import { setTake } from './commands/takes';
import { undo } from './change';
import { findingsOf } from './findings';
import { needsOf } from './needs';
import { worksOf } from './material';
import { playbackKey } from './snapshot';
import { planOf } from './plan';
import { repeating, standing, taken, TestFilm } from './__tests__/film';

let film: TestFilm;
beforeEach(async () => {
  film = await TestFilm.begin();
});

/** A film that stands, with one finding that offers a fix, and what has to be found once it is done. */
type Case = {
  raise: () => Promise<unknown>;
  code: string;
  command: FixCommand;
  /** what the workers answer once the fix has made what they knew out of date */
  again?: () => Promise<unknown>;
  /** beginnings of what has to be found of the same thing then, with what is left; none where it is gone */
  left: RegExp[];
};

/** The same tempo, half a beat later. */
const late = { ...regularGrid(120, 0.25, 60), downbeats: [0.25], bpm: 120 };

const relit = (after: number, drift = 0): TakeMatch => ({
  slope: [1.2, 1.2, 1.2],
  offset: [0, 0, 0],
  power: [1, 1, 1],
  saturation: 1,
  stops: -0.34,
  drift,
  light: [{ time: 0, stops: -0.34 }],
  before: 5.1,
  after,
});

async function cloned(one: Parameters<TestFilm['compared']>[1], measure = taken()): Promise<string> {
  const moment = await film.wholeClone();
  await film.sung();
  for (const id of ['plate', 'one', 'two']) await film.measured(id, id === 'one' ? measure : taken());
  await film.compared('one', one);
  await film.compared('two');
  return moment;
}
const set = (how: Parameters<typeof setTake>[4]) => setTake(film.store, film.project, 'one', 'Set', how);
const inPart = (at: number, end: number) => async () => {
  const moment = await cloned({});
  await setMoment(film.store, film.project, moment, 'In', { 'slots.left.at': at, end });
};
/** Takes that repeat the move of their plate, the first of them so much later, and up to 2.4 px beside it. */
async function passed(late: number): Promise<string> {
  const moment = await cloned({});
  await setTake(film.store, film.project, 'plate', 'Moves', { moves: true });
  await film.compared('one', { repeat: repeating(late, 100), path: standing(2.4), left: 0.1 });
  await film.compared('two', { repeat: repeating(0, 100) });
  return moment;
}
/** A clone whose join lets so much of the left one's hard shadow go unseen. */
async function joined(share: number): Promise<void> {
  const snapshot = await film.read();
  const [built] = snapshot.built;
  const [{ key }] = worksOf(snapshot, built);
  const lost = [{ frame: 60, share }];
  const seam = {
    rings: [],
    shares: [0.5, 0.5] as [number, number],
    losses: [],
    borders: [null, null] as [null, null],
    shadows: [{ edge: 0.01, covers: 0.08, falls: 'right' as const, lost }, null] as [SideShadow, null],
    visible: [],
    moves: [],
    contact: null,
    crossing: [],
    found: [true, true] as [boolean, boolean],
  };
  await film.keep(key, built.id, { method: 'seam-7', seam });
}
/** A patch that is held over a running take, as grainy and so much sharper, as the moment's look has it. */
async function patched(held: 'evened' | 'left', codes: number, sharper: number): Promise<void> {
  await cloned({});
  const swap = await addMoment(film.store, film.project, 'cover-swap', 8, 16);
  const patch = [0.2, 0.6].flatMap((x) => [0.3, 0.7].map((y) => [x, y]));
  await setMoment(film.store, film.project, swap, 'What is covered', {
    lands: 10,
    'settings.patch': patch,
    'slots.swap.take': 'one',
    'look.held': held,
  });
  const snapshot = await film.read();
  const grain = { across: 1920, luma: Array<number>(8).fill(codes), chroma: 1, soft: 0.5 };
  for (const moment of snapshot.built)
    for (const { key, name } of worksOf(snapshot, moment))
      if (name.startsWith('grain-')) await film.keep(key, moment.id, { method: 'grain-1', grain });
      else if (name.startsWith('softness-'))
        await film.keep(key, moment.id, { method: 'softness-1', softness: { sharper, across: 1920 } });
}
/** A plate in which half of the picture changes while it runs. */
async function movingPlate(): Promise<void> {
  await cloned({});
  await film.measured('plate', taken({ motion: { share: 0.5, across: 0.5 } }));
}
/** A moment of a kind over eight beats whose movement takes longer than it has. */
async function cramped(kind: MomentKind, settings: Record<string, number>): Promise<void> {
  await film.addSong();
  const moment = await addMoment(film.store, film.project, kind, 8, 16);
  const fields = Object.entries(settings).map(([name, value]) => [`settings.${name}`, value]);
  await setMoment(film.store, film.project, moment, 'Longer', {
    lands: 15,
    ...Object.fromEntries(fields),
  });
}
/** A reveal behind something that was measured to fall elsewhere than its edge. */
async function falling(): Promise<void> {
  const moment = await film.wholeClone();
  await film.sung();
  await film.measured('one');
  const reveal = await addMoment(film.store, film.project, 'masked-reveal', 8, 16);
  await setMoment(film.store, film.project, reveal, 'What falls', {
    lands: 10,
    'settings.edge': 'falling',
    'slots.fall.take': 'one',
  });
  const snapshot = await film.read();
  const built = snapshot.built.find(({ id }) => id === reveal);
  if (!built || !moment) throw new Error('There is no reveal.');
  const [{ key }] = worksOf(snapshot, built);
  await film.keep(key, reveal, { method: 'fall-1', fall: { begins: 1.4, lasts: 0.5, off: 0.01 } });
}
async function planned(changes: Record<string, unknown>, day = {}): Promise<void> {
  await film.addSong();
  await createMoment(film.store, film.project, 0, 8);
  const setup = await addSetup(film.store, film.project);
  await setPart(film.store, film.project, setup, 'Setup', changes);
  await setDay(film.store, film.project, day);
}

const untagged = taken({ colours: { matrix: 'bt601', fullRange: false, assumed: true } });
const other = { media: 'm-one', matrix: 'bt709' } as const;

const cases: Record<string, Case> = {
  'a take that moved': {
    raise: () => cloned({ path: standing(2.4), left: 0.1 }),
    code: 'take.moved',
    command: 'steadyTake',
    left: [/^fine: one moved 2.4 px .* is steadied, which leaves 0\.10 px \(allowed 0\.3 px\)/],
  },
  'a take that steadying does not mend': {
    raise: () => cloned({ path: standing(2.4), left: 2.7 }),
    code: 'take.moved',
    command: 'steadyTake',
    left: [/^fix: one moved 2.4 px .* steadied, 2\.70 px is left \(allowed 0\.3 px\)\. The join will show/],
  },
  'a plate whose camera moves': {
    raise: movingPlate,
    code: 'take.plate-moves',
    command: 'repeatMove',
    again: async () => {
      // Both takes are held against it in another way, and are asked for anew.
      const needs = needsOf(await film.read());
      expect(needs.map(({ kind }) => kind)).toEqual(['compare', 'compare']);
      for (const id of ['one', 'two']) await film.compared(id, { repeat: repeating(0.1, 10) });
    },
    left: [
      /^fine: The camera of plate moves, and takes that repeat its move/,
      /^fine: one repeats the plate's move 0\.10 s later/,
    ],
  },
  'a plate whose camera stands after all': {
    raise: async () => {
      await movingPlate();
      await setTake(film.store, film.project, 'plate', 'Moves', { moves: true });
    },
    code: 'take.moves',
    command: 'standStill',
    left: [/^fix: 50 % of plate changes while it runs/],
  },
  'a pass beside the first one': {
    raise: () => passed(0),
    code: 'take.repeats-beside',
    command: 'steadyTake',
    left: [/^fine: one repeats the plate's move, up to 2\.4 px beside it.* which leaves 0\.10 px/],
  },
  'a pass out of step': {
    raise: async () => {
      const moment = await passed(-0.4);
      await set({ steady: true });
      await setTake(film.store, film.project, 'two', 'Set', { steady: true });
      await setMoment(film.store, film.project, moment, 'In', { 'slots.right.at': 4 });
    },
    code: 'repeat.out-of-step',
    command: 'layInStep',
    left: [/^fine: The camera moves, and every take repeats its move/],
  },
  'a shadow that the join cuts': {
    raise: async () => {
      await cloned({});
      await joined(0.4);
    },
    code: 'clone.shadow-cut',
    command: 'hideShadows',
    again: () => joined(0.98),
    left: [/^fine: In the left take a hard shadow .* It does not show\./],
  },
  'a held picture that was left as still as it is': {
    raise: () => patched('left', 2.4, 0),
    code: 'grain.stands',
    command: 'evenHeld',
    left: [/^fine: .* is held beside what runs: grain like that of .*, 2\.4 codes of 255, is laid over it/],
  },
  'a held picture that has the grain of what runs': {
    raise: () => patched('evened', 2.4, 0),
    code: 'grain.evened',
    command: 'leaveHeld',
    left: [/^watch: .* is held while the grain of .* runs beside it, 2\.4 codes of 255/],
  },
  'a held picture that was left sharper than what runs': {
    raise: () => patched('left', 0, 1.5),
    code: 'softness.sharper',
    command: 'evenHeld',
    left: [/^fine: .* was sharper: softened by 1\.5 px of that take, it is as sharp\./],
  },
  'a shadow that is hidden in part': {
    raise: async () => {
      const moment = await cloned({});
      await setMoment(film.store, film.project, moment, 'Hidden', { 'settings.shadows': 'hidden' });
      await joined(0.6);
    },
    code: 'clone.shadow-left',
    command: 'keepShadows',
    again: () => joined(0.04),
    left: [/^fine: In the left take a hard shadow .* It shows whole\./],
  },
  'a take that is steadied': {
    raise: async () => {
      await cloned({ path: standing(2.4), left: 0.1 });
      await set({ steady: true });
    },
    code: 'take.steadied',
    command: 'unsteadyTake',
    left: [/^stop: one moved 2.4 px .* The join will show/],
  },
  'a take in another light': {
    raise: () => cloned({ colour: relit(0.6) }),
    code: 'take.light',
    command: 'matchTake',
    left: [/^fine: one was 0\.34 stop .* matched to the plate, which leaves ΔE 0\.6/],
  },
  'a take in a light that changes': {
    raise: () => cloned({ colour: relit(3.4, 0.5) }),
    code: 'take.light',
    command: 'matchTake',
    left: [/^fix: one was 0\.34 stop .* ΔE 3\.4 is left .* changes by 0\.50 stop/],
  },
  'a take that is matched': {
    raise: async () => {
      await cloned({ colour: relit(0.6) });
      await set({ match: true });
    },
    code: 'take.matched',
    command: 'unmatchTake',
    left: [/^fix: one is 0\.34 stop .* The join will show/],
  },
  'colours that a file does not tell': {
    raise: () => cloned({ colour: relit(3) }, untagged),
    code: 'take.colours-assumed',
    command: 'readColours',
    again: async () => {
      // What was measured of the other colours is out of date: it is asked for anew, then held against the plate anew.
      const kinds = async () => needsOf(await film.read()).map(({ kind }) => kind);
      expect(await kinds()).toEqual(['take']);
      await film.measured('one', taken({ colours: { ...untagged.colours, matrix: 'bt709' } }), true, other);
      expect(await kinds()).toEqual(['compare']);
      await film.compared('one', { colour: { ...relit(0.4), stops: 0.02, before: 0.7 } }, other);
    },
    left: [/^fine: one does not say .* as chosen/, /^fine: one has the plate's light: .* ΔE 0\.7/],
  },
  'an in-point too late': {
    raise: inPart(8, 8),
    code: 'clone.short',
    command: 'startEarlier',
    left: [],
  },
  'a take too short from its first picture on': {
    raise: inPart(2, 40),
    code: 'clone.short',
    command: 'startEarlier',
    left: [/^stop: The left take has 240 frames .* or choose a longer take\.$/],
  },
  'somebody who stands outside an upright frame': {
    raise: async () => {
      // From 63 to 73 % of the width; upright the middle third shows.
      const covered = Uint8Array.from({ length: 48 * 27 }, (_, cell) =>
        cell % 48 >= 30 && cell % 48 < 35 ? 1 : 0,
      );
      await cloned({ covered });
      await setProject(film.store, film.project, { width: 720, height: 1280 });
    },
    code: 'frame.cuts',
    command: 'frameMoment',
    left: [],
  },
  'a whip with too little room': {
    raise: () => cramped('built-whip', { frames: 60 }),
    code: 'whip.cramped',
    command: 'fitMoment',
    left: [/^fine: It cuts on|^fine: .*cut/],
  },
  'a change that would end after its moment': {
    raise: () => cramped('masked-reveal', { frames: 100 }),
    code: 'reveal.cramped',
    command: 'fitMoment',
    left: [],
  },
  'an edge that does not lie behind what falls': {
    raise: falling,
    code: 'reveal.fall-differs',
    command: 'followFall',
    left: [],
  },
  'a patch that would go after its moment': {
    raise: () => cramped('cover-swap', { frames: 100 }),
    code: 'cover.cramped',
    command: 'fitMoment',
    left: [],
  },
  'pieces that come from too far': {
    raise: () => cramped('freeze-stack', { flight: 90 }),
    code: 'freeze.cramped',
    command: 'fitMoment',
    left: [],
  },
  'marks that are not sharp': {
    raise: () => planned({ aperture: 1.4, focus: 1 }),
    code: 'plan.unsharp',
    command: 'setSetup',
    left: [/^fine: .* sharp/],
  },
  'a shutter longer than a picture': {
    raise: () => planned({ shutter: 20 }),
    code: 'plan.shutter-long',
    command: 'setSetup',
    left: [],
  },
  'lamps that flicker': {
    raise: () => planned({ shutter: 50, place: 'inside' }, { mains: 60 }),
    code: 'plan.flicker',
    command: 'setSetup',
    left: [],
  },
  'a rate too low for its speed': {
    raise: async () => {
      await planned({});
      await addMoment(film.store, film.project, 'speed-ramp', 8, 16);
    },
    code: 'plan.too-slow',
    command: 'setSetup',
    left: [/^fine: .* play the song at 250 % on the set/],
  },
  'beats that are not sure, with another reading': {
    raise: async () => {
      await film.addSong({ confidence: 0.3 });
      await film.sung({}, late);
    },
    code: 'song.unsure',
    command: 'readBeatsOtherwise',
    left: [],
  },
  'a story that nobody tells': {
    raise: () => planned({}),
    code: 'style.story',
    command: 'askedStory',
    left: [],
  },
  'a clean plate that none of its takes fits': {
    raise: async () => {
      await cloned({ agreement: 0.1 });
      await film.compared('two', { agreement: 0.1 });
    },
    code: 'take.plate-alone',
    command: 'leaveOut',
    left: [/^fix: There is no clean plate/, /^fix: No clean plate is chosen/],
  },
  'takes without a clean plate': {
    raise: async () => {
      await film.addTake('one', 'left', 1);
      await film.measured('one');
    },
    code: 'setup.no-plate',
    command: 'buildPlate',
    left: [],
  },
  'a take that does not run with the song it was filmed to': {
    raise: async () => {
      await cloned({});
      const playback = { offset: -0.5, drift: 0, confidence: 0.9 };
      const { takes } = await film.read();
      const one = takes.find(({ id }) => id === 'one') as Take;
      await film.keep(playbackKey(one, 'song'), one.media, { method: 'playback', playback, beep: null });
    },
    code: 'playback.off',
    command: 'layOnSong',
    left: [/^fine: The song is heard in one/],
  },
  'a file that cannot be read': {
    raise: async () => {
      const problem = { code: 'truncated', message: 'This file breaks off. Copy it again.' };
      await film.addMedia('broken', { problem });
    },
    code: 'truncated',
    command: 'dropMedia',
    left: [],
  },
};

const named = { takes: { one: 'one', two: 'two', plate: 'plate' }, grid: null };
const told = (finding: Finding) => `${finding.severity}: ${sayFinding(finding, named).text}`;
/** Everything that stands in Song, Match, Build and Plan. */
async function all(): Promise<Finding[]> {
  const snapshot = await film.read();
  const plan = planOf(snapshot);
  const { song, match, build } = findingsOf(snapshot, plan);
  return [...song, ...match, ...build, ...plan.findings];
}

describe('after a fix', () => {
  it('of every kind that is offered', () => {
    const tried = new Set(Object.values(cases).map(({ command }) => command));
    expect([...tried].sort()).toEqual(Object.keys(fixNames).sort());
  });

  for (const [title, { raise, code, command, again, left }] of Object.entries(cases))
    it(`what is left of ${title} is found anew, and undo brings it back`, async () => {
      await raise();
      const before = await all();
      const found = before.find((finding) => finding.code === code);
      if (!found?.fix) throw new Error(`${code} with a fix is not among ${before.map((one) => one.code)}.`);
      expect(found.fix.command).toBe(command);
      await applyFix(film.store, film.project, found.fix);
      await again?.();
      const after = await all();
      expect(after.map(told)).not.toContain(told(found));
      for (const sentence of left) expect(after.map(told)).toContainEqual(expect.stringMatching(sentence));
      // Nothing else is made worse by it.
      const open = (list: Finding[]) =>
        list.filter(({ severity }) => severity === 'stop' || severity === 'fix');
      const known = [...open(before).map(told), told(found)];
      const news = open(after)
        .map(told)
        .filter((one) => !known.includes(one));
      expect(news.filter((one) => !left.some((sentence) => sentence.test(one)))).toEqual([]);
      if (command === 'dropMedia') return;
      await undo(film.store, film.project);
      expect((await all()).map(told)).toContain(told(found));
    });
});
