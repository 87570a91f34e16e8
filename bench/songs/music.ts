/** Music with known beats: Debian's openttd-openmsx songs, rendered by fluidsynth with timgm6mb-soundfont. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, unlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { readWritten } from './written';

export const songs = '/usr/share/games/openttd/baseset/openmsx';
const instruments = '/usr/share/sounds/sf2/TimGM6mb.sf2';
const others = '/usr/share/sounds/sf2/FluidR3_GM.sf2';
/** Their written tempo is not their music's. */
export const leftOut = ['chemistry_lab.mid', 'tttheme2.mid'];
export const cache = '.cache/music';
export const sampleRate = 44100;

export type KnownSong = { name: string; samples: Float32Array; beats: number[] };

/** What becomes of music on its way to a listener, as filters of ffmpeg; one of them also through a codec. */
const masters: readonly string[] = [
  'anull',
  'acompressor=threshold=0.08:ratio=6:attack=5:release=120:makeup=4,alimiter=limit=0.9',
  'aecho=0.8:0.6:31|47|83:0.35|0.28|0.2',
  'acompressor=threshold=0.1:ratio=3:makeup=2,lowpass=f=9000',
];

/** Mono samples of a written song: other instruments, another mastering and a codec by its number. */
export function performed(midi: Uint8Array, name: string, number: number): Float32Array {
  mkdirSync(cache, { recursive: true });
  const path = (ending: string) => join(cache, `${name.replaceAll(' ', '-')}.${ending}`);
  if (!existsSync(path('mp3'))) {
    writeFileSync(path('mid'), midi);
    const font = number % 2 && existsSync(others) ? others : instruments;
    execFileSync('fluidsynth', ['-niq', '-F', path('wav'), '-r', String(sampleRate), font, path('mid')]);
    const master = masters[number % masters.length];
    const codec = ['-c:a', 'libmp3lame', '-b:a', number % 4 === 3 ? '96k' : '256k'];
    execFileSync('ffmpeg', [
      '-loglevel',
      'error',
      '-y',
      '-i',
      path('wav'),
      '-af',
      master,
      ...codec,
      path('mp3'),
    ]);
    for (const ending of ['wav', 'mid']) unlinkSync(path(ending));
  }
  return samplesOf(path('mp3'), 90);
}

/** Mono samples of a rendered song, at most `seconds` of them. */
function rendered(path: string, name: string, seconds: number): Float32Array {
  mkdirSync(cache, { recursive: true });
  const wav = join(cache, `${name}.wav`);
  if (!existsSync(wav))
    execFileSync('fluidsynth', ['-niq', '-F', wav, '-r', String(sampleRate), instruments, path]);
  return samplesOf(wav, seconds);
}

/** Mono samples of a file, at most so many seconds of them. */
export function samplesOf(path: string, seconds: number): Float32Array {
  const rate = ['-ac', '1', '-ar', String(sampleRate)];
  const args = ['-loglevel', 'error', '-i', path, '-t', String(seconds), ...rate, '-f', 'f32le', '-'];
  const bytes = execFileSync('ffmpeg', args, { maxBuffer: 2 ** 31 - 1 });
  return new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
}

/** The first 90 s of each song whose written tempo is its music's. */
export function* knownSongs(): Generator<KnownSong> {
  if (!existsSync(songs) || !existsSync(instruments))
    throw new Error('Install the Debian packages openttd-openmsx, fluidsynth and timgm6mb-soundfont first.');
  for (const file of readdirSync(songs).filter((one) => one.endsWith('.mid') && !leftOut.includes(one))) {
    const path = join(songs, file);
    const samples = rendered(path, file, 90);
    const name = file.replace('.mid', '');
    const { beats } = readWritten(Uint8Array.from(readFileSync(path)), samples.length / sampleRate);
    yield { name, samples, beats };
  }
}

const settling = 5;

/**
 * F-measure, first 5 s left out.
 * @param window seconds by which a time may be off; ±70 ms for beats
 * @see Dixon 2007; MIREX audio beat tracking
 */
export function fMeasure(found: readonly number[], truth: readonly number[], window = 0.07): number {
  const a = found.filter((time) => time >= settling);
  const b = truth.filter((time) => time >= settling);
  let hits = 0;
  let from = 0;
  for (const time of b) {
    while (from < a.length && a[from] < time - window) from++;
    if (from < a.length && a[from] <= time + window) {
      hits++;
      from++;
    }
  }
  return a.length + b.length > 0 ? (2 * hits) / (a.length + b.length) : 0;
}

/** The best F-measure at the written level, at its double and at its half. */
export function fAtAnyLevel(found: readonly number[], truth: readonly number[]): number {
  const double = truth.flatMap((time, at) =>
    at + 1 < truth.length ? [time, (time + truth[at + 1]) / 2] : [time],
  );
  const halves = [0, 1].map((phase) => truth.filter((_, at) => at % 2 === phase));
  return Math.max(...[truth, double, ...halves].map((level) => fMeasure(found, level)));
}
