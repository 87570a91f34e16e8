/**
 * Music written by a generator in the styles that music videos are made for, with beats and first beats of bars that
 * are known because they were written: drums, bass, riffs, phrases, fills, rests, tempo drift.
 */
import { writeMidi, type MidiEvent } from 'midi-file';
import { seeded } from '../../src/core/random';

const perQuarter = 480;
export const drum = {
  kick: 36,
  snare: 38,
  rim: 37,
  clap: 39,
  hat: 42,
  openHat: 46,
  ride: 51,
  crash: 49,
  tom: 45,
  shaker: 70,
};
const { kick, snare, rim, clap, hat, openHat, ride, crash, tom, shaker } = drum;

/** What one instrument plays in a bar: letters by step, louder in capitals, `.` for nothing. */
export type Row = { note: number; steps: string };
export type Style = {
  name: string;
  /** beats a minute, from the slowest to the fastest that it is played at */
  bpm: [number, number];
  /** beats a bar, and steps of the patterns a beat */
  meter: number;
  grid: number;
  /** share of a step by which every second one comes late */
  swing?: number;
  /** bars of drums, repeated */
  drums: Row[][];
  /** steps on which the bass plays, and on which chords do */
  bass: string;
  chords: string;
  /** instruments by General MIDI numbers, from 0 */
  sounds: { bass: number; chords: number; lead: number };
  /** steps of the lead's figure, which goes round by itself and need not fit the bar */
  riff?: string;
  /** the share of phrases that have no drums */
  bare?: number;
  /** the drum kit, by its General MIDI program from 0 */
  kit?: number;
  /** how loud drums, bass, chords and lead are beside what is usual */
  mix?: [drums: number, bass: number, chords: number, lead: number];
  /** how loudly some drums are struck beside what is usual, by their notes */
  struck?: Partial<Record<number, number>>;
  /** beats by which bass and chords come before the bar */
  ahead?: number;
  /** a lead that always plays, or only in every second phrase */
  always?: boolean;
};

const every = (steps: string, times: number) => steps.repeat(times);
/** Drums of a bar by their letters. */
const bar = (rows: Record<number, string>): Row[] =>
  Object.entries(rows).map(([note, steps]) => ({ note: Number(note), steps }));

const electric = { bass: 38, chords: 89, lead: 81 };
const rock = { bass: 34, chords: 30, lead: 29 };
const soul = { bass: 33, chords: 4, lead: 61 };
const quiet = { bass: 32, chords: 0, lead: 73 };

