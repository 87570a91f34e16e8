/**
 * All music with known beats that the tracker is measured on, a third of it kept aside: of that only means are said,
 * and nothing is learned from it. Needs Debian's openttd-openmsx, simutrans-data, planetblupi-music-midi,
 * hydrogen-data, hydrogen, mma, fluidsynth, timgm6mb-soundfont, fluid-soundfont-gm and ffmpeg.
 */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { accompanied } from './accompanied';
import { unlearned } from './loose';
import { cache, knownSongs, performed, sampleRate, samplesOf } from './music';
import { writtenSongs } from './styles';
import { readWritten } from './written';

export type Known = {
  name: string;
  /** songs of a group are said together */
  group: string;
  /** where it comes from */
  source: 'written' | 'backing' | 'journeys' | 'islands' | 'machines' | 'openmsx';
  aside: boolean;
  samples: Float32Array;
  beats: number[];
  downbeats: number[] | null;
  /** where sections begin, where that is known */
  sections?: number[];
};

const seconds = 90;

/** Songs of the generator: whole styles are kept aside. */
function* written(each: number): Generator<Known> {
  for (const { name, style, midi, beats, downbeats, sections } of writtenSongs(each)) {
    const samples = performed(midi, name, Number(name.split(' ').at(-1)));
    const aside = unlearned.includes(style);
    yield { name, group: style, source: 'written', aside, samples, beats, downbeats, sections };
  }
}

/** Backing tracks; those of the styles that are kept aside, since the others were learned from. */
function* backing(count: number): Generator<Known> {
  for (let number = 2000, found = 0; found < count; number++) {
    const song = accompanied(number, 70);
    if (!song?.aside) continue;
    found++;
    const samples = performed(song.midi, `backing ${number}`, number);
    const { beats } = readWritten(song.midi, seconds);
    const downbeats = beats.filter((_, index) => index % song.beatsPerBar === 0);
    yield {
      name: song.name,
      group: 'backing tracks',
      source: 'backing',
      aside: true,
      samples,
      beats,
      downbeats,
    };
  }
}

/** MIDI files of a folder whose signature and tempo are those of their music. */
function* files(
  folder: string,
  source: 'journeys' | 'islands',
  aside: (index: number) => boolean,
): Generator<Known> {
  if (!existsSync(folder)) throw new Error('Install the Debian packages that known.ts names first.');
  const names = readdirSync(folder)
    .filter((name) => name.endsWith('.mid'))
    .sort();
  for (const [index, name] of names.entries()) {
    const midi = Uint8Array.from(readFileSync(join(folder, name)));
    const { beats, inQuarters, onGrid } = readWritten(midi, seconds);
    if (!inQuarters || onGrid < 0.6) continue;
    // What was learned from in other renderings says nothing here.
    if (!aside(index)) continue;
    const samples = performed(midi, `${source} ${name}`, index);
    yield { name, group: source, source, aside: true, samples, beats, downbeats: null };
  }
}

const drumSongs = '/usr/share/hydrogen/data/demo_songs';
/** A drum machine's own songs, played by its own kits. */
function* machines(): Generator<Known> {
  if (!existsSync(drumSongs))
    throw new Error('Install the Debian packages hydrogen and hydrogen-data first.');
  mkdirSync(cache, { recursive: true });
  const names = readdirSync(drumSongs)
    .filter((name) => name.endsWith('.h2song'))
    .sort();
  for (const [index, name] of names.entries()) {
    const wav = join(cache, `${name}.wav`);
    const path = join(drumSongs, name);
    if (!existsSync(wav))
      execFileSync('h2cli', ['-d', 'auto', '-s', path, '-o', wav, '-r', String(sampleRate), '-b', '16'], {
        stdio: 'ignore',
      });
    const bpm = Number(/<bpm>([\d.]+)/.exec(readFileSync(path, 'utf8'))?.[1]);
    const samples = samplesOf(wav, seconds);
    const beats = Array.from(
      { length: Math.floor((samples.length / sampleRate / 60) * bpm) },
      (_, i) => (60 * i) / bpm,
    );
    yield {
      name,
      group: 'drum machine',
      source: 'machines',
      aside: index % 3 === 0,
      samples,
      beats,
      downbeats: null,
    };
  }
}

/** All known music. @param each songs of each style of the generator */
export function* knownMusic(each: number): Generator<Known> {
  yield* written(each);
  yield* backing(each * 10);
  yield* files('/usr/share/games/simutrans/music', 'journeys', (index) => index % 3 === 0);
  yield* files('/usr/share/planetblupi/music', 'islands', () => true);
  yield* machines();
  let index = 0;
  for (const song of knownSongs())
    yield { ...song, group: 'openmsx', source: 'openmsx', aside: index++ % 3 === 0, downbeats: null };
}
