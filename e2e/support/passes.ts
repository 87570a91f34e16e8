import { filmed, perSecond } from './composite';
import { ffmpeg } from './ffmpeg';
import { coffee, portrait } from './photographs';

/** A pass along a table, in seconds of its file and pixels of the table's photograph. */
export type FilmedPass = {
  /** when the camera begins to slide, which it does for three seconds */
  starts: number;
  /** pixels by which a soft floor puts this pass beside others, as an expression of `t` */
  drift?: { x: string; y: string };
  /** who is there, and how far ahead of the camera's slide their own second 0 lies */
  there?: { at: 'left' | 'right'; begins: number }[];
  seconds: number;
  /** how far the camera slides */
  slides?: number;
  noise?: number;
};

/** the part of the table that the camera shows */
const [across, down] = [720, 405];
const table = { width: 1200, height: 675 };
const standsAt = { left: 330, right: 680 };

/** Films a table with a camera that slides along it, and whoever is there. */
export function filmPass(
  path: string,
  { starts, drift, there = [], seconds, slides = 140, noise = 2 }: FilmedPass,
): void {
  // The filter counts pictures, and knows no seconds.
  const t = `(on/${perSecond})`;
  const share = `clip((${t}-${starts})/3,0,1)`;
  const inFilter = (text: string | undefined) => (text ?? '0').replaceAll('t', t);
  const x = `(160+${slides}*(3*pow(${share},2)-2*pow(${share},3))+${inFilter(drift?.x)})`;
  const y = `(130+${inFilter(drift?.y)})`;
  const corners = [0, 1, 2, 3].map(
    (corner) =>
      `x${corner}='${x}+${corner % 2 === 1 ? across : 0}':y${corner}='${y}+${corner > 1 ? down : 0}'`,
  );
  const inputs = [coffee(), ...there.map(() => portrait())].flatMap((file) => [
    ...['-loop', '1', '-framerate', `${perSecond}`, '-i', file],
  ]);
  const people = there.map(
    ({ at, begins }, index) =>
      `[${index + 1}:v]scale=300:300,crop=120:170:90:0[who${index}];` +
      `[set${index}][who${index}]overlay=x='${standsAt[at]}+14*sin(2*(t-${begins}))':y=250:eval=frame[set${index + 1}]`,
  );
  const chain = [
    `[0:v]scale=${table.width}:800,crop=${table.width}:${table.height}[set0]`,
    ...people,
    `[set${there.length}]perspective=${corners.join(':')}:eval=frame:interpolation=cubic,` +
      `scale=${filmed.width}:${filmed.height},noise=alls=${noise}:allf=t,format=yuv420p[film]`,
  ];
  ffmpeg(
    ...[...inputs, '-filter_complex', chain.join(';'), '-map', '[film]'],
    ...['-t', `${seconds}`, '-c:v', 'libx264', '-crf', '14', path],
  );
}
