#!/usr/bin/env node
/** Lays the program that finds people beside its model, where the shell loads it when it is first needed. */
import { copyFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { join } from 'node:path';

const home = fileURLToPath(new URL('..', import.meta.url));
const from = join(home, 'node_modules/@mediapipe/tasks-vision');
const to = join(home, 'public/people');
copyFileSync(join(from, 'vision_bundle.mjs'), join(to, 'vision_bundle.mjs'));
for (const name of ['vision_wasm_internal.js', 'vision_wasm_internal.wasm'])
  copyFileSync(join(from, 'wasm', name), join(to, name));
