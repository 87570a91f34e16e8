/** Speed as ratios, measured in one run: `npm run bench`. Needs chromium and ffmpeg. */
import { readFileSync, mkdtempSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from 'esbuild';
import { openBrowser } from '../e2e/support/browser';
import { ffmpeg } from '../e2e/support/ffmpeg';
import { portrait } from '../e2e/support/photographs';

const rounds = Number(process.env.ROUNDS ?? 3);
const frames = 72;
const folder = mkdtempSync(join(tmpdir(), 'ribbon-bench-'));
const codec = ['-c:v', 'libx264', '-crf', '18', '-g', '24', '-an'];
for (const [name, take] of [
  ['one', 'bench-left-1'],
  ['two', 'bench-right-1'],
]) {
  for (const [suffix, scale] of [
    ['', '1920:1080'],
    ['-4k', '3840:2160'],
    ['-720', '1280:720'],
  ]) {
    const size = ['-frames:v', String(frames), '-vf', `scale=${scale}:flags=bicubic`];
    ffmpeg('-i', `public/demo/${take}.mp4`, ...size, ...codec, join(folder, `${name}${suffix}.mp4`));
  }
}
ffmpeg(
  ...['-i', 'public/demo/bench-plate-start.mp4', '-frames:v', '2', '-vf', 'scale=1920:1080:flags=bicubic'],
  ...[...codec, join(folder, 'plate.mp4')],
);
// A person down to the waist, over whom the camera goes down.
ffmpeg(
  ...['-loop', '1', '-framerate', '24000/1001', '-i', portrait(), '-frames:v', String(frames)],
  ...['-vf', "scale=1920:1920,crop=1920:1080:0:'2*n',noise=alls=4:allf=t,format=yuv420p"],
  ...[...codec, join(folder, 'person.mp4')],
);
await build({
  entryPoints: ['src/workers/people.worker.ts'],
  outfile: join(folder, 'people.worker.js'),
  bundle: true,
  format: 'iife',
  tsconfig: 'tsconfig.json',
});
const bundle = await build({
  entryPoints: ['bench/page.ts'],
  bundle: true,
  write: false,
  format: 'iife',
  tsconfig: 'tsconfig.json',
});
const kinds: Record<string, string> = {
  mp4: 'video/mp4',
  mjs: 'text/javascript',
  js: 'text/javascript',
  wasm: 'application/wasm',
  task: 'application/octet-stream',
};
const server = createServer((request, response) => {
  const path = request.url ?? '/';
  const kind = kinds[path.slice(path.lastIndexOf('.') + 1)];
  response.setHeader('Content-Type', kind ?? 'text/html');
  const from = path.startsWith('/people/') ? 'public' : folder;
  response.end(kind ? readFileSync(join(from, path)) : '<!doctype html><title>bench</title>');
}).listen(4394);

const browser = await openBrowser();
const page = await browser.newPage();
await page.goto('http://localhost:4394/');
await page.addScriptTag({ content: bundle.outputFiles[0].text });
const seconds = (await page.evaluate(
  `run(${rounds}, ${frames}).catch((error) => { throw new Error(error.message); })`,
)) as Record<
  | 'shrink'
  | 'decode'
  | 'mattes'
  | 'edges'
  | 'decodePerson'
  | 'people'
  | 'watch'
  | 'measure'
  | 'copy'
  | 'render'
  | 'decode4k'
  | 'render4k'
  | 'render720'
  | 'inTurn'
  | 'whip'
  | 'passed'
  | 'ramp'
  | 'four'
  | 'panels',
  number[]
>;
await browser.close();
server.close();

const least = (values: number[]) => Math.min(...values);
const perPicture = (values: number[]) => `${((least(values) / frames) * 1000).toFixed(1)} ms a picture`;
const limits = [
  {
    name: 'Mattes from the plate, at 480 × 270, of a 1080p take against decoding it',
    ratio: least(seconds.mattes) / least(seconds.decode),
    most: 0.5,
  },
  {
    name: 'Fitting the edge of a cut-out to a 1080p picture against decoding it',
    ratio: least(seconds.edges) / least(seconds.decode),
    most: 2,
  },
  {
    name: 'Cutting people out of a 1080p take against decoding it',
    ratio: least(seconds.people) / least(seconds.decodePerson),
    most: 4,
  },
  {
    name: 'Camera, motion, light and white pictures of a 1080p take against decoding and shrinking it',
    ratio: least(seconds.watch) / least(seconds.shrink),
    most: 1.5,
  },
  {
    name: 'Measuring a 1080p take, with its proxy, against decoding and shrinking it',
    ratio: least(seconds.measure) / least(seconds.shrink),
    most: 2.2,
  },
  {
    name: 'Rendering two takes at 1080p against decoding both and encoding one',
    ratio: least(seconds.render) / least(seconds.copy),
    most: 1.3,
  },
  {
    name: 'Rendering two takes of 4K at 1080p against two of 1080p',
    ratio: least(seconds.render4k) / least(seconds.render),
    most: 2,
  },
  {
    name: 'Rendering two takes of 720p at 1080p against two of 1080p',
    ratio: least(seconds.render720) / least(seconds.render),
    most: 4,
  },
  {
    name: 'Rendering a built whip at 1080p against decoding both its places and encoding one',
    ratio: least(seconds.whip) / least(seconds.inTurn),
    most: 2,
  },
  {
    name: 'Rendering a speed ramp at 1080p against decoding its take and encoding it',
    ratio: least(seconds.ramp) / least(seconds.passed),
    most: 2,
  },
  {
    name: 'Rendering four panels at 1080p against decoding four takes and encoding one',
    ratio: least(seconds.panels) / least(seconds.four),
    most: 2,
  },
];
for (const [name, values] of Object.entries(seconds)) console.log(`${name}: ${perPicture(values)}`);
for (const { name, ratio, most } of limits) {
  console.log(
    `${name}: ${ratio.toFixed(2)} times (at most ${most}) ${ratio <= most ? 'holds' : 'DOES NOT HOLD'}`,
  );
}
process.exit(limits.every(({ ratio, most }) => ratio <= most) ? 0 : 1);
