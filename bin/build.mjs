#!/usr/bin/env node
/** Builds the static shell, then writes what only exists after it: script hashes and the offline list. */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { build as bundle } from 'esbuild';
import { injectManifest } from 'workbox-build';

const home = fileURLToPath(new URL('..', import.meta.url));
const out = join(home, 'out');
execFileSync('node', [join(home, 'bin/people.mjs')], { stdio: 'inherit' });
execFileSync('npx', ['next', 'build'], {
  cwd: home,
  stdio: 'inherit',
  env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
});

const walk = (folder) =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? walk(path) : [path];
  });
const files = walk(out);

// What the page asks for before anything of it can be used; scripts for browsers without modules are not loaded.
const firstView = [...readFileSync(join(out, 'index.html'), 'utf8').matchAll(/<script[^>]*>/g)]
  .filter(([tag]) => !/nomodule/i.test(tag))
  .flatMap(([tag]) => /\ssrc="([^"]+\.js)"/.exec(tag)?.[1] ?? [])
  .reduce((sum, path) => sum + gzipSync(readFileSync(join(out, path))).length, 0);
const most = 250_000;
console.log(`The first view takes ${Math.round(firstView / 1000)} kB of scripts (at most ${most / 1000}).`);
if (firstView > most)
  throw new Error('The first view takes too many scripts. Load what it does not show later.');

const hashes = new Set();
for (const page of files.filter((path) => path.endsWith('.html'))) {
  for (const [, body] of readFileSync(page, 'utf8').matchAll(
    /<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g,
  )) {
    hashes.add(`sha256-${createHash('sha256').update(body).digest('base64')}`);
  }
}
writeFileSync(join(out, 'script-hashes.json'), JSON.stringify([...hashes]));

// What finds people is kept by itself: its mark says whether another version still has the same.
const peopleMark = createHash('sha256');
for (const path of files.filter((one) => one.startsWith(join(out, 'people'))).sort())
  peopleMark.update(readFileSync(path));

// The service worker: bundled, then told which files belong to this build.
const bundled = join(home, '.next/offline.sw.js');
await bundle({
  entryPoints: [join(home, 'src/workers/offline.sw.js')],
  outfile: bundled,
  bundle: true,
  minify: true,
  define: {
    'process.env.NODE_ENV': '"production"',
    'process.env.PEOPLE_MARK': JSON.stringify(peopleMark.digest('hex').slice(0, 16)),
  },
});
const { count, warnings } = await injectManifest({
  swSrc: bundled,
  swDest: join(out, 'sw.js'),
  globDirectory: out,
  globPatterns: ['**/*'],
  // What finds people is large: it is kept once it was needed.
  globIgnores: ['script-hashes.json', 'sw.js', '**/*.txt', '**/*.map', 'people/**'],
  modifyURLPrefix: { '': '/' },
  dontCacheBustURLsMatching: /_next\/static\//,
  maximumFileSizeToCacheInBytes: 32e6,
  manifestTransforms: [
    (manifest) => ({
      manifest: manifest.map((entry) => ({ ...entry, url: entry.url.replace(/index\.html$/, '') })),
    }),
  ],
});
if (warnings.length > 0) throw new Error(warnings.join('\n'));
console.log(`${count} files are kept for use without a network, ${hashes.size} inline scripts allowed.`);
