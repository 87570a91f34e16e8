import { divideMoving, judgeOf } from '@/core/footage/seam/moving';
import type { Span } from '@/core/footage/seam/divide';
import { outlinesOf } from '@/core/footage/seam/outlines';
import type { Stroke } from '@/core/footage/seam/strokes';
import type { Point, Size } from '@/core/geometry/size';
import type { SeamMove } from '@/core/model/measures';
import type { RgbaImage } from '@/core/picture/image';
import { cells, type Both } from './seam-presence';

/** frames of one stretch that are looked at, at the most: of a longer one every second, or fewer */
const mostFrames = 160;

/** Stretches of frames round those that are troubled. @param step frames between two that were looked at */
export function spansRound(troubled: readonly number[], step: number, { from, until }: Span): Span[] {
  const spans: Span[] = [];
  for (const frame of troubled) {
    const last = spans.at(-1);
    const own = { from: Math.max(from, frame - step), until: Math.min(until, frame + step + 1) };
    if (last && own.from <= last.until + step) last.until = own.until;
    else spans.push(own);
  }
  return spans;
}

/** A still seam that does not part two in some stretches. */
type Still = {
  /** 1 a pixel where the second side shows, and the outline of that in shares of the frame */
  still: Uint8Array;
  rings: Point[][];
  size: Size;
  pairAt: (frame: number) => Promise<Both<RgbaImage>>;
  /** whose each cell is in frames, by all that were looked at so far; -1 where it is nobody's, or of both */
  keptIn: (frames: readonly number[]) => Int8Array[];
  /** whose the frame's right edge is */
  right: 0 | 1;
};

/**
 * Where the join lies over a stretch in which the still one cuts somebody: the still one for as long as it does not,
 * others then, and the still one again.
 * @param until the frame after the last of the moment
 */
export async function moveIn(
  span: Span,
  { still, rings, size, pairAt, keptIn, right }: Still,
  until: number,
): Promise<SeamMove[]> {
  const step = Math.max(1, Math.ceil((span.until - span.from) / mostFrames));
  const takes: Both<RgbaImage[]> = [[], []];
  const frames: number[] = [];
  for (let frame = span.from; frame < span.until; frame += step) {
    const [one, other] = await pairAt(frame);
    takes[0].push(one);
    takes[1].push(other);
    frames.push(frame);
  }
  const edge = (take: 0 | 1, x: number): Stroke => ({
    take,
    points: [
      [x, 0],
      [x, size.height],
    ],
    radius: 1,
  });
  const seamed = {
    takes,
    strokes: [edge(0, 0.5), edge(right, size.width - 0.5)],
    kept: { ...cells, frames: keptIn(frames) },
  };
  const moves = divideMoving(seamed, judgeOf(seamed), still).map(({ frame, labels }) => ({
    frame: frames[frame],
    rings: outlinesOf(size, labels, 1.2).map((ring) =>
      ring.map(([x, y]): Point => [x / size.width, y / size.height]),
    ),
  }));
  return moves.length > 0 && span.until < until ? [...moves, { frame: span.until, rings }] : moves;
}
