/**
 * Plays the music that the model of beats learns from, and keeps its sound with its beats: `npm run learn:songs`.
 * What is kept aside (bench/songs/known.ts) is not among it. Needs Debian's fluidsynth, mma, simutrans-data, ffmpeg and
 * some sound fonts.
 */
import { execFileSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seeded } from '../../src/core/random';
import { slowDown } from '../../src/core/song/spectrum';
import { accompanied } from '../songs/accompanied';
import { looseSong } from '../songs/loose';
import { leftOut, songs } from '../songs/music';
import { readWritten, replayed } from '../songs/written';

const folder = process.env.LEARN ?? '.cache/learn';
const seconds = 50;
const fonts = [
  '/usr/share/sounds/sf2/TimGM6mb.sf2',
  '/usr/share/sounds/sf2/TimGM6mb.sf2',
  '/usr/share/sounds/sf2/TimGM6mb.sf2',
  '/usr/share/sounds/sf2/FluidR3_GM.sf2',
  '/usr/share/sounds/sf2/OPL-3_FM_128M.sf2',
].filter((path) => existsSync(path));
const masters = [
  'anull',
  'anull',
  'acompressor=threshold=0.06:ratio=8:attack=3:release=120:makeup=4,alimiter=limit=0.9',
  'acompressor=threshold=0.1:ratio=4:attack=20:release=80:makeup=3,alimiter=limit=0.8',
  'aecho=0.8:0.6:31|47|83:0.35|0.28|0.2',
  'lowpass=f=7000',
  'highpass=f=120,treble=g=4',
  'bass=g=6,alimiter=limit=0.9',
  'bass=g=-6,treble=g=6',
  'highpass=f=250,lowpass=f=6000,acompressor=threshold=0.1:ratio=6:makeup=3',
];

/** Beats, and which of them begin a bar where that is known. */
type Known = { midi: Uint8Array; beats: number[]; downbeats: number[] | null; from: number };

function rendered({ midi, from }: Known, number: number): Int16Array {
  const next = seeded(number * 3571 + 3);
  const pick = <T>(all: readonly T[]): T => all[Math.floor(next() * all.length)];
  const place = mkdtempSync(join(tmpdir(), 'learn-'));
  const path = (name: string) => join(place, name);
  try {
    writeFileSync(path('song.mid'), midi);
    const room = next() < 0.4 ? [] : ['-R', '0', '-C', '0'];
    execFileSync(
      'fluidsynth',
      ['-niq', ...room, '-g', '0.6', '-F', path('song.wav'), '-r', '44100', pick(fonts), path('song.mid')],
      {
        stdio: 'ignore',
      },
    );
    const filter = `${pick(masters)},volume=${(0.3 + 0.7 * next()).toFixed(2)}`;
    const part = ['-ss', String(from), '-t', String(seconds)];
    const sound = (input: string, before: string[], after: string[]) =>
      execFileSync('ffmpeg', ['-loglevel', 'error', '-y', ...before, '-i', input, ...after], {
        maxBuffer: 2 ** 30,
      });
    const raw = ['-ac', '1', '-ar', '44100', '-f', 's16le', '-'];
    let bytes: Buffer;
    if (next() < 0.2) {
      sound(path('song.wav'), part, [
        '-af',
        filter,
        '-c:a',
        'libmp3lame',
        '-b:a',
        pick(['64k', '96k', '128k']),
        path('song.mp3'),
      ]);
      bytes = sound(path('song.mp3'), [], raw);
    } else bytes = sound(path('song.wav'), part, ['-af', filter, ...raw]);
    const samples = new Int16Array(bytes.buffer, bytes.byteOffset, bytes.length >> 1);
    return Int16Array.from(slowDown({ data: Float32Array.from(samples), rate: 44100 }, 22050).data);
  } finally {
    rmSync(place, { recursive: true });
  }
}

/** Times from a second on, counted from it. */
const after = (times: readonly number[], from: number) =>
  times.filter((time) => time >= from && time < from + seconds).map((time) => time - from);

function loose(number: number): Known {
  const { midi, beats, downbeats } = looseSong(number, seconds);
  return { midi, from: 0, beats, downbeats };
}

function backing(number: number): Known | null {
  const song = accompanied(number, seconds + 10);
  if (!song || song.aside) return null;
  const { beats } = readWritten(song.midi, seconds + 10);
  const from = 10 * seeded(number)();
  const downbeats = beats.filter((_, index) => index % song.beatsPerBar === 0);
  return { midi: song.midi, from, beats: after(beats, from), downbeats: after(downbeats, from) };
}

/** Files of other people's music, in the order of their names; every third is kept aside (known.ts). */
const files = (folder: string) => () =>
  readdirSync(folder)
    .filter((name) => name.endsWith('.mid') && !leftOut.includes(name))
    .sort()
    .map((name) => join(folder, name));

/** A file of other people's music at another speed, on another kit, from somewhere in it. */
const played =
  (all: () => string[]) =>
  (number: number): Known | null => {
    const paths = all();
    const index = number % paths.length;
    if (index % 3 === 0) return null;
    const next = seeded(number * 97 + 1);
    const midi = Uint8Array.from(readFileSync(paths[index]));
    const written = readWritten(midi, 60);
    if (!written.inQuarters || written.onGrid < 0.6) return null;
    const from = 40 * next();
    const kit = next() < 0.4 ? [0, 8, 16, 24, 25, 32][Math.floor(6 * next())] : null;
    const faster = 0.88 + 0.26 * next();
    const heard = readWritten(midi, faster * (from + seconds)).beats.length;
    const changed = replayed(midi, faster, kit, heard);
    return {
      midi: changed,
      from,
      beats: after(readWritten(changed, from + seconds).beats, from),
      downbeats: null,
    };
  };

const makers: Record<string, (number: number) => Known | null> = {
  loose,
  backing,
  journey: played(files('/usr/share/games/simutrans/music')),
  transport: played(files(songs)),
};
/** how many numbers of each kind are tried; those that are kept aside make no song */
const tried: Record<string, number> = { loose: 900, backing: 1000, journey: 160, transport: 135 };
/** one kind, or all of them */
const kinds = process.argv[2] ? [process.argv[2]] : Object.keys(makers);
mkdirSync(folder, { recursive: true });
for (const kind of kinds)
  for (let number = 0; number < tried[kind]; number++) {
    const name = join(folder, `${kind}-${number}`);
    if (existsSync(`${name}.json`)) continue;
    const known = makers[kind](number);
    if (!known) continue;
    const sound = rendered(known, number + kind.length * 100_003);
    if (sound.length < 20 * 22050) continue;
    writeFileSync(`${name}.s16`, new Uint8Array(sound.buffer));
    writeFileSync(`${name}.json`, JSON.stringify({ beats: known.beats, downbeats: known.downbeats }));
  }