export const styles: readonly Style[] = [
  {
    name: 'four to the floor',
    bpm: [118, 132],
    meter: 4,
    grid: 4,
    drums: [bar({ [kick]: every('X...', 4), [clap]: '....X.......X...', [openHat]: every('..x.', 4) })],
    bass: every('..x.', 4),
    chords: 'x..x..x.........',
    sounds: electric,
  },
  {
    name: 'house without a kick at first',
    bpm: [120, 128],
    meter: 4,
    grid: 4,
    drums: [bar({ [kick]: every('X...', 4), [hat]: every('..X.', 4), [shaker]: every('xxxx', 4) })],
    bass: 'x..x..x...x..x..',
    chords: '..x...x...x...x.',
    sounds: electric,
    bare: 0.3,
  },
  {
    name: 'backbeat',
    bpm: [84, 132],
    meter: 4,
    grid: 4,
    drums: [bar({ [kick]: 'X.......X.x.....', [snare]: '....X.......X...', [hat]: every('x.x.', 4) })],
    bass: 'x...x...x...x...',
    chords: 'X...........x...',
    sounds: rock,
  },
  {
    name: 'eighth rock',
    bpm: [100, 160],
    meter: 4,
    grid: 2,
    drums: [
      bar({ [kick]: 'X..xX...', [snare]: '..X...X.', [hat]: 'xxxxxxxx' }),
      bar({ [kick]: 'X..xX..x', [snare]: '..X...X.', [hat]: 'xxxxxxxx' }),
    ],
    bass: 'xxxxxxxx',
    chords: 'xxxxxxxx',
    sounds: rock,
  },
  {
    name: 'half-time feel',
    bpm: [130, 160],
    meter: 4,
    grid: 4,
    drums: [bar({ [kick]: 'X.....x...x.....', [snare]: '........X.......', [hat]: every('x.x.', 4) })],
    bass: 'x.....x.........',
    chords: 'x...............',
    sounds: rock,
  },
  {
    name: 'double-time punk',
    bpm: [150, 200],
    meter: 4,
    grid: 2,
    drums: [bar({ [kick]: 'X.X.X.X.', [snare]: '.X.X.X.X', [hat]: 'xxxxxxxx' })],
    bass: 'xxxxxxxx',
    chords: 'xxxxxxxx',
    sounds: rock,
  },
  {
    name: 'snare on every and, kicks between',
    bpm: [150, 190],
    meter: 4,
    grid: 4,
    drums: [bar({ [kick]: 'x.....X...x...X.', [snare]: every('..X.', 4), [crash]: 'X...............' })],
    bass: every('x.x.', 4),
    chords: 'x.......x.......',
    sounds: rock,
  },
  {
    name: 'blast beat',
    bpm: [90, 120],
    meter: 4,
    grid: 4,
    drums: [bar({ [kick]: every('X.X.', 4), [snare]: every('.X.X', 4), [ride]: every('x.x.', 4) })],
    bass: every('xxxx', 4),
    chords: every('xxxx', 4),
    sounds: rock,
    riff: 'x..x..x.x..x',
  },
  {
    name: 'riff in threes',
    bpm: [95, 150],
    meter: 4,
    grid: 4,
    drums: [bar({ [kick]: 'X..x..x..x..x..x', [snare]: '........X.......', [crash]: every('x...', 4) })],
    bass: 'x..x..x..x..x..x',
    chords: 'x..x..x..x..x..x',
    sounds: rock,
    riff: 'x..',
  },
  {
    name: 'trap',
    bpm: [130, 156],
    meter: 4,
    grid: 4,
    drums: [
      bar({ [kick]: 'X......x..X.....', [snare]: '........X.......', [hat]: every('xxxx', 4) }),
      bar({ [kick]: 'X..x......X..x..', [snare]: '........X.......', [hat]: 'x.xxx.xxx.x.xxxx' }),
    ],
    bass: 'X......x..X.....',
    chords: 'x...............',
    sounds: electric,
  },
  {
    name: 'boom bap',
    bpm: [82, 98],
    meter: 4,
    grid: 4,
    swing: 0.25,
    drums: [bar({ [kick]: 'X..x..x...X.....', [snare]: '....X.......X..x', [hat]: every('x.x.', 4) })],
    bass: 'x..x......x.....',
    chords: 'x.....x.........',
    sounds: soul,
  },
  {
    name: 'dembow',
    bpm: [88, 102],
    meter: 4,
    grid: 4,
    drums: [bar({ [kick]: every('X...', 4), [snare]: '...X..X....X..X.', [hat]: every('x.x.', 4) })],
    bass: 'x..x..x.x..x..x.',
    chords: '..x...x...x...x.',
    sounds: electric,
  },
  {
    name: 'drum and bass',
    bpm: [165, 178],
    meter: 4,
    grid: 4,
    drums: [
      bar({ [kick]: 'X.........X.....', [snare]: '....X.......X...', [ride]: every('x.x.', 4) }),
      bar({ [kick]: 'X..x......X.....', [snare]: '....X..x.x..X...', [ride]: every('x.x.', 4) }),
    ],
    bass: 'x.........x.....',
    chords: 'x...............',
    sounds: electric,
  },
  {
    name: 'two-step',
    bpm: [128, 138],
    meter: 4,
    grid: 4,
    swing: 0.2,
    drums: [bar({ [kick]: 'X.........x.....', [snare]: '....X.......X...', [hat]: '..x..xx...x..xx.' })],
    bass: 'x..x..x...x.....',
    chords: '..x..x....x..x..',
    sounds: electric,
  },
  {
    name: 'funk',
    bpm: [92, 116],
    meter: 4,
    grid: 4,
    drums: [bar({ [kick]: 'X.x...x..xx.....', [snare]: '....X..x.x..X..x', [hat]: every('xxxx', 4) })],
    bass: 'X..x.xx..x.xx.x.',
    chords: '..x.....x..x....',
    sounds: soul,
  },
  {
    name: 'one drop',
    bpm: [70, 92],
    meter: 4,
    grid: 4,
    swing: 0.1,
    drums: [bar({ [kick]: '........X.......', [rim]: '........X.......', [hat]: every('x.x.', 4) })],
    bass: 'x..x..x.....x...',
    chords: every('..X.', 4),
    sounds: soul,
  },
  {
    name: 'off-beat guitar',
    bpm: [130, 170],
    meter: 4,
    grid: 2,
    drums: [bar({ [kick]: 'X...X...', [snare]: '..X...X.', [hat]: '.x.x.x.x' })],
    bass: 'x.x.x.x.',
    chords: '.X.X.X.X',
    sounds: rock,
  },
  {
    name: 'swing',
    bpm: [110, 180],
    meter: 4,
    grid: 3,
    drums: [bar({ [ride]: 'x..x.xx..x.x', [kick]: 'x...........', [hat]: '...X.....X..' })],
    bass: 'x..x..x..x..',
    chords: '..x.....x...',
    sounds: soul,
  },
  {
    name: 'shuffle',
    bpm: [96, 138],
    meter: 4,
    grid: 3,
    drums: [bar({ [kick]: 'X.....X..x..', [snare]: '...X.....X..', [hat]: 'x.xx.xx.xx.x' })],
    bass: 'x.xx.xx.xx.x',
    chords: 'x..x..x..x..',
    sounds: rock,
  },
  {
    name: 'six-eight',
    bpm: [58, 84],
    meter: 2,
    grid: 6,
    drums: [bar({ [kick]: 'X.........x.', [snare]: '......X.....', [hat]: 'x.x.x.x.x.x.' })],
    bass: 'x.....x...x.',
    chords: 'x.x.x.x.x.x.',
    sounds: soul,
  },
  {
    name: 'twelve-eight',
    bpm: [60, 90],
    meter: 4,
    grid: 3,
    drums: [bar({ [kick]: 'X.....X.x...', [snare]: '...X.....X..', [ride]: 'xxxxxxxxxxxx' })],
    bass: 'x..x..x..x..',
    chords: 'xxxxxxxxxxxx',
    sounds: soul,
  },
  {
    name: 'waltz',
    bpm: [88, 168],
    meter: 3,
    grid: 2,
    drums: [bar({ [kick]: 'X.....', [snare]: '..x.x.', [hat]: 'x.x.x.' })],
    bass: 'x.....',
    chords: '..x.x.',
    sounds: quiet,
  },
  {
    name: 'ballad',
    bpm: [60, 84],
    meter: 4,
    grid: 4,
    drums: [bar({ [kick]: 'X.......x.......', [rim]: '....x.......x...', [shaker]: every('x.x.', 4) })],
    bass: 'x.......x.......',
    chords: every('x.x.', 4),
    sounds: quiet,
    bare: 0.4,
  },
  {
    name: 'sung without drums',
    bpm: [72, 124],
    meter: 4,
    grid: 4,
    drums: [bar({ [kick]: 'X.......X.......', [snare]: '....X.......X...' })],
    bass: 'x.......x.......',
    chords: every('x...', 4),
    sounds: quiet,
    bare: 0.75,
  },
  {
    name: 'steady eighths of bass',
    bpm: [84, 118],
    meter: 4,
    grid: 4,
    drums: [bar({ [kick]: 'X.......X.......', [snare]: '....X.......X...', [hat]: every('x.xx', 4) })],
    bass: every('x.x.', 4),
    chords: 'x...............',
    sounds: electric,
    riff: 'x.x.x.',
  },
  {
    name: 'clave',
    bpm: [92, 126],
    meter: 4,
    grid: 4,
    drums: [bar({ [rim]: 'x..x..x...x.x...', [kick]: 'X.....x.X.....x.', [shaker]: every('xxxx', 4) })],
    bass: 'x.....x.x.....x.',
    chords: 'x..x..x...x.x...',
    sounds: soul,
  },
];

