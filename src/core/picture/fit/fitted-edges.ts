import { invertAffine, mapPoint, multiplyAffine, type Affine } from '../../geometry/affine';
import { cornersOf, type Bounds, type Point, type Size } from '../../geometry/size';
import { coverOfRings } from '../mask';
import type { Fit, Rings } from '../node';
import { resizeYuv, type YuvImage } from '../planes';
import { resamplePlane } from '../resample';
import { fitEdge, type FittedEdge } from './fit-edge';

/** An outline that is to be fitted to a picture of a file. */
export type Fitting = {
  /** in pixels of the content */
  rings: Rings;
  fit: Fit;
  /** the content's own size; a picture that is smaller is a proxy */
  content: Size;
  media: string;
  seconds: number;
};

/** edges that are kept, so that one picture is fitted once, whether it stands, flies, or shows again some frames later */
const kept = 32;
/** an edge that may lie so many pixels off, or fewer, is as good as drawn */
const leastReach = 2;

const scaled = (rings: Rings, by: number): Rings =>
  rings.map((ring) => ring.map(([x, y]): Point => [x * by, y * by]));

/** Coverage of outlines that are fitted to their pictures, in the pixels that are painted. */
export class FittedEdges {
  private readonly edges = new Map<string, FittedEdge>();

  /**
   * Coverage 0..255 of an outline.
   * @param picture the picture of the file at hand
   * @param matrix the content's pixels to those that are painted
   * @param size what is painted
   */
  cover(fitting: Fitting, picture: YuvImage, matrix: Affine, size: Size): Uint8Array {
    const { content, fit } = fitting;
    const out = new Uint8Array(size.width * size.height);
    // What is shown smaller is fitted as large as it shows.
    const shown = Math.hypot(matrix[0], matrix[1]) * content.width;
    const width = shown * 1.3 < picture.width ? Math.max(2, Math.round(shown)) : picture.width;
    const scale = width / content.width;
    const edge = this.edgeOf(fitting, picture, width, scale);
    const own = multiplyAffine(matrix, [1 / scale, 0, 0, 1 / scale, edge.left / scale, edge.top / scale]);
    if (edge.width > 0 && edge.height > 0)
      resamplePlane(edge.data, edge, invertAffine(own), out, size, boundsIn(own, edge, size), null);
    if (!fit.part) return out;
    const cut = coverOfRings([fit.part.within.map((point) => mapPoint(matrix, point))], size);
    return out.map((cover, at) => cover * cut[at] + 0.5);
  }

  private edgeOf(
    { rings, fit, media, seconds, content }: Fitting,
    picture: YuvImage,
    width: number,
    scale: number,
  ): FittedEdge {
    const whole = fit.part?.of ?? rings;
    const key = JSON.stringify([media, seconds, width, picture.width, fit.reach, whole]);
    const known = this.edges.get(key);
    if (known) return known;
    const height = Math.max(2, Math.round(content.height * scale));
    const small = width === picture.width ? picture : resizeYuv(picture, { width, height });
    const reach = fit.reach * scale;
    const edge = fitEdge(small, scaled(whole, scale), reach < leastReach ? 0 : reach);
    for (const old of [...this.edges.keys()].slice(0, Math.max(0, this.edges.size - kept + 1)))
      this.edges.delete(old);
    this.edges.set(key, edge);
    return edge;
  }
}

/** The part of what is painted that a picture reaches through a map. */
function boundsIn(map: Affine, picture: Size, size: Size): Bounds {
  const corners = cornersOf(picture).map((corner) => mapPoint(map, corner));
  const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
  return {
    left: Math.max(0, Math.floor(Math.min(...xs))),
    top: Math.max(0, Math.floor(Math.min(...ys))),
    right: Math.min(size.width, Math.ceil(Math.max(...xs))),
    bottom: Math.min(size.height, Math.ceil(Math.max(...ys))),
  };
}
