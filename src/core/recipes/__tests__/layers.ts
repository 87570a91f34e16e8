import type { Size } from '../../geometry/size';
import { groupOf, nodeOf, running, type MediaNode, type Node } from '../../picture/node';
import type { Rate } from '../../time/rate';

/** Frames that layers of tests show. */
export const span = { from: 50, until: 100 };

/** A take that fills the frame over the span, from a second of it on. */
export const layerOf = (media: string, at: number, size: Size, rate: Rate): Node =>
  nodeOf<MediaNode>({
    id: media,
    name: media,
    ...span,
    content: { is: 'media', media, size, time: running(at, span.from, span.until, rate) },
  });

/** A picture of some layers over the span. */
export const pictureOf = (size: Size, ...layers: Node[]): Node => groupOf('shot', size, span, layers);
