import type { Size } from '../geometry/size';
import { flowBetween } from '../picture/between';
import { resizePlane } from '../picture/planes';
import { median } from '../statistics';

/** Movement of most of a picture until the next one, in shares of its width: to the right and down. */
export type Pan = { dx: number; dy: number };

type Gray = Size & { data: Uint8Array };

/** pixels across in which fast movement is looked for: a quarter of the picture is found in them */
const across = 80;
/** from which share of the width on movement is fast: little more is found in the whole picture */
const fast = 0.1;

function panIn({ width, height, data }: Gray, next: Gray): Pan {
  const { dx, dy, size } = flowBetween({ width, height, y: data }, { width, height, y: next.data }, 0.5);
  return { dx: median(dx) / size.width, dy: median(dy) / size.width };
}

/**
 * How most of a picture moves to the next: a camera's pan, or what fills the frame. Right to a pixel or two of what is
 * given, and of fast movement, a tenth of the width and more, to one of eighty.
 * @param one about 160 pixels across; its luma, 0..255
 * @param next of the same size
 */
export function panBetween(one: Gray, next: Gray): Pan {
  const size = { width: across, height: Math.max(8, Math.round((across * one.height) / one.width)) };
  const small = (of: Gray): Gray => ({ ...size, data: resizePlane(of.data, of, size) });
  const rough = panIn(small(one), small(next));
  return Math.hypot(rough.dx, rough.dy) > fast ? rough : panIn(one, next);
}
