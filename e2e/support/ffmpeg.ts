import { execFileSync } from 'node:child_process';
import { bt709, type YuvImage, type YuvKind } from '@/core/picture/planes';

export const demo = (name: string): string => `public/demo/${name}`;

/** What ffprobe says of the first stream of a kind, with its frames counted. */
export function probe(file: string, stream: 'v:0' | 'a:0'): Record<string, string> {
  const args = [
    '-v',
    'error',
    '-select_streams',
    stream,
    '-count_frames',
    '-show_streams',
    '-show_format',
    '-of',
    'json',
    file,
  ];
  const told = JSON.parse(execFileSync('ffprobe', args, { encoding: 'utf8' }));
  return { ...told.format, ...told.streams[0], file_duration: told.format.duration };
}

/** Raw 4:2:0 pictures of a file of that kind, decoded by ffmpeg without any conversion. */
export function decode(file: string, width: number, height: number, kind: YuvKind = bt709): YuvImage[] {
  const args = [
    '-v',
    'error',
    '-i',
    file,
    '-f',
    'rawvideo',
    '-pix_fmt',
    kind.fullRange ? 'yuvj420p' : 'yuv420p',
    '-fps_mode',
    'passthrough',
    '-',
  ];
  const bytes = execFileSync('ffmpeg', args, { maxBuffer: 2 ** 31 - 1 });
  const [luma, chroma] = [width * height, (width * height) / 4];
  const each = luma + 2 * chroma;
  return Array.from({ length: Math.floor(bytes.length / each) }, (_, index) => {
    const at = index * each;
    return {
      width,
      height,
      ...kind,
      y: bytes.subarray(at, at + luma),
      u: bytes.subarray(at + luma, at + luma + chroma),
      v: bytes.subarray(at + luma + chroma, at + each),
    };
  });
}

export function ffmpeg(...args: string[]): void {
  execFileSync('ffmpeg', ['-y', '-loglevel', 'error', ...args]);
}

/** One picture as an input of so many pictures a second. */
export const still = (path: string, perSecond: number): string[] => [
  '-framerate',
  `${perSecond}`,
  '-i',
  path,
];
/** In a filter's words: the one picture that comes here, again and again; what is done to it before is done once. */
export const again = (perSecond: number): string => `loop=loop=-1:size=1,setpts=N/${perSecond}/TB`;
