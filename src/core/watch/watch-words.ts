import type { Words } from '../finding/words';

/** "to the right and down" by the larger parts of a shift, or what a change of size means. */
function movement(facts: Record<string, string | number>): string {
  const [dx, dy, scale] = ['dx', 'dy', 'scale'].map((key) => Number(facts[key] ?? 0));
  const grown = (scale - 1) * 640;
  if (Math.abs(grown) > Math.hypot(dx, dy)) return grown > 0 ? 'by growing' : 'by shrinking';
  if (Math.abs(dx) >= Math.abs(dy)) return dx > 0 ? 'to the right' : 'to the left';
  return dy > 0 ? 'down' : 'up';
}

/** What a camera is seen to do, in words. */
export const watchWords = {
  'watch.moved': ({ facts, measured, allowed, at }) => {
    const way = movement(facts);
    return way.startsWith('by')
      ? `The picture changed size${at}: its corners lie ${measured} off (allowed ${allowed}). Somebody zoomed, or the camera focuses by itself. Hold the focus and film the plate again.`
      : `The camera moved ${measured} ${way}${at} (allowed ${allowed}). The join will show. Put it back until this goes, or film the plate again.`;
  },
  'watch.light': ({ value, measured, allowed, at }) =>
    `The light is ${measured} ${value > 0 ? 'brighter' : 'darker'} than on the plate${at} (allowed ${allowed}). Hold the exposure, wait for the cloud, or film the plate again.`,
  'watch.colour': ({ measured, allowed, at }) =>
    `The colour is ${measured} off the plate${at} (allowed ${allowed}). Lock the white balance, or turn off the lamp that came on.`,
  'watch.soft': ({ measured, allowed, at }) =>
    `The picture has ${measured} of the plate’s sharpness${at} (at least ${allowed}). Lock the focus, wipe the lens.`,
  'watch.view': ({ measured, allowed, at }) =>
    `This is not the plate’s view: ${measured} of the picture fits${at} (at least ${allowed}). Turn back to it, or film a plate here.`,
  'watch.crossing': ({ facts, at }) =>
    `The performer reaches over ${facts.seam}${at}. A hand would be cut off there: a moving mask for those frames, or keep off it.`,
  'watch.shadow': ({ facts, at }) =>
    `A shadow falls over ${facts.seam}${at}. It gives the trick away: move the lamp or stand further off.`,
  'watch.changed': ({ measured, at }) =>
    `Something stands or hangs elsewhere than on the plate${at}, ${measured} of the picture. Put it back, or film the plate again.`,
  'watch.nothing': () => 'Not one picture of this clip could be read. Choose another one.',
  'watch.good': ({ facts, measured }) =>
    `This clip can be used: the camera stood (${measured} at most), the light held (${Math.abs(Number(facts.stops ?? 0)).toFixed(2)} stop)${facts.crossed ? '' : ', nobody crossed the join'}.`,
} satisfies Words;

export type WatchCode = keyof typeof watchWords;
