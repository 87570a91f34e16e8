import { execFileSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A file out of one of Debian's packages, kept for the next time. */
function outOf(name: string, path: string): string {
  const kept = join('.cache', path.slice(path.lastIndexOf('/') + 1));
  if (existsSync(kept)) return kept;
  const place = mkdtempSync(join(tmpdir(), 'photograph-'));
  const run = (command: string, ...args: string[]) =>
    execFileSync(command, args, { cwd: place, stdio: 'ignore' });
  try {
    try {
      run('apt-get', 'download', name);
    } catch {
      run('apt-get', 'update', '-qq');
      run('apt-get', 'download', name);
    }
    const archive = readdirSync(place).find((one) => one.endsWith('.deb'));
    if (!archive) throw new Error(`The package ${name} with a photograph could not be fetched.`);
    run('dpkg-deb', '-x', archive, 'open');
    mkdirSync('.cache', { recursive: true });
    copyFileSync(join(place, 'open', path), kept);
  } finally {
    rmSync(place, { recursive: true });
  }
  return kept;
}

/** A photograph of a person down to the waist, of 512 × 512 pixels. */
export const portrait = (): string =>
  outOf('python3-skimage', 'usr/lib/python3/dist-packages/skimage/data/astronaut.png');

/** A photograph of a cup on a table, nobody in it, of 600 × 400 pixels. */
export const coffee = (): string =>
  outOf('python3-skimage', 'usr/lib/python3/dist-packages/skimage/data/coffee.png');

/** A photograph of a cat's face that fills the frame, which finders of people take for somebody now and then, of 451 × 300 pixels. */
export const cat = (): string =>
  outOf('python3-skimage', 'usr/lib/python3/dist-packages/skimage/data/chelsea.png');

/**
 * A grey photograph of 640 × 480 pixels in which somebody stands from head to foot, the hands before the chest: in its
 * columns 15 to 200, with nobody else there.
 */
export const standing = (): string =>
  outOf('opencv-doc', 'usr/share/doc/opencv-doc/examples/data/basketball1.png');

/** A photograph of houses under trees, nobody in it, of 512 × 384 pixels. */
export const houses = (): string => outOf('opencv-doc', 'usr/share/doc/opencv-doc/examples/data/home.jpg');

/** Fetches them all: files of tests run beside each other, and only one at a time may ask for packages. */
export function fetchPhotographs(): void {
  for (const fetch of [portrait, coffee, cat, standing, houses]) fetch();
}
