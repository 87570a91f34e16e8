import { filmed, perSecond } from './composite';
import { again, ffmpeg, still } from './ffmpeg';
import { coffee, portrait } from './photographs';

/** where the two stand, in pixels from the left, and how large they are */
export const places = { left: 40, right: 330 };
export const person = { width: 110, height: 160, top: 100 };

/** A shadow on the table, in pixels; with so much of the light left, and so many pixels over which its edge fades out. */
export type Thrown = {
  from: number;
  until: number;
  top: number;
  bottom: number;
  leaves: number;
  fades: number;
};

/** A photograph of that table as that camera frames it: one picture, without grain. */
export const photographTable = (path: string): void =>
  ffmpeg('-i', coffee(), '-vf', `scale=600:400,crop=${filmed.width}:${filmed.height}`, path);

/**
 * Films a photographed table with a locked camera, somebody at one of its ends, and the shadow that they throw.
 * @param grain how much each pixel changes at the most, as ffmpeg counts it
 * @param soft standard deviation of a lens that is out of focus, in pixels
 */
export function filmThrown(
  path: string,
  {
    who,
    thrown,
    seconds = 5,
    grain = 3,
    soft = 0,
  }: { who?: keyof typeof places; thrown?: Thrown; seconds?: number; grain?: number; soft?: number },
): void {
  const { width, height } = filmed;
  const grey = Math.round(255 * (thrown?.leaves ?? 1))
    .toString(16)
    .padStart(2, '0');
  const inputs = [
    still(coffee(), perSecond),
    ...(thrown
      ? [['-f', 'lavfi', '-i', `color=c=white:s=${width}x${height}:r=${perSecond}:d=${1 / perSecond}`]]
      : []),
    ...(who ? [still(portrait(), perSecond)] : []),
  ];
  const chain = [
    `[0:v]scale=600:400,crop=${width}:${height},format=gbrp[set]`,
    thrown
      ? `[1:v]drawbox=${thrown.from}:${thrown.top}:${thrown.until - thrown.from}:${thrown.bottom - thrown.top}:0x${grey.repeat(3)}:fill,` +
        `${thrown.fades > 0 ? `boxblur=${thrown.fades / 4}:2,` : ''}format=gbrp[shade];[set][shade]blend=all_mode=multiply,${again(perSecond)}[dark]`
      : `[set]${again(perSecond)}[dark]`,
    who
      ? `[${inputs.length - 1}:v]scale=256:256,crop=${person.width}:${person.height}:70:0,${again(perSecond)}[who];` +
        `[dark][who]overlay=x='${places[who]}+4*sin(2*t)':y=${person.top}:eval=frame[there]`
      : '[dark]null[there]',
    `[there]${soft > 0 ? `gblur=${soft},` : ''}noise=alls=${grain}:allf=t,format=yuv420p[film]`,
  ];
  ffmpeg(
    ...inputs.flat(),
    ...['-filter_complex', chain.join(';'), '-map', '[film]'],
    ...['-t', `${seconds}`, '-c:v', 'libx264', '-crf', '14', path],
  );
}
