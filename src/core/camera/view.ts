import type { Sensor } from './sensors';

/**
 * A camera in its room. The room counts in metres from the point on the floor under the lens: x to the right,
 * y away from the camera, z up. `height` of the lens in metres, `tilt` downwards in degrees, `focal` in
 * millimetres, `sensor` the part in use.
 */
export type View = { sensor: Sensor; focal: number; height: number; tilt: number };

type RoomPoint = { x: number; y: number; z: number };
/** Shares of the frame, (0, 0) top left, y down. */
type FramePoint = { x: number; y: number };

const turn = (degrees: number) => {
  const angle = (degrees * Math.PI) / 180;
  return { sin: Math.sin(angle), cos: Math.cos(angle) };
};

/** Metres along the lens axis to a point of the room; not above zero where it lies beside or behind the camera. */
export function depthOf({ height, tilt }: View, { y, z }: RoomPoint): number {
  const { sin, cos } = turn(tilt);
  return y * cos + (height - z) * sin;
}

/** Where a point of the room falls in the frame; null behind the camera. Pinhole camera. */
export function frameOf(view: View, point: RoomPoint): FramePoint | null {
  const { sin, cos } = turn(view.tilt);
  const depth = depthOf(view, point);
  if (depth <= 1e-6) return null;
  const down = (view.height - point.z) * cos - point.y * sin;
  return {
    x: 0.5 + (point.x / depth) * (view.focal / view.sensor.width),
    y: 0.5 + (down / depth) * (view.focal / view.sensor.height),
  };
}

/** The place on a level `z` that shows at a point of the frame; null where the ray never meets it in front. */
export function roomAt(view: View, { x, y }: FramePoint, z = 0): RoomPoint | null {
  const { sin, cos } = turn(view.tilt);
  const right = ((x - 0.5) * view.sensor.width) / view.focal;
  const down = ((y - 0.5) * view.sensor.height) / view.focal;
  const falls = down * cos + sin;
  const drop = view.height - z;
  if (Math.abs(falls) < 1e-9 || drop / falls <= 0) return null;
  const depth = drop / falls;
  const away = depth * (cos - down * sin);
  return away > 1e-6 ? { x: right * depth, y: away, z } : null;
}

/** Metres from the point on the floor under the lens, as a tape measures it. */
export const tapeTo = ({ x, y }: { x: number; y: number }): number => Math.hypot(x, y);

/** The corners of the floor that the frame shows, from `near` to `far` metres away: near left, far left, far right, near right. */
export function lensCone(view: View, near: number, far: number): { x: number; y: number }[] {
  const half = (y: number) =>
    (view.sensor.width * depthOf(view, { x: 0, y, z: view.height })) / view.focal / 2;
  return [
    { x: -half(near), y: near },
    { x: -half(far), y: far },
    { x: half(far), y: far },
    { x: half(near), y: near },
  ];
}

/** A flat piece standing square to the camera's foot line: middle, width, and from the floor up. Metres. */
export type Backdrop = { x: number; y: number; width: number; height: number };

/**
 * How much of the frame a backdrop leaves open on each side, as shares; below zero it reaches beyond the edge.
 * Behind the camera all sides are open.
 */
export function backdropGaps(
  view: View,
  backdrop: Backdrop,
): Record<'left' | 'right' | 'top' | 'bottom', number> {
  const corner = (side: number, z: number) =>
    frameOf(view, { x: backdrop.x + (side * backdrop.width) / 2, y: backdrop.y, z });
  const [tl, tr, bl] = [corner(-1, backdrop.height), corner(1, backdrop.height), corner(-1, 0)];
  if (!tl || !tr || !bl) return { left: 1, right: 1, top: 1, bottom: 1 };
  return { left: tl.x, right: 1 - tr.x, top: tl.y, bottom: 1 - bl.y };
}