/** A song with its beats. */
export type WrittenSong = {
  name: string;
  style: string;
  midi: Uint8Array;
  beats: number[];
  downbeats: number[];
  /** seconds at which what is played becomes something else */
  sections: number[];
};

/** seconds that each song lasts at least */
const lasts = 70;
const roots = [0, 5, 7, 3, 8, 10];
/** how loudly drums are struck: those that carry the beat, and the others */
const struck = { carrying: 105, other: 78 };

type Note = { tick: number; length: number; channel: number; note: number; loud: number };

/**
 * One song of a style; the same for the same number.
 * @param others styles of the same metre and grid that some phrases are played in instead
 */
export function writeSong(
  style: Style,
  number: number,
  others: readonly Style[] = [],
  seconds = lasts,
): WrittenSong {
  const next = seeded(number * 7919 + style.name.length * 104_729 + style.bpm[0]);
  const between = (low: number, high: number) => low + (high - low) * next();
  const bpm = between(...style.bpm);
  const stepTicks = perQuarter / style.grid;
  const barTicks = style.meter * perQuarter;
  const bars = Math.ceil((seconds * bpm) / 60 / style.meter / 8) * 8;
  const drift = next() < 0.3 ? between(0.01, 0.05) : 0;
  const key = 33 + Math.floor(next() * 12);
  const every4 = Array.from({ length: 4 }, () => roots[Math.floor(next() * roots.length)]);
  const sloppy = between(0, 0.012);
  const late = (ticks: number) => Math.round(ticks + (next() - 0.5) * 2 * sloppy * perQuarter * (bpm / 60));
  const notes: Note[] = [];
  const add = (tick: number, length: number, channel: number, note: number, loud: number) =>
    notes.push({
      tick: Math.max(0, late(tick)),
      length,
      channel,
      note,
      loud: Math.min(127, Math.round(loud * between(0.88, 1.08))),
    });
  const changes: number[] = [];
  let playing = '';
  const swing = style.swing ?? 0;
  const swung = (step: number) => step * stepTicks + (step % 2 === 1 ? swing * stepTicks : 0);
  const play = (steps: string, from: number, each: (tick: number, loud: number) => void) =>
    [...steps].forEach((letter, step) => {
      if (letter !== '.') each(from + swung(step), letter === 'X' ? 1 : 0.75);
    });
  const perBar = style.meter * style.grid;
  for (let at = 0; at < bars; at++) {
    const from = at * barTicks;
    const phrase = Math.floor(at / 8);
    // The first phrase and some later ones are sparse.
    const share = seeded(number * 31 + phrase * 17)();
    const manner = [style, ...others][phrase % 2 === 0 ? 0 : Math.floor(share * 997) % (1 + others.length)];
    const [drums, bass, chords, lead] = manner.mix ?? [1, 1, 1, 1];
    const early = from - (at > 0 ? Math.round((manner.ahead ?? 0) * perQuarter) : 0);
    const isBare = share < (style.bare ?? 0.12) || (phrase === 0 && share < 0.5);
    const isStop = at % 8 === 7 && share > 0.85;
    const isFill = at % 8 === 7 && !isStop;
    const plays = `${manner.name} ${[style, ...others].indexOf(manner)} ${isBare} ${manner.always || phrase % 2 === 1}`;
    if (plays !== playing && at > 0) changes.push(at);
    playing = plays;
    const root = key + every4[at % 4];
    if (!isBare && at % 8 === 0) add(from, perQuarter, 9, crash, 112);
    if (!isBare)
      for (const { note, steps } of manner.drums[at % manner.drums.length])
        play(
          isStop ? steps.slice(0, perBar / 2) : isFill ? steps.slice(0, (perBar * 3) / 4) : steps,
          from,
          (tick, loud) =>
            add(
              tick,
              60,
              9,
              note,
              loud *
                drums *
                (manner.struck?.[note] ?? 1) *
                (note === kick || note === snare ? struck.carrying : struck.other),
            ),
        );
    if (!isBare && isFill)
      for (let step = (perBar * 3) / 4; step < perBar; step++)
        add(from + swung(step), 60, 9, step % 2 ? tom : snare, 92);
    if (!isStop)
      play(manner.bass, early, (tick, loud) => add(tick, stepTicks * 0.9, 0, root, 96 * loud * bass));
    play(manner.chords, early, (tick, loud) => {
      for (const interval of [12, 16 - (every4[at % 4] % 2), 19])
        add(tick, stepTicks * 1.8, 1, root + interval, 70 * loud * chords);
    });
    if (manner.always || phrase % 2 === 1) {
      const riff = manner.riff ?? 'x...x.x.x..x....';
      for (let step = 0; step < perBar; step++)
        if (riff[(at * perBar + step) % riff.length] === 'x')
          add(from + swung(step), stepTicks * 0.9, 2, root + 24 + [0, 3, 7, 10][step % 4], 78 * lead);
    }
  }
  // Drift: the tempo wanders once up and once down over the song, a change every bar.
  const tempos = Array.from(
    { length: bars },
    (_, at) => bpm * (1 + drift * Math.sin((2 * Math.PI * at) / bars)),
  );
  const beats: number[] = [];
  const downbeats: number[] = [];
  let time = 0;
  for (const tempo of tempos)
    for (let beat = 0; beat < style.meter; beat++) {
      beats.push(time);
      if (beat === 0) downbeats.push(time);
      time += 60 / tempo;
    }
  return {
    name: `${style.name} ${number}`,
    style: style.name,
    midi: asMidi(notes, tempos, barTicks, style),
    beats,
    downbeats,
    sections: changes.map((at) => downbeats[at]),
  };
}

