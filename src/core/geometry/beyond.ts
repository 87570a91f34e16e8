import type { Point, Size } from './size';

/** An edge of a frame: which coordinate it holds, where, and which way is out. */
type Edge = { axis: 0 | 1; at: number; out: -1 | 1 };

const edgesOf = ({ width, height }: Size): Edge[] => [
  { axis: 0, at: 0, out: -1 },
  { axis: 0, at: width, out: 1 },
  { axis: 1, at: 0, out: -1 },
  { axis: 1, at: height, out: 1 },
];

const lies = (point: Point, { axis, at, out }: Edge): boolean => (point[axis] - at) * out >= -1e-9;

/** A line that leaves the frame at less than this slope is not lengthened, which would lead too far aside. */
const flattest = 0.25;

/**
 * A ring with its points on the frame's edges moved out of the frame, so that a soft edge is soft only inside it. A
 * line that ends on an edge is lengthened; points that only follow the edge move straight out.
 * @param by pixels
 */
export function beyondFrame(ring: readonly Point[], size: Size, by: number): Point[] {
  const edges = edgesOf(size);
  return ring.map((point, index): Point => {
    const on = edges.filter((edge) => lies(point, edge));
    if (on.length === 0) return point;
    const out: Point = [point[0], point[1]];
    for (const { axis, out: way } of on) out[axis] += way * by;
    if (on.length > 1) return out;
    const [edge] = on;
    const beside = [ring[(index + ring.length - 1) % ring.length], ring[(index + 1) % ring.length]];
    const inner = beside.find((near) => !lies(near, edge));
    if (!inner) return out;
    const other = edge.axis === 0 ? 1 : 0;
    const [rise, run] = [(point[edge.axis] - inner[edge.axis]) * edge.out, point[other] - inner[other]];
    if (rise < flattest * Math.abs(run)) return out;
    out[other] += (run / rise) * by;
    return out;
  });
}
