#!/usr/bin/env node
/** Builds the static shell, then writes what only exists after it: script hashes and the offline list. */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { join, relative } from 'node:path';
import { gzipSync } from 'node:zlib';

const home = fileURLToPath(new URL('..', import.meta.url));
const out = join(home, 'out');
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
const most = 280_000;
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

const skipped = /script-hashes\.json$|\/sw\.js$|\.txt$|\.map$/;
const list = files
  .filter((path) => !skipped.test(path))
  .map((path) => '/' + relative(out, path).replace(/index\.html$/, ''))
  .sort();
const version = createHash('sha256');
for (const path of files.filter((path) => !skipped.test(path)).sort()) version.update(readFileSync(path));
const put = (text, place, value) => {
  if (!text.includes(place)) throw new Error(`The service worker has no ${place} to fill in.`);
  return text.replace(place, JSON.stringify(value));
};
const template = readFileSync(join(home, 'src/workers/offline.sw.js'), 'utf8');
const versioned = put(template, "'__VERSION__'", version.digest('hex').slice(0, 16));
writeFileSync(join(out, 'sw.js'), put(versioned, "'__FILES__'", list));
console.log(
  `${list.length} files are kept for use without a network, ${hashes.size} inline scripts allowed.`,
);
