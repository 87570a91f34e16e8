import { steadying } from '../footage/steady';
import type { Framed } from '../geometry/size';
import type { Project } from '../model/records';
import { still, valueAt, type Track } from '../motion/keyframes';
import { fillFrame, nodeOf, running, type MediaNode, type Node, type Transform } from '../picture/node';
import type { Rgb } from '../picture/spill';
import type { ChosenTake } from './material';

/** When a take shows in the film, and which of its instants it begins with. */
export type Shown = {
  /** frames of the film, `until` excluded */
  from: number;
  until: number;
  /** seconds of the take at frame `from` */
  at: number;
  /** one picture stands all the time */
  hold?: boolean;
  /** seconds of the take at frames of the film, where it does not run as it was filmed */
  time?: Track;
  /** the colour of a backdrop whose light is taken out of it */
  without?: Rgb;
  /** the file's pixels to delivery pixels, where it does not fill the frame */
  into?: Transform;
};

/**
 * A take that fills the frame, steadied and matched where the person wants that.
 * @returns nothing where no take is chosen or it was not measured yet
 */
export function takeNode(
  { rate, width, height, push }: Project & Framed,
  id: string,
  name: string,
  chosen: ChosenTake | null,
  { from, until, at, hold = false, time, without, into }: Shown,
  rest: Partial<Node> = {},
): MediaNode[] {
  const measure = chosen?.measure;
  if (!chosen || !measure) return [];
  const { take, comparison } = chosen;
  const { size, times } = measure;
  const shows = time ?? (hold ? still(at) : running(at, from, until, rate));
  const span = { from, until: hold ? from + 1 : until };
  const steady =
    take.steady && comparison && !comparison.repeat
      ? [steadying(size, comparison.path, times, span, (frame) => valueAt(shows, frame))]
      : [];
  const { transforms = [], ...others } = rest;
  return [
    nodeOf<MediaNode>({
      id,
      name,
      from,
      until,
      content: {
        is: 'media',
        media: take.media,
        size,
        time: shows,
        ...(without && { without }),
      },
      transforms: [...steady, into ?? fillFrame(size, { width, height, push }), ...transforms],
      grade: take.match ? (comparison?.colour ?? null) : null,
      ...others,
    } as MediaNode),
  ];
}
