/**
 * Backing tracks in a few hundred more styles, written by Debian's package mma from chords: drums, bass, chords and
 * fills as other people wrote them. A third of its style files is kept aside.
 */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seeded } from '../../src/core/random';

const library = '/usr/share/mma/lib';

/** One file of styles that go together. */
type Family = { file: string; beatsPerBar: 3 | 4; mains: string[]; fills: string[]; intros: string[] };

/** Style files in three or four beats a bar, in an order that stays. */
function families(): Family[] {
  if (!existsSync(library)) throw new Error('Install the Debian package mma first.');
  const files = ['stdlib', 'casio', 'yamaha', 'kara', 'pflib', 'alexis', 'zoom'].flatMap((folder) =>
    readdirSync(join(library, folder))
      .filter((name) => name.endsWith('.mma'))
      .map((name) => join(folder, name)),
  );
  return files.sort().flatMap((file) => {
    const text = readFileSync(join(library, file), 'latin1');
    const times = [...text.matchAll(/^\s*Time\s+(\d+)/gim)].map(([, beats]) => Number(beats));
    const names = [...text.matchAll(/^\s*DefGroove\s+(\S+)/gim)].map(([, name]) => name);
    const beats = times[0] ?? 4;
    const said = /^\s*TimeSig\s+(\d+)[ /]+(\d+)/im.exec(text);
    const odd = said && !['4 4', '3 4', '12 8', '2 4'].includes(`${said[1]} ${said[2]}`);
    if (
      (beats !== 3 && beats !== 4) ||
      odd ||
      times.some((one) => one !== beats) ||
      /metronome|none/.test(file)
    )
      return [];
    const mains = names.filter((name) => !/intro|end|fill|break|metronome/i.test(name));
    const of = (word: RegExp) => names.filter((name) => word.test(name));
    return mains.length > 0
      ? [{ file, beatsPerBar: beats, mains, fills: of(/fill/i), intros: of(/intro/i) }]
      : [];
  });
}

/** Beats a minute that a style is played at, by what its name says; common practice, no published source. */
function tempoOf(file: string): [number, number] {
  if (/slow|ballad|lullaby|spiritual|hymn|bolero/.test(file)) return [56, 96];
  if (/128|blues68/.test(file)) return [54, 90];
  if (/fast|bebop|polka|quick|dixie|bluegrass|gypsy|galop|ragtime|charleston|vienese/.test(file))
    return [150, 230];
  if (/waltz/.test(file)) return [90, 180];
  if (/swing|jazz|jive|ska|twist|boogie|boggie|punk|rockabilly|samba|march/.test(file)) return [105, 190];
  if (/house|trance|techno|disco|dance|euro/.test(file)) return [112, 150];
  return [76, 144];
}

export type Accompanied = { name: string; midi: Uint8Array; beatsPerBar: number; aside: boolean };

const roots = [
  'C',
  'F',
  'G',
  'Am',
  'Dm',
  'Em',
  'Bb',
  'Eb',
  'Gm',
  'Cm',
  'E',
  'A',
  'D',
  'G7',
  'C7',
  'F7',
  'Dm7',
];

/** One backing track; the same for the same number. Null where mma does not understand one of its styles. */
export function accompanied(number: number, seconds: number): Accompanied | null {
  const next = seeded(number * 7177 + 5);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(next() * from.length)];
  const all = families();
  const index = Math.floor(next() * all.length);
  const family = all[index];
  const [low, high] = tempoOf(family.file);
  const tempo = Math.round(low + (high - low) * next());
  const bars = Math.ceil((seconds * tempo) / 60 / family.beatsPerBar);
  const cycle = Array.from({ length: pick([4, 4, 8]) }, () => pick(roots));
  const slow = pick([1, 1, 2]);
  const manners = [pick(family.mains), pick(family.mains), pick(family.mains)];
  const lines = [`Tempo ${tempo}`, 'SeqRnd Off', `Transpose ${Math.floor(next() * 12) - 6}`];
  for (let at = 0; at < bars; at++) {
    if (at % 8 === 0) lines.push(`Groove ${manners[(at / 8) % 3]}`);
    if (at === 0 && family.intros.length > 0 && next() < 0.2) lines.push(`Groove ${pick(family.intros)}`);
    if (at % 8 === 7 && family.fills.length > 0 && next() < 0.7) lines.push(`Groove ${pick(family.fills)}`);
    const chord = cycle[Math.floor(at / slow) % cycle.length];
    lines.push(`${at + 1} ${next() < 0.15 ? `${chord} / ${pick(roots)}` : chord}`);
  }
  const folder = mkdtempSync(join(tmpdir(), 'accompanied-'));
  try {
    writeFileSync(join(folder, 'song.mma'), lines.join('\n'));
    execFileSync('mma', ['-f', join(folder, 'song.mid'), join(folder, 'song.mma')], { stdio: 'ignore' });
    const midi = Uint8Array.from(readFileSync(join(folder, 'song.mid')));
    return {
      name: `${family.file} ${number}`,
      midi,
      beatsPerBar: family.beatsPerBar,
      aside: index % 3 === 0,
    };
  } catch {
    return null;
  } finally {
    rmSync(folder, { recursive: true });
  }
}
