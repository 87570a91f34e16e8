import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Point } from '@/core/geometry/size';
import { coverOfRings } from '@/core/picture/mask';
import { ffmpeg } from './ffmpeg';
import { coffee, portrait, standing } from './photographs';

/** Traced by eye a little inside the person of the portrait, from the head to the chest, in pixels of 1024 × 1024. */
const traced: Point[] = [
  ...([
    [345, 240],
    [322, 218],
    [312, 190],
    [309, 160],
    [312, 130],
    [322, 105],
    [345, 88],
    [375, 75],
  ] as Point[]),
  ...([
    [395, 55],
    [425, 40],
    [460, 34],
    [500, 38],
    [535, 52],
    [562, 75],
    [582, 100],
    [596, 130],
  ] as Point[]),
  ...([
    [601, 165],
    [597, 200],
    [585, 228],
    [565, 248],
    [552, 260],
    [538, 270],
    [530, 300],
    [520, 330],
  ] as Point[]),
  ...([
    [514, 350],
    [545, 366],
    [573, 390],
    [595, 425],
    [606, 460],
    [608, 477],
    [640, 493],
    [664, 515],
  ] as Point[]),
  ...([
    [682, 540],
    [691, 570],
    [702, 600],
    [711, 635],
    [720, 660],
    [722, 692],
    [52, 692],
    [58, 660],
  ] as Point[]),
  ...([
    [68, 640],
    [80, 600],
    [92, 560],
    [104, 530],
    [127, 500],
    [182, 460],
    [224, 430],
    [235, 400],
  ] as Point[]),
  ...([
    [246, 370],
    [252, 345],
    [267, 326],
    [290, 310],
    [325, 300],
    [366, 299],
    [365, 270],
    [358, 256],
  ] as Point[]),
];
const [left, top, across, down] = [52, 34, 670, 658];

export const filmed = { width: 480, height: 270 };
/** the person is so wide and tall in it, at its lower edge */
const person = { width: 204, height: 200 };
export const perSecond = 25;
/** pixels by which the person moves with each picture */
const step = 5;

/** The columns of the person's left edge by picture: to the right, and back once the frame is crossed. ffmpeg's overlay counts from 1. */
const leftOf = (picture: number): number => {
  const way = filmed.width - person.width - 20;
  const gone = ((picture + 1) * step) % (2 * way);
  return 10 + Math.min(gone, 2 * way - gone);
};

/** Where the person is in a picture, in shares of the frame. */
export const personIn = (picture: number): Point[] =>
  traced.map(([x, y]): Point => [
    (leftOf(picture) + ((x - left) / across) * person.width) / filmed.width,
    (filmed.height - person.height + ((y - top) / down) * person.height) / filmed.height,
  ]);

/** A board that the person holds beside them, in pixels from their upper left corner; of one colour. */
const board = { left: 142, top: 84, width: 56, height: 48, colour: [178, 38, 52] } as const;

/** Where the board is in a picture, in shares of the frame. */
export const boardIn = (picture: number): Point[] => {
  const [x, y] = [leftOf(picture) + board.left, filmed.height - person.height + board.top];
  return [
    [x, y],
    [x + board.width, y],
    [x + board.width, y + board.height],
    [x, y + board.height],
  ].map(([across, down]): Point => [across / filmed.width, down / filmed.height]);
};

/**
 * Films a photographed person who moves over a photograph, which moves otherwise: no camera stands, and what is in front
 * is known to a pixel. With noise of 3/255, really encoded.
 * @param options.holds whether they hold a board
 * @param options.ground the photograph behind them
 */
export function filmPerson(
  path: string,
  seconds: number,
  { holds = false, ground = coffee() }: { holds?: boolean; ground?: string } = {},
): void {
  const place = mkdtempSync(join(tmpdir(), 'composite-'));
  try {
    const scaled = `crop=${across / 2}:${down / 2}:${left / 2}:${top / 2},scale=${person.width}:${person.height}:flags=lanczos`;
    const rgb = execFileSync('ffmpeg', [
      ...['-v', 'error', '-i', portrait(), '-vf', scaled],
      ...['-f', 'rawvideo', '-pix_fmt', 'rgb24', '-'],
    ]);
    const ring = traced.map(([x, y]): Point => [
      ((x - left) / across) * person.width,
      ((y - top) / down) * person.height,
    ]);
    const cover = coverOfRings([ring], person);
    const rgba = Buffer.alloc(person.width * person.height * 4);
    cover.forEach((share, pixel) => {
      rgb.copy(rgba, pixel * 4, pixel * 3, pixel * 3 + 3);
      rgba[pixel * 4 + 3] = Math.round(255 * share);
    });
    for (let y = board.top; holds && y < board.top + board.height; y++)
      for (let x = board.left; x < board.left + board.width; x++)
        rgba.set([...board.colour, 255], (y * person.width + x) * 4);
    writeFileSync(join(place, 'person.rgba'), rgba);
    const way = filmed.width - person.width - 20;
    const x = `10+min(mod(n*${step},${2 * way}),${2 * way}-mod(n*${step},${2 * way}))`;
    ffmpeg(
      ...['-loop', '1', '-framerate', `${perSecond}`, '-t', `${seconds}`, '-i', ground],
      ...['-stream_loop', '-1', '-f', 'rawvideo', '-pix_fmt', 'rgba', '-framerate', `${perSecond}`],
      ...['-video_size', `${person.width}x${person.height}`, '-i', join(place, 'person.rgba')],
      '-filter_complex',
      `[0]scale=600:400,crop=480:270:x='60+40*sin(t)':y='60+30*cos(t)'[ground];[ground][1]overlay=x='${x}':y=${filmed.height - person.height}:shortest=1,noise=alls=5:allf=t,format=yuv420p`,
      ...['-t', `${seconds}`, '-c:v', 'libx264', '-crf', '18', path],
    );
  } finally {
    rmSync(place, { recursive: true });
  }
}

/** pictures of the jump in which the feet are on the ground: the last before it, and the first after it */
export const jumped = { last: 30, first: 45 };
/** the share of the frame by which they are above it at the most */
const high = 0.18;

/** Films a photographed person who jumps once, as a body that is thrown up, before a wall of one tone. */
export function filmJump(path: string): void {
  const [width, height] = [480, 480];
  const share = `clip((n-1-${jumped.last})/${jumped.first - jumped.last},0,1)`;
  const rise = `${high * height}*4*${share}*(1-${share})`;
  ffmpeg(
    ...['-f', 'lavfi', '-i', `color=c=0xb0b0b0:s=${width}x${height}:r=${perSecond}`],
    ...['-loop', '1', '-framerate', `${perSecond}`, '-i', standing()],
    '-filter_complex',
    `[1]crop=200:480:0:0,scale=160:384,format=gray,format=rgb24[person];[0][person]overlay=x=160:y='90-${rise}':eval=frame,noise=alls=5:allf=t,format=yuv420p`,
    ...['-t', '3', '-c:v', 'libx264', '-crf', '18', path],
  );
}