/** Notes as a MIDI file. */
function asMidi(
  notes: readonly Note[],
  tempos: readonly number[],
  barTicks: number,
  { sounds, kit = 0 }: Style,
): Uint8Array {
  type Timed = { tick: number; order: number; event: MidiEvent };
  const timed: Timed[] = [
    ...tempos.map((tempo, at) => ({
      tick: at * barTicks,
      order: 0,
      event: { deltaTime: 0, type: 'setTempo', microsecondsPerBeat: Math.round(60e6 / tempo) } as MidiEvent,
    })),
    ...Object.entries({ 0: sounds.bass, 1: sounds.chords, 2: sounds.lead, 9: kit }).map(
      ([channel, programNumber]) => ({
        tick: 0,
        order: 1,
        event: {
          deltaTime: 0,
          type: 'programChange',
          channel: Number(channel),
          programNumber,
        } as MidiEvent,
      }),
    ),
    ...notes.flatMap(({ tick, length, channel, note, loud }) => [
      {
        tick,
        order: 3,
        event: { deltaTime: 0, type: 'noteOn', channel, noteNumber: note, velocity: loud } as MidiEvent,
      },
      {
        tick: Math.round(tick + length),
        order: 2,
        event: { deltaTime: 0, type: 'noteOff', channel, noteNumber: note, velocity: 0 } as MidiEvent,
      },
    ]),
  ];
  timed.sort((a, b) => a.tick - b.tick || a.order - b.order);
  let before = 0;
  const track = timed.map(({ tick, event }) => {
    const deltaTime = tick - before;
    before = tick;
    return { ...event, deltaTime };
  });
  track.push({ deltaTime: perQuarter * 2, type: 'endOfTrack', meta: true } as MidiEvent);
  return Uint8Array.from(
    writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: perQuarter }, tracks: [track] }),
  );
}

/** Songs of every style, as many of each as are asked for. */
export function* writtenSongs(each: number): Generator<WrittenSong> {
  for (const style of styles) for (let number = 1; number <= each; number++) yield writeSong(style, number);
}
