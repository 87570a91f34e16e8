/** Films and plays the demo: `npm run demo:media`. Clips are added, never encoded again: delete one to remake it. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { filmScene } from './set/film';
import { scenes } from './set/scenes';
import { playSong } from './song/synth';

const folder = fileURLToPath(new URL('../public/demo/', import.meta.url));
mkdirSync(folder, { recursive: true });

const song = `${folder}left-hand-thread.opus`;
if (!existsSync(song)) {
  const wav = `${folder}song.tmp.wav`;
  writeFileSync(wav, playSong());
  execFileSync('ffmpeg', [
    '-y',
    '-loglevel',
    'error',
    '-i',
    wav,
    '-c:a',
    'libopus',
    '-b:a',
    '128k',
    '-fflags',
    '+bitexact',
    song,
  ]);
  rmSync(wav);
  console.log('played left-hand-thread.opus');
}
for (const [index, scene] of scenes.entries()) {
  if (existsSync(folder + scene.file)) continue;
  await filmScene(scene, folder + scene.file, index + 1);
  console.log(`filmed ${scene.file}`);
}
