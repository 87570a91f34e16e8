import { cutFinder } from '@/core/footage/cuts/cut-finder';
import { freezeFinder } from '@/core/footage/cuts/freezes';
import { shotsOf, type Apart, type FilmMark, type ShotSheet } from '@/core/footage/cuts/shots';
import { fitWithin } from '@/core/geometry/size';
import { resizeYuv, yuvToRgba } from '@/core/picture/planes';
import { openInput } from './open';
import type { Progress } from './measure-take';
import { sheetAt } from './picture-sheet';
import { readPictures } from './pictures';

/** shots whose pictures stand side by side, and how many are kept at most */
const [perRow, most] = [16, 400];

/** pixels of the longer side in which a film is looked at */
const side = 160;

/**
 * Finds the cuts, dissolves, flashes and freezes of a film.
 * @param film its proxy, whose pictures match the film's one to one
 * @param times seconds at which each picture of the film begins to show
 */
export async function takeApart(
  film: Blob,
  times: Float64Array,
  onProgress: Progress,
): Promise<{ apart: Apart; sheet: ShotSheet; pictures: Blob }> {
  const usual = times.length > 1 ? (times[times.length - 1] - times[0]) / (times.length - 1) : 1 / 25;
  const [cuts, freezes] = [cutFinder(1 / usual), freezeFinder(1 / usual)];
  const input = openInput(film);
  let frames = 0;
  try {
    for await (const { picture } of readPictures(input)) {
      const small = resizeYuv(picture, fitWithin(picture, side));
      const seconds = times[Math.min(frames, times.length - 1)];
      cuts.push(yuvToRgba(small), seconds);
      freezes.push({ width: small.width, height: small.height, data: small.y }, seconds);
      frames++;
      onProgress((0.9 * frames) / Math.max(1, times.length));
    }
  } finally {
    input.dispose();
  }
  const at = (frame: number) => times[Math.min(frame, times.length - 1)] ?? 0;
  const marks: FilmMark[] = [
    ...cuts.finish().map((event) => ({ ...event, seconds: at(event.frame) })),
    ...freezes.finish().map(({ from }) => ({
      frame: from,
      seconds: at(from),
      kind: 'freeze' as const,
      strength: 1,
    })),
  ];
  const apart = {
    marks: marks.sort((one, other) => one.frame - other.frame),
    frames,
    seconds: at(frames - 1) + usual,
  };
  // The middle of a shot shows it better than its first picture; those past the last one that is kept are left out.
  const middles = shotsOf(apart)
    .slice(0, most)
    .map(({ seconds: { from, until } }) => (from + until) / 2);
  return { apart, ...(await sheetAt(film, times, middles, perRow)) };
}
