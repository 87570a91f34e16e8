import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { wavHead } from '@/core/formats/wav';
import { ffmpeg } from './ffmpeg';
import { houses, portrait } from './photographs';

/** pictures a second of what is filmed, and their size */
const perSecond = 25;
const [width, height] = [960, 540];
/** pixels of a side of the portrait in them */
const side = 420;

/** Of the photographed portrait: the part that moves as its mouth opens, where the lips meet, and how far the jaw falls. */
const part = { left: 150, top: 120, width: 150, height: 100 };
const lips = { x: 223, y: 148, wide: 26 };
const [chin, falls] = [215, 14];

/** Writes a sound as a WAV file. */
export function writeSound(path: string, data: Float32Array, rate: number): void {
  const pcm = Int16Array.from(data, (value) => Math.round(32_767 * Math.max(-1, Math.min(1, value))));
  writeFileSync(path, Buffer.concat([wavHead(pcm.length, 1, rate), Buffer.from(pcm.buffer)]));
}

/** The moving part of the portrait in each picture, its jaw fallen by a share of {@link falls} pixels. */
function mouths(open: (seconds: number) => number, pictures: number): Buffer {
  const { left, top, width, height } = part;
  const source = execFileSync('ffmpeg', [
    ...['-v', 'error', '-i', portrait(), '-vf', `crop=${width}:${height}:${left}:${top}`],
    ...['-f', 'rawvideo', '-pix_fmt', 'rgb24', '-'],
  ]);
  const out = Buffer.alloc(source.length * pictures);
  for (let picture = 0; picture < pictures; picture++) {
    const fallen = falls * open(picture / perSecond);
    for (let row = 0; row < height; row++)
      for (let column = 0; column < width; column++) {
        const [x, y] = [left + column, top + row];
        const gap = fallen * Math.max(0, 1 - ((x - lips.x) / lips.wide) ** 2);
        const to = picture * source.length + 3 * (row * width + column);
        if (y > lips.y && y < lips.y + gap) {
          out.set([52, 18, 22], to);
          continue;
        }
        const share = y <= lips.y ? 0 : Math.min(1, Math.max(0, (chin - y) / (chin - lips.y - falls)));
        const from = Math.max(0, row - Math.round(gap * share));
        source.copy(out, to, 3 * (from * width + column), 3 * (from * width + column) + 3);
      }
  }
  return out;
}

/**
 * Films a photographed person who sings before houses, at the left; without a mouth, the houses alone.
 * @param open how far the mouth is open at a second, 0..1
 * @param sound what is heard meanwhile, a file; left out, nothing
 */
export function filmSinger(
  path: string,
  seconds: number,
  open: ((seconds: number) => number) | null,
  { sound, right = false }: { sound?: string; right?: boolean } = {},
): void {
  if (open) writeFileSync(`${path}.rgb`, mouths(open, Math.round(seconds * perSecond)));
  const behind = `[0]scale=${width}:${height},setsar=1`;
  const person = `[1][2]overlay=${part.left}:${part.top}:shortest=1,scale=${side}:${side}[person];${behind}[houses];[houses][person]overlay=${right ? width - side : 0}:${height - side}:shortest=1`;
  ffmpeg(
    ...['-loop', '1', '-framerate', `${perSecond}`, '-i', houses()],
    ...(open
      ? [
          ...['-loop', '1', '-framerate', `${perSecond}`, '-i', portrait()],
          ...['-f', 'rawvideo', '-pix_fmt', 'rgb24', '-framerate', `${perSecond}`],
          ...['-video_size', `${part.width}x${part.height}`, '-i', `${path}.rgb`],
        ]
      : []),
    ...(sound ? ['-i', sound] : []),
    ...[
      '-filter_complex',
      `${open ? person : behind},noise=alls=4:allf=t,format=yuv420p[out]`,
      '-map',
      '[out]',
    ],
    ...(sound ? ['-map', '3:a', '-c:a', 'aac', '-b:a', '128k'] : []),
    ...['-t', `${seconds}`, '-c:v', 'libx264', '-preset', 'veryfast', '-crf', '20', path],
  );
}
