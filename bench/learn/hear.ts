/** Says what the model hears of the songs of songs.ts, for train.py: `npm run learn:hear`. */
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { findBands } from '../../src/core/song/bands';
import { fullLevel } from '../../src/core/song/full-level';
import { changesOf } from '../../src/core/song/model/input';
import { findTonal } from '../../src/core/song/tonal';

const folder = process.env.LEARN ?? '.cache/learn';
const rate = 22050;
/** levels and changes as bytes */
const [levelSteps, changeSteps] = [28, 120];
const bytes = (values: Float32Array, steps: number) =>
  Uint8Array.from(values, (value) => Math.max(0, Math.min(255, Math.round(value * steps))));

for (const name of readdirSync(folder).filter((one) => one.endsWith('.s16'))) {
  const base = join(folder, name.slice(0, -4));
  if (existsSync(`${base}.levels`) || !existsSync(`${base}.json`)) continue;
  const file = readFileSync(`${base}.s16`);
  const data = Float32Array.from(
    new Int16Array(file.buffer, file.byteOffset, file.length >> 1),
    (one) => one / 32768,
  );
  const sound = { data, rate };
  const full = fullLevel(sound);
  if (full < 1e-3) continue;
  const bands = findBands(sound, 1 / full);
  const tonal = findTonal(sound, 1 / full);
  writeFileSync(`${base}.changes`, Buffer.concat(changesOf(tonal).map((row) => bytes(row, changeSteps))));
  writeFileSync(
    `${base}.about`,
    JSON.stringify({
      rate: bands.rate,
      start: bands.start,
      hops: bands.hops,
      tonalRate: tonal.rate,
      tonalStart: tonal.start,
      tonalFrames: tonal.frames,
    }),
  );
  writeFileSync(`${base}.levels`, bytes(bands.levels, levelSteps));
}
